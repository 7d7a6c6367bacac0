import { parseInput } from '@flarik/core/words/errors';
import { RevisionPatch } from '$lib/api';
import { answer, buildId, problem, readJson, revisionNumber } from '$lib/server/problem';
import { findRevision, nameRevision } from '$lib/server/revisionRepo';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answer(async () => {
    const [id, version] = [buildId(params.id), revisionNumber(params.version)];
    const found = id === null || version === null ? null : await findRevision(await database(), id, version);
    return found === null ? noRevision(params) : json(found);
  });

/** Names a revision, or takes its name away. */
export const PATCH: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { name } = parseInput(RevisionPatch, await readJson(request, 'change of a revision'));
    const [id, version] = [buildId(params.id), revisionNumber(params.version)];
    const done = id !== null && version !== null && (await nameRevision(await database(), id, version, name));
    return done ? new Response(null, { status: 204 }) : noRevision(params);
  });

const noRevision = ({ id, version }: { id: string; version: string }): Response =>
  problem(
    404,
    `There is no revision ${version} of build '${id}'; old ones are thinned out unless they are named.`,
  );
