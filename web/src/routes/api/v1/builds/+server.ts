import { withStartingStages } from '@flarik/core/arrange/startingStages';
import { changeBrief } from '@flarik/core/design/briefEdits';
import { newBuild } from '@flarik/core/design/create';
import { InputError, parseInput } from '@flarik/core/words/errors';
import { NewBuildRequest } from '$lib/api';
import { insertBuild } from '$lib/server/buildRepo';
import { fileBuild } from '$lib/server/filed';
import { answer, readJson } from '$lib/server/problem';
import { listRulePacks } from '$lib/server/rulePackRepo';
import { database, digestLater, lookAtBuilds } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = () => answer(async () => json(await lookAtBuilds()));

/** A new, empty build that carries its own copies of the packs it asks for. */
export const POST: RequestHandler = ({ request }) =>
  answer(async () => {
    const wanted = parseInput(NewBuildRequest, await readJson(request, 'request'));
    const db = await database();
    const shelf = new Map((await listRulePacks(db)).map((pack) => [pack.id, pack]));
    const packs = wanted.rulePackIds.map((id, i) => {
      const pack = shelf.get(id);
      if (pack === undefined)
        throw new InputError(`rulePackIds[${i}]`, `no rule pack '${id}' in the library`);
      return pack;
    });
    const empty = newBuild(crypto.randomUUID(), wanted.name, wanted.service, packs, wanted.bodyType);
    const build = await fileBuild(
      withStartingStages(changeBrief(empty, { jurisdictions: wanted.jurisdictions }), wanted.start),
    );
    const version = await insertBuild(db, build, { saveId: crypto.randomUUID(), changed: 'New build' });
    if (version !== null) digestLater(build, version);
    return json({ id: build.id }, { status: 201 });
  });
