import { findPicture } from '$lib/server/buildRepo';
import { answer, buildId } from '$lib/server/problem';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The picture of a build; null when there is none. Who names it as it is now may keep it: another one has another name. */
export const GET: RequestHandler = ({ params, url }) =>
  answer(async () => {
    const id = buildId(params.id);
    const found = id === null ? null : await findPicture(await database(), id);
    // It may have been deleted while the list stood open: that is no fault of whoever asks.
    if (found === null) return json(null);
    const isNamed = url.searchParams.get('key') === found.key;
    return new Response(found.text, {
      headers: {
        'content-type': 'application/json',
        'cache-control': isNamed ? 'private, max-age=31536000, immutable' : 'no-store',
      },
    });
  });
