import { InputError, parseInput } from '@flarik/core/words/errors';
import { parseJson } from '@flarik/core/words/json';
import { BuildPatch, SaveRequest } from '$lib/api';
import {
  archiveBuild,
  deleteBuild,
  findStanding,
  saveBuild,
  staleSave,
  type SaveOutcome,
} from '$lib/server/buildRepo';
import { answer, buildId, notFound, problem, readJson, readText } from '$lib/server/problem';
import { database, digestLater, skipDigest, readUnread } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answer(async () => {
    const id = buildId(params.id);
    const found = id === null ? null : await findStanding(await database(), id);
    return found === null
      ? notFound(params.id)
      : new Response(found.text, { headers: { 'content-type': 'application/json' } });
  });

export const PUT: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const text = await readText(request, 'save');
    const { basedOn, saveId, changed } = parseInput(SaveRequest, parseJson(text, 'save'));
    const id = buildId(params.id);
    if (id === null) return notFound(params.id);
    const db = await database();
    // A save that cannot be taken is told so before its contents are read: many may come at once.
    const refused = await staleSave(db, id, basedOn, saveId);
    if (refused !== null) return told(refused, id, basedOn);
    const build = await readUnread({ text, what: 'save', as: 'member', id: null });
    if (build.id !== id) throw new InputError('id', `the document is build '${build.id}', saved to '${id}'`);
    const outcome = await saveBuild(db, build, basedOn, { saveId, changed });
    if (outcome.kind === 'saved') digestLater(build, outcome.version);
    return told(outcome, id, basedOn);
  });

/** Puts a build away, or brings it back. */
export const PATCH: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { archived } = parseInput(BuildPatch, await readJson(request, 'change of a build'));
    const id = buildId(params.id);
    return id !== null && (await archiveBuild(await database(), id, archived))
      ? new Response(null, { status: 204 })
      : notFound(params.id);
  });

export const DELETE: RequestHandler = ({ params }) =>
  answer(async () => {
    const id = buildId(params.id);
    if (id === null || !(await deleteBuild(await database(), id))) return notFound(params.id);
    skipDigest(id);
    return new Response(null, { status: 204 });
  });

function told(outcome: SaveOutcome, id: string, basedOn: number): Response {
  switch (outcome.kind) {
    case 'saved':
      return json({ version: outcome.version, savedAt: outcome.savedAt });
    case 'stale':
      return problem(
        409,
        `"${outcome.current.name}" was saved elsewhere as revision ${outcome.current.version} after you opened revision ${basedOn}. Both are kept.`,
        { current: JSON.parse(outcome.current.text) },
      );
    case 'id taken':
      throw new InputError('saveId', 'names an earlier save of other contents; each save needs its own');
    case 'missing':
      return notFound(id);
  }
}
