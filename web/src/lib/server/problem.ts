import { MAX_BUILD_BYTES, parseJson, tooLarge } from '@flarik/core/words/json';
import { InputError } from '@flarik/core/words/errors';
import type { Problem } from '$lib/api';
import { z } from 'zod';
import { DatabaseFullError, DatabaseTrouble } from './db';
import { log } from './log';
import { ReadingBusyError } from './reading';

const TITLES: Readonly<Record<number, string>> = {
  400: 'Bad input',
  403: 'Forbidden',
  404: 'Not found',
  409: 'Changed meanwhile',
  413: 'Too large',
  500: 'Something went wrong here',
  408: 'Too slow',
  415: 'Not JSON',
  429: 'Too fast',
  503: 'Not ready',
  507: 'No room left',
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
class TooSlowError extends Error {}
class NotJsonError extends Error {}

/** Runs a route; errors become problem details, and only those we threw on purpose show their text. */
export async function answer(route: () => Promise<Response>): Promise<Response> {
  try {
    return await route();
  } catch (error) {
    if (error instanceof InputError) return problem(400, error.message, { path: error.path });
    if (error instanceof TooLargeError) return problem(413, error.message);
    if (error instanceof NotJsonError) return problem(415, error.message);
    if (error instanceof TooSlowError) return problem(408, error.message);
    if (error instanceof DatabaseTrouble) {
      log.error({ err: error.cause }, 'database down, busy or full');
      return problem(error instanceof DatabaseFullError ? 507 : 503, error.message);
    }
    if (error instanceof ReadingBusyError) {
      log.error({ err: error }, 'a build was not read in time');
      return problem(503, error.message);
    }
    log.error({ err: error }, 'route failed');
    return problem(500, 'The server met an error it did not expect. Nothing was changed.');
  }
}

export const notFound = (id: string, what = 'build'): Response =>
  problem(404, `There is no ${what} '${id}'.`);

/** A body that has not come in whole by then is not waited for, ms. */
const LONGEST_BODY_MS = 30_000;
/** So much of a body that is too large is still taken in, so that its sender hears why. */
const MOST_DRAINED_BYTES = 64 * 1024 * 1024;

/** A request's JSON body as it came, within the size limit, and sent as what it is. */
export async function readText(request: Request, what: string): Promise<string> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/([\w.-]+\+)?json\s*(;|$)/i.test(type))
    throw new NotJsonError(`the ${what} must be sent as application/json, not '${type}'`);
  const announced = Number(request.headers.get('content-length') ?? '0');
  if (announced > MOST_DRAINED_BYTES) throw new TooLargeError(tooLarge(what, announced));
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  const reader = request.body?.getReader();
  const slow = setTimeout(() => void reader?.cancel(), LONGEST_BODY_MS);
  const until = Date.now() + LONGEST_BODY_MS;
  try {
    for (let part = await reader?.read(); part?.done === false; part = await reader?.read()) {
      bytes += part.value.byteLength;
      if (bytes > MOST_DRAINED_BYTES) break;
      if (bytes <= MAX_BUILD_BYTES) chunks.push(part.value);
    }
  } finally {
    clearTimeout(slow);
  }
  if (bytes > MAX_BUILD_BYTES) throw new TooLargeError(tooLarge(what, Math.max(bytes, announced)));
  if (Date.now() >= until)
    throw new TooSlowError(`the ${what} did not arrive within ${LONGEST_BODY_MS / 1000} s`);
  return Buffer.concat(chunks).toString('utf8');
}

/**
 * A request's JSON body, within the size limit, and sent as what it is.
 * @throws {InputError} not JSON
 */
export const readJson = async (request: Request, what: string): Promise<unknown> =>
  parseJson(await readText(request, what), what);

/**
 * An id of a build as a path names it.
 * @returns null when it cannot be one
 */
export const buildId = (param: string): string | null => (z.uuid().safeParse(param).success ? param : null);

/**
 * The number of a revision as a path names it.
 * @returns null when it cannot be one
 */
export const revisionNumber = (param: string): number | null =>
  /^[1-9]\d{0,8}$/.test(param) ? Number(param) : null;
