import { afterEach, describe, expect, test, vi } from 'vitest';
import { demoBuild } from '@flarik/core/test/reference/demo';
import {
  ApiError,
  archiveBuild,
  currentOf,
  importBuild,
  loadBuild,
  packVersions,
  putBuild,
  removeBuild,
} from './client';

afterEach(() => vi.unstubAllGlobals());

const build = demoBuild('ks-12');
const saved = { build, version: 4, savedAt: '2026-01-01T00:00:00.000Z' };

/** A server that gives one answer, and what it was asked. */
function server(answer: () => Response | Promise<Response>) {
  const asked: { path: string; init: RequestInit }[] = [];
  const fetcher = (path: string, init: RequestInit): Promise<Response> => {
    asked.push({ path, init });
    return Promise.resolve().then(answer);
  };
  vi.stubGlobal('fetch', fetcher);
  return asked;
}
const problem = (status: number, detail: string, more: object = {}): Response =>
  Response.json({ type: 'about:blank', title: 'Not done', status, detail, ...more }, { status });
const errorOf = async (call: Promise<unknown>): Promise<ApiError> => {
  const error = await call.then(
    () => null,
    (e: unknown) => e,
  );
  if (!(error instanceof ApiError)) throw new Error('it does not fail as it should');
  return error;
};

describe('what the server answers', () => {
  test('is read by its schema: a build is a build', async () => {
    server(() => Response.json(saved));
    expect(await loadBuild(build.id, fetch)).toEqual(saved);
    server(() => Response.json({ ...saved, version: 'four' }));
    await expect(loadBuild(build.id, fetch)).rejects.toThrow(/version/);
  });

  test('its refusal is told in its own words', async () => {
    server(() => problem(422, 'placements.0.zoneId: there is no such zone'));
    const refused = await errorOf(importBuild('{}'));
    expect([refused.status, refused.message]).toEqual([422, 'placements.0.zoneId: there is no such zone']);
    server(() => new Response('<html>', { status: 502 }));
    expect((await errorOf(importBuild('{}'))).message).toBe('The server answered 502.');
  });

  test('no answer, or none in time, is told apart', async () => {
    server(() => Promise.reject(new TypeError('failed to fetch')));
    const gone = await errorOf(removeBuild('a'));
    expect([gone.status, gone.message]).toEqual([0, 'The server cannot be reached.']);
    server(() => Promise.reject(new DOMException('late', 'TimeoutError')));
    expect((await errorOf(removeBuild('a'))).message).toBe('The server does not answer.');
  });

  test('nothing to say is nothing', async () => {
    const asked = server(() => new Response(null, { status: 204 }));
    expect(await archiveBuild('a', true)).toBeNull();
    expect(asked[0]?.init.method).toBe('PATCH');
    expect(asked[0]?.init.body).toBe('{"archived":true}');
    expect(await removeBuild('a')).toBeNull();
  });
});

test('a file goes out as it is, a build as JSON', async () => {
  const asked = server(() => Response.json({ id: build.id }));
  await importBuild('{ "half": ');
  await importBuild(build);
  expect(asked.map(({ init }) => init.body)).toEqual(['{ "half": ', JSON.stringify(build)]);
});

test('a save says what it is based on, and what changed', async () => {
  const asked = server(() => Response.json({ version: 5, savedAt: saved.savedAt }));
  expect((await putBuild(build, 4, 's1', 'Move Roof')).version).toBe(5);
  const [{ path, init } = { path: '', init: {} }] = asked;
  expect([path, init.method]).toEqual([`/api/v1/builds/${build.id}`, 'PUT']);
  expect(JSON.parse(typeof init.body === 'string' ? init.body : '')).toMatchObject({
    basedOn: 4,
    saveId: 's1',
    changed: 'Move Roof',
  });
});

test('a pack that was never on the shelf has no versions; another trouble is told', async () => {
  server(() => problem(404, 'There is no such pack.'));
  expect(await packVersions('none')).toEqual([]);
  server(() => problem(503, 'The database is away.'));
  expect((await errorOf(packVersions('none'))).status).toBe(503);
});

test('a conflict brings what stands there now; nothing else does', () => {
  const conflict = (status: number, current: unknown): ApiError => {
    const detail = 'Somebody saved before you.';
    return new ApiError(status, detail, { type: 'about:blank', title: 'Stale', status, detail, current });
  };
  expect(currentOf(conflict(409, saved))).toEqual(saved);
  expect(currentOf(conflict(409, { build: 1 }))).toBeNull();
  expect(currentOf(conflict(503, saved))).toBeNull();
  expect(currentOf(new Error('other'))).toBeNull();
});
