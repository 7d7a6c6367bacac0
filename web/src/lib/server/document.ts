import { createHash } from 'node:crypto';
import type { RequestHandler } from '@sveltejs/kit';

/** Answers with a JSON document that stays the same as long as the server runs: it is made once, and sent to each asker once. */
export function documentOf(make: () => unknown): RequestHandler {
  let made: { readonly text: string; readonly etag: string } | null = null;
  return ({ request }) => {
    if (made === null) {
      const text = JSON.stringify(make());
      made = { text, etag: `"${createHash('sha256').update(text).digest('base64url')}"` };
    }
    const headers = { etag: made.etag, 'cache-control': 'no-cache', 'content-type': 'application/json' };
    return request.headers.get('if-none-match') === made.etag
      ? new Response(null, { status: 304, headers })
      : new Response(made.text, { headers });
  };
}
