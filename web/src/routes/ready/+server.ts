import { many } from '$lib/server/db';
import { answer } from '$lib/server/problem';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

/** The database answers and its migrations are applied. */
export const GET: RequestHandler = () =>
  answer(async () => {
    await many(await database(), z.unknown(), 'SELECT 1');
    return json({ status: 'ready' });
  });
