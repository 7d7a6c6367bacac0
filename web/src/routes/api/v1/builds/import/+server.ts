import { insertBuild } from '$lib/server/buildRepo';
import { answer, readText } from '$lib/server/problem';
import type { SaveNote } from '$lib/server/revisionRepo';
import { database, digestLater, readUnread } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Takes a build file in; where its id is taken already, the import becomes a build of its own. */
export const POST: RequestHandler = ({ request }) =>
  answer(async () => {
    const text = await readText(request, 'build file');
    const unread = { text, what: 'build file', as: 'text' } as const;
    const build = await readUnread({ ...unread, id: null });
    const db = await database();
    const taken = await insertBuild(db, build, note());
    const stored = taken === null ? await readUnread({ ...unread, id: crypto.randomUUID() }) : build;
    const version = taken ?? (await insertBuild(db, stored, note()));
    if (version !== null) digestLater(stored, version);
    return json({ id: stored.id }, { status: 201 });
  });

const note = (): SaveNote => ({ saveId: crypto.randomUUID(), changed: 'Imported from a file' });
