import { MAX_BUILD_BYTES, parseJson, tooLarge } from '@flarik/core/words/json';
import { InputError } from '@flarik/core/words/errors';
import type { Problem } from '$lib/api';
import { DatabaseDownError } from './db';
import { log } from './log';

const TITLES: Readonly<Record<number, string>> = {
  400: 'Bad input',
  404: 'Not found',
  409: 'Changed meanwhile',
  413: 'Too large',
  500: 'Something went wrong here',
  503: 'Database not reachable',
};

/** An RFC 9457 answer. */
export function problem(status: number, detail: string, more: Partial<Problem> = {}): Response {
  const body: Problem = { type: 'about:blank', title: TITLES[status] ?? 'Error', status, detail, ...more };
  return new Response(JSON.stringify(body), {
    status,
    headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' },
  });
}

class TooLargeError extends Error {}

/** Runs a route; errors become problem details, and only those we threw on purpose show their text. */
export async function answer(route: () => Promise<Response>): Promise<Response> {
  try {
    return await route();
  } catch (error) {
    if (error instanceof InputError) return problem(400, error.message, { path: error.path });
    if (error instanceof TooLargeError) return problem(413, error.message);
    if (error instanceof DatabaseDownError) {
      log.error({ err: error.cause }, 'database down');
      return problem(503, error.message);
    }
    log.error({ err: error }, 'route failed');
    return problem(500, 'The server met an error it did not expect. Nothing was changed.');
  }
}

export const notFound = (id: string): Response => problem(404, `There is no build '${id}'.`);

/**
 * A request's JSON body, within the size limit.
 * @throws {InputError} not JSON
 */
export async function readJson(request: Request, what: string): Promise<unknown> {
  const announced = Number(request.headers.get('content-length') ?? '0');
  if (announced > MAX_BUILD_BYTES) throw new TooLargeError(tooLarge(what, announced));
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  if (request.body !== null) {
    for await (const chunk of request.body) {
      bytes += chunk.byteLength;
      if (bytes > MAX_BUILD_BYTES) throw new TooLargeError(tooLarge(what, bytes));
      chunks.push(chunk);
    }
  }
  return parseJson(Buffer.concat(chunks).toString('utf8'), what);
}
