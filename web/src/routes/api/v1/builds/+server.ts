import { newBuild } from '@flarik/core/build/create';
import { parseInput } from '@flarik/core/errors';
import { NewBuildRequest } from '$lib/api';
import { insertBuild, listBuilds } from '$lib/server/buildRepo';
import { countFindings } from '$lib/server/count';
import { answer, readJson } from '$lib/server/problem';
import { listRulePacks } from '$lib/server/rulePackRepo';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = () => answer(async () => json(await listBuilds(await database())));

/** A new, empty build that carries the shop's example packs. */
export const POST: RequestHandler = ({ request }) =>
  answer(async () => {
    const { name, service } = parseInput(NewBuildRequest, await readJson(request, 'request'));
    const db = await database();
    const packs = (await listRulePacks(db)).filter((pack) => pack.rules.length > 0);
    const build = newBuild(crypto.randomUUID(), name, service, packs);
    await insertBuild(db, build, countFindings(build), crypto.randomUUID());
    return json({ id: build.id }, { status: 201 });
  });
