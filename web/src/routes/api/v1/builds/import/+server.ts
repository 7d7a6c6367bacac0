import { readBuild } from '@flarik/core/rules/document';
import { insertBuild } from '$lib/server/buildRepo';
import { countFindings } from '$lib/server/count';
import { answer, readJson } from '$lib/server/problem';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Takes a build file in; where its id is taken already, the import becomes a build of its own. */
export const POST: RequestHandler = ({ request }) =>
  answer(async () => {
    const build = readBuild(await readJson(request, 'build file'));
    const db = await database();
    const counts = countFindings(build);
    if (await insertBuild(db, build, counts, crypto.randomUUID()))
      return json({ id: build.id }, { status: 201 });
    const copy = { ...build, id: crypto.randomUUID() };
    await insertBuild(db, copy, counts, crypto.randomUUID());
    return json({ id: copy.id }, { status: 201 });
  });
