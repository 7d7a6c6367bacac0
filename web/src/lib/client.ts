import type { RulePack } from '@flarik/core/design/rulePack';
import type { Build } from '@flarik/core/design/schema';
import { z } from 'zod';
import {
  BuildPicture,
  BuildSummary,
  Created,
  type NewBuildRequest,
  PackVersion,
  Problem,
  Revision,
  SaveAnswer,
  SavedBuild,
} from './api';

/** The server refused, or could not be reached (status 0); `message` is fit to be shown. */
export class ApiError extends Error {
  readonly status: number;
  readonly problem: Problem | null;
  constructor(status: number, message: string, problem: Problem | null) {
    super(message);
    this.name = 'ApiError';
    this.status = status;
    this.problem = problem;
  }
}

type Fetch = typeof fetch;

/** A server that has not answered by then is said not to, ms. */
const LONGEST_MS = 20_000;

async function call<S extends z.ZodType>(
  answer: S,
  path: string,
  init: RequestInit,
  fetcher: Fetch,
): Promise<z.output<S>> {
  const response = await fetcher(path, { ...init, signal: AbortSignal.timeout(LONGEST_MS) }).catch(
    (error: unknown) => {
      const late = error instanceof DOMException && error.name === 'TimeoutError';
      throw new ApiError(0, late ? 'The server does not answer.' : 'The server cannot be reached.', null);
    },
  );
  if (!response.ok) {
    const problem = Problem.safeParse(await response.json().catch(() => null));
    const detail = problem.success ? problem.data.detail : `The server answered ${response.status}.`;
    throw new ApiError(response.status, detail, problem.success ? problem.data : null);
  }
  return answer.parse(response.status === 204 ? null : await response.json());
}

const send = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: typeof body === 'string' ? body : JSON.stringify(body),
});

const BUILDS = '/api/v1/builds';

export const loadBuild = (id: string, fetcher: Fetch): Promise<SavedBuild> =>
  call(SavedBuild, `${BUILDS}/${id}`, {}, fetcher);

/**
 * @param key - names the picture as it is to be
 * @returns null when there is none, or no such build any more
 */
export const loadPicture = (id: string, key: string): Promise<BuildPicture | null> =>
  call(BuildPicture.nullable(), `${BUILDS}/${id}/picture?key=${key}`, {}, fetch);

export const createBuild = (request: z.input<typeof NewBuildRequest>): Promise<{ id: string }> =>
  call(Created, BUILDS, send('POST', request), fetch);

/** @param body - the build, or the text of a build file */
export const importBuild = (body: Build | string): Promise<{ id: string }> =>
  call(Created, `${BUILDS}/import`, send('POST', body), fetch);

export const importRulePack = (text: string): Promise<{ id: string }> =>
  call(Created, '/api/v1/rule-packs', send('POST', text), fetch);

export const shelvePack = (pack: RulePack): Promise<{ id: string }> =>
  call(Created, '/api/v1/rule-packs', send('POST', pack), fetch);

/** Every version of a pack on the shelf, the newest first; none when it was never put there. */
export const packVersions = async (id: string): Promise<PackVersion[]> => {
  try {
    return await call(z.array(PackVersion), `/api/v1/rule-packs/${id}/versions`, {}, fetch);
  } catch (error) {
    if (error instanceof ApiError && error.status === 404) return [];
    throw error;
  }
};

/** @param changed - what changed since `basedOn`, in one line */
export const putBuild = (
  build: Build,
  basedOn: number,
  saveId: string,
  changed: string,
): Promise<SaveAnswer> =>
  call(SaveAnswer, `${BUILDS}/${build.id}`, send('PUT', { build, basedOn, saveId, changed }), fetch);

/** Puts a build away, or brings it back into the list. */
export const archiveBuild = (id: string, archived: boolean): Promise<null> =>
  call(z.null(), `${BUILDS}/${id}`, send('PATCH', { archived }), fetch);

/** The revisions of a build, the newest first. */
export const listRevisions = (id: string): Promise<Revision[]> =>
  call(z.array(Revision), `${BUILDS}/${id}/revisions`, {}, fetch);

export const loadRevision = (id: string, version: number): Promise<SavedBuild> =>
  call(SavedBuild, `${BUILDS}/${id}/revisions/${version}`, {}, fetch);

/** @param name - null takes the name away */
export const nameRevision = (id: string, version: number, name: string | null): Promise<null> =>
  call(z.null(), `${BUILDS}/${id}/revisions/${version}`, send('PATCH', { name }), fetch);

export const removeBuild = (id: string): Promise<null> =>
  call(z.null(), `${BUILDS}/${id}`, { method: 'DELETE' }, fetch);

/** The build that stands on the server, out of a 409 answer; null when the error is another. */
export function currentOf(error: unknown): SavedBuild | null {
  if (!(error instanceof ApiError) || error.status !== 409) return null;
  const current = SavedBuild.safeParse(error.problem?.current);
  return current.success ? current.data : null;
}

/** All builds in short, the last changed first. */
export const listBuilds = (): Promise<BuildSummary[]> => call(z.array(BuildSummary), BUILDS, {}, fetch);
