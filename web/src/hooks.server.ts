import { building } from '$app/environment';
import { hostsOf, readConfig } from '$lib/server/config';
import { DatabaseTrouble } from '$lib/server/db';
import { log } from '$lib/server/log';
import { RateLimiter } from '$lib/server/pace';
import { problem } from '$lib/server/problem';
import { closeDatabase, database, hasBuild } from '$lib/server/store';
import type { Handle, HandleServerError, RequestEvent, ServerInit } from '@sveltejs/kit';

/** What is under way at the end has so long to finish, ms. */
const LAST_WORK_MS = 3000;

export const init: ServerInit = async () => {
  try {
    readConfig(process.env);
  } catch (error) {
    log.fatal(error instanceof Error ? error.message : String(error));
    process.exit(1);
  }
  process.once('sveltekit:shutdown', () => {
    void closeDatabase();
    // Whatever still runs then is not waited for.
    setTimeout(() => process.exit(0), LAST_WORK_MS).unref();
  });
  try {
    await database();
    log.info('database ready');
  } catch (error) {
    log.error(
      { err: error },
      'the database cannot be used yet; the server runs and tries again with each request',
    );
  }
};

type Resolve = Parameters<Handle>[0]['resolve'];

const THEMES = new Set(['g100', 'white']);

/** What a browser is told about every answer, besides the pages' own policy on what they may load. */
const HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
};

/** Why a request is not answered; null when it is. */
function refusal({ request, url }: RequestEvent): string | null {
  const host = request.headers.get('host')?.toLowerCase() ?? '';
  const hosts = hostsOf(readConfig(process.env));
  if (!hosts.has(host)) return `This server does not answer to the name '${host}'. ALLOWED_HOSTS can add it.`;
  const origin = request.headers.get('origin');
  const asks = request.method === 'GET' || request.method === 'HEAD';
  if (asks || origin === null || origin === url.origin) return null;
  return hosts.has(hostIn(origin)) ? null : `Changes may not come from a page of ${origin}.`;
}

async function refused(event: RequestEvent): Promise<Response | null> {
  const why = refusal(event);
  return why === null ? tooFast(event) : problem(403, why);
}

const hostIn = (origin: string): string => (URL.canParse(origin) ? new URL(origin).host : '');

/** Whoever watches the server asks these. */
const UNCOUNTED = new Set(['/health', '/ready']);

let pace: RateLimiter | null = null;

/** Counts what its sender asks; the pages' own files, which cost next to nothing, never come here. Null when it is let in. */
async function tooFast({ url, getClientAddress }: RequestEvent): Promise<Response | null> {
  if (UNCOUNTED.has(url.pathname)) return null;
  const config = readConfig(process.env);
  pace ??= new RateLimiter(config.MOST_REQUESTS);
  const waitS = await pace.waitS(getClientAddress());
  if (waitS === null) return null;
  const answer = problem(
    429,
    `More than ${config.MOST_REQUESTS} requests a second from one place. Try again in ${waitS} s.`,
  );
  answer.headers.set('retry-after', String(waitS));
  return answer;
}

/** The page of a build that is not there is drawn by the browser, and yet not found. */
async function isMissing({ route, params: { id = '' } }: RequestEvent): Promise<boolean> {
  if (route.id?.startsWith('/builds/[id]') !== true) return false;
  // While the database is away nobody knows; the page says so itself.
  return !(await hasBuild(id).catch(() => true));
}

/** Puts the user's theme into the page before it is sent. */
const answered = async (event: RequestEvent, resolve: Resolve): Promise<Response> => {
  const page = await resolve(event, {
    transformPageChunk: ({ html }) => html.replace('%theme%', themeOf(event.cookies.get('theme'))),
  });
  return (await isMissing(event)) ? new Response(page.body, { status: 404, headers: page.headers }) : page;
};

/** Lets in what may come in. */
export const handle: Handle = async ({ event, resolve }) => {
  const answer = (building ? null : await refused(event)) ?? (await answered(event, resolve));
  for (const [name, value] of Object.entries(HEADERS)) answer.headers.set(name, value);
  // What is left of a body that was not read would stand before the next request on the same connection.
  const { body, bodyUsed } = event.request;
  if (body !== null && !bodyUsed) answer.headers.set('connection', 'close');
  // Data change with every save; only the app's own files, which carry their hash, are kept by the browser.
  if (!answer.headers.has('cache-control')) answer.headers.set('cache-control', 'no-store');
  return answer;
};

const themeOf = (wanted: string | undefined): string =>
  wanted !== undefined && THEMES.has(wanted) ? wanted : 'g100';

export const handleError: HandleServerError = ({ error, status }) => {
  if (error instanceof DatabaseTrouble) return { message: error.message };
  if (status !== 404) log.error({ err: error }, 'page failed');
  return {
    message: status === 404 ? 'There is no such page.' : 'The server met an error it did not expect.',
  };
};
