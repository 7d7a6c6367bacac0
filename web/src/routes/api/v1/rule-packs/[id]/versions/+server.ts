import { Id } from '@flarik/core/words/names';
import { answer, notFound } from '$lib/server/problem';
import { packVersions } from '$lib/server/rulePackRepo';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answer(async () => {
    const id = Id.safeParse(params.id);
    const versions = id.success ? await packVersions(await database(), id.data) : [];
    return versions.length === 0 ? notFound(params.id, 'rule pack') : json(versions);
  });
