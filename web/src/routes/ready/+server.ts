import { many, wasFull } from '$lib/server/db';
import { answer, problem } from '$lib/server/problem';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

/** The database answers, has room, and its migrations are applied. */
export const GET: RequestHandler = () =>
  answer(async () => {
    await many(await database(), z.unknown(), 'SELECT 1');
    if (wasFull()) return problem(503, 'The disk of the database is full.');
    return json({ status: 'ready' });
  });
