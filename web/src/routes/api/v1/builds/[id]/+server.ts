import { readBuild } from '@flarik/core/rules/document';
import { InputError, parseInput } from '@flarik/core/words/errors';
import { SaveRequest } from '$lib/api';
import { deleteBuild, findBuild, saveBuild } from '$lib/server/buildRepo';
import { countFindings } from '$lib/server/count';
import { answer, notFound, problem, readJson } from '$lib/server/problem';
import { database } from '$lib/server/store';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answer(async () => {
    const saved = await findBuild(await database(), params.id);
    return saved === null ? notFound(params.id) : json(saved);
  });

export const PUT: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { build: unread, basedOn, saveId } = parseInput(SaveRequest, await readJson(request, 'save'));
    const build = readBuild(unread);
    if (build.id !== params.id)
      throw new InputError('id', `the document is build '${build.id}', saved to '${params.id}'`);
    const outcome = await saveBuild(await database(), build, basedOn, saveId, countFindings(build));
    switch (outcome.kind) {
      case 'saved':
        return json({ version: outcome.version, savedAt: outcome.savedAt });
      case 'stale':
        return problem(
          409,
          `"${build.name}" was saved elsewhere as revision ${outcome.current.version} after you opened revision ${basedOn}. Both are kept.`,
          { current: outcome.current },
        );
      case 'missing':
        return notFound(params.id);
    }
  });

export const DELETE: RequestHandler = ({ params }) =>
  answer(async () =>
    (await deleteBuild(await database(), params.id))
      ? new Response(null, { status: 204 })
      : notFound(params.id),
  );
