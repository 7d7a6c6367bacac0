import { answer, buildId, notFound } from '$lib/server/problem';
import { listRevisions } from '$lib/server/revisionRepo';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answer(async () => {
    const id = buildId(params.id);
    const revisions = id === null ? [] : await listRevisions(await database(), id);
    return revisions.length === 0 ? notFound(params.id) : json(revisions);
  });
