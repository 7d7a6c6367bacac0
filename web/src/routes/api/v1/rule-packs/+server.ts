import { readRulePack } from '@flarik/core/rules/document';
import { answer, readJson } from '$lib/server/problem';
import { listRulePacks, putRulePack } from '$lib/server/rulePackRepo';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = () => answer(async () => json(await listRulePacks(await database())));

/** Puts a pack on the shop's shelf, in place of one with the same id. */
export const POST: RequestHandler = ({ request }) =>
  answer(async () => {
    const pack = readRulePack(await readJson(request, 'rule pack'));
    await putRulePack(await database(), pack);
    return json({ id: pack.id }, { status: 201 });
  });
