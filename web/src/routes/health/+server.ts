import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The process is up. */
export const GET: RequestHandler = () => json({ status: 'up' });
