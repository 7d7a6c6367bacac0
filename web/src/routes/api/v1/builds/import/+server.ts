import { readBuild } from '@flarik/core/rules/document';
import { insertBuild } from '$lib/server/buildRepo';
import { answer, readJson } from '$lib/server/problem';
import { digestLater, database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Takes a build file in; where its id is taken already, the import becomes a build of its own. */
export const POST: RequestHandler = ({ request }) =>
  answer(async () => {
    const build = readBuild(await readJson(request, 'build file'));
    const db = await database();
    const taken = await insertBuild(db, build, {
      saveId: crypto.randomUUID(),
      changed: 'Taken in from a file',
    });
    const stored = taken === null ? { ...build, id: crypto.randomUUID() } : build;
    const version =
      taken ??
      (await insertBuild(db, stored, { saveId: crypto.randomUUID(), changed: 'Taken in from a file' }));
    if (version !== null) digestLater(stored, version);
    return json({ id: stored.id }, { status: 201 });
  });
