import { findBuild } from '$lib/server/buildRepo';
import { answer, buildId, notFound } from '$lib/server/problem';
import { database } from '$lib/server/store';
import type { RequestHandler } from './$types';

/** The build as a file to keep or send: the document alone, which import reads back exactly. */
export const GET: RequestHandler = ({ params }) =>
  answer(async () => {
    const id = buildId(params.id);
    const saved = id === null ? null : await findBuild(await database(), id);
    if (saved === null) return notFound(params.id);
    const name = saved.build.name.replaceAll(/[^A-Za-z0-9._-]+/g, '-');
    return new Response(`${JSON.stringify(saved.build, null, 2)}\n`, {
      headers: {
        'content-type': 'application/json',
        'content-disposition': `attachment; filename="${name}.flarik.json"`,
      },
    });
  });
