import { readConfig } from '$lib/server/config';
import { DatabaseDownError } from '$lib/server/db';
import { log } from '$lib/server/log';
import { closeDatabase, database } from '$lib/server/store';
import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';

export const init: ServerInit = async () => {
  try {
    readConfig(process.env);
  } catch (error) {
    log.fatal(error instanceof Error ? error.message : String(error));
    process.exit(1);
  }
  process.once('sveltekit:shutdown', () => {
    void closeDatabase();
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

const THEMES = new Set(['g100', 'white']);

/** Puts the user's theme into the page before it is sent, so that it never flashes in the other one. */
export const handle: Handle = ({ event, resolve }) => {
  const wanted = event.cookies.get('theme') ?? '';
  const theme = THEMES.has(wanted) ? wanted : 'g100';
  return resolve(event, { transformPageChunk: ({ html }) => html.replace('%theme%', theme) });
};

export const handleError: HandleServerError = ({ error, status }) => {
  if (error instanceof DatabaseDownError) return { message: error.message };
  if (status !== 404) log.error({ err: error }, 'page failed');
  return {
    message: status === 404 ? 'There is no such page.' : 'The server met an error it did not expect.',
  };
};
