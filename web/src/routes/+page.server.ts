import { listBuilds } from '$lib/server/buildRepo';
import { DatabaseDownError } from '$lib/server/db';
import { database } from '$lib/server/store';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
  try {
    return { builds: await listBuilds(await database()) };
  } catch (cause) {
    if (cause instanceof DatabaseDownError) error(503, cause.message);
    throw cause;
  }
};
