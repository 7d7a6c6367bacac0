import { findPicture } from '$lib/server/buildRepo';
import { answer, buildId, notFound } from '$lib/server/problem';
import { database } from '$lib/server/store';
import type { RequestHandler } from './$types';

/** The picture of a build. Who names it as it is now may keep it: another one has another name. */
export const GET: RequestHandler = ({ params, url }) =>
  answer(async () => {
    const id = buildId(params.id);
    const found = id === null ? null : await findPicture(await database(), id);
    if (found === null) return notFound(params.id, 'preview of build');
    const isNamed = url.searchParams.get('key') === found.key;
    return new Response(found.text, {
      headers: {
        'content-type': 'application/json',
        'cache-control': isNamed ? 'private, max-age=31536000, immutable' : 'no-store',
      },
    });
  });
