import { DatabaseTrouble } from '$lib/server/db';
import { listRulePacks } from '$lib/server/rulePackRepo';
import { database, lookAtBuilds } from '$lib/server/store';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
  try {
    const db = await database();
    const [builds, shelf] = await Promise.all([lookAtBuilds(), listRulePacks(db)]);
    return { builds, packs: shelf.map(({ id, name, rules }) => ({ id, name, rules: rules.length })) };
  } catch (cause) {
    if (cause instanceof DatabaseTrouble) error(503, cause.message);
    throw cause;
  }
};
