import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import { startApp } from '../../../../scripts/lib/app.mjs';
import { freePort } from '../../../../scripts/lib/run.mjs';
import { Created, Problem, SaveAnswer, SavedBuild } from '../api';
import { demoBuild, freshDatabase } from './support.testing';

let app: Awaited<ReturnType<typeof startApp>>;

beforeAll(async () => {
  app = await startApp({
    databaseUrl: await freshDatabase('api'),
    port: await freePort(),
    logLevel: 'silent',
  });
});
afterAll(() => app.stop());

const send = (method: string, path: string, body: unknown): Promise<Response> =>
  fetch(`${app.address}${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });
const problemOf = async (answer: Response): Promise<Problem> => {
  expect(answer.headers.get('content-type')).toBe('application/problem+json');
  const problem = Problem.parse(await answer.json());
  expect(problem.detail).not.toMatch(/\n\s+at /);
  return problem;
};
const pack = (): Record<string, unknown> => ({
  ...(JSON.parse(
    readFileSync(new URL('../../../../demo/packs/kestrel-sound.json', import.meta.url), 'utf8'),
  ) as object),
});

test('is up and ready', async () => {
  expect((await fetch(`${app.address}/health`)).status).toBe(200);
  expect((await fetch(`${app.address}/ready`)).status).toBe(200);
});

describe('a new build', () => {
  const make = (patch: object) =>
    send('POST', '/api/v1/builds', {
      name: 'New',
      service: 'fire',
      bodyType: 'pumper',
      rulePackIds: [],
      ...patch,
    });

  test.each(['sedan', 'panel-van', 'pumper', 'walk-in-rescue'])('on a %s', async (bodyType) => {
    const answer = await make({ bodyType });
    expect(answer.status).toBe(201);
    const { id } = Created.parse(await answer.json());
    const { build } = SavedBuild.parse(await (await fetch(`${app.address}/api/v1/builds/${id}`)).json());
    expect(build.vehicle.bodyType).toBe(bodyType);
    expect(build.placements).toEqual([]);
    expect((await send('DELETE', `/api/v1/builds/${id}`, '')).status).toBe(204);
  });

  test('on no known body, or by a pack that is not on the shelf, is refused with its place', async () => {
    const boat = await make({ bodyType: 'boat' });
    expect(boat.status).toBe(400);
    expect((await problemOf(boat)).detail).toMatch(/^bodyType: /);
    const pack_ = await make({ rulePackIds: ['no-such'] });
    expect((await problemOf(pack_)).detail).toMatch(/^rulePackIds\[0\]: no rule pack 'no-such' on the shelf/);
  });
});

describe('a build’s life', () => {
  test('import, read, save, stale save, export, delete', async () => {
    const build = demoBuild('ks-12');
    const { id } = Created.parse(await (await send('POST', '/api/v1/builds/import', build)).json());
    expect(id).toBe(build.id);
    const saved = SavedBuild.parse(await (await fetch(`${app.address}/api/v1/builds/${id}`)).json());
    expect(saved.build).toEqual(build);
    const change = { ...build, name: 'Renamed' };
    const put = (basedOn: number) =>
      send('PUT', `/api/v1/builds/${id}`, { build: change, basedOn, saveId: crypto.randomUUID() });
    expect(SaveAnswer.parse(await (await put(1)).json()).version).toBe(2);
    const stale = await put(1);
    expect(stale.status).toBe(409);
    expect((await problemOf(stale)).current).toMatchObject({ version: 2 });
    const file = await fetch(`${app.address}/api/v1/builds/${id}/file`);
    expect(file.headers.get('content-disposition')).toBe('attachment; filename="Renamed.flarik.json"');
    expect(await file.json()).toEqual(change);
    expect((await send('DELETE', `/api/v1/builds/${id}`, '')).status).toBe(204);
    expect((await fetch(`${app.address}/api/v1/builds/${id}`)).status).toBe(404);
  });

  test('importing a build twice makes two, each of its own', async () => {
    const build = demoBuild('ks-13');
    const ids = await Promise.all(
      [1, 2].map(
        async () => Created.parse(await (await send('POST', '/api/v1/builds/import', build)).json()).id,
      ),
    );
    expect(new Set(ids).size).toBe(2);
  });
});

describe('bad input changes nothing and is one sentence with its place', () => {
  const import_ = (body: unknown) => send('POST', '/api/v1/builds/import', body);
  const first = (patch: object) => {
    const build = demoBuild('ks-12');
    return { ...build, placements: build.placements.map((p, i) => (i === 0 ? { ...p, ...patch } : p)) };
  };

  test.each<[string, () => unknown, number, RegExp]>([
    ['broken JSON', () => '{"format": ', 400, /not valid JSON/],
    [
      'a newer schema',
      () => ({ ...demoBuild('ks-12'), schemaVersion: 42 }),
      400,
      /newer Flarik \(schema 42\)/,
    ],
    ['NaN', () => JSON.stringify(first({})).replace('"uM":0', '"uM":NaN'), 400, /not valid JSON/],
    [
      'an unknown fixture',
      () => first({ fixtureId: 'ghost' }),
      400,
      /^placements\[0\]\.fixtureId: no fixture 'ghost'/,
    ],
    [
      'HTML in a name',
      () => ({ ...demoBuild('ks-12'), name: '<script>alert(1)</script>' }),
      400,
      /^name: must be one line/,
    ],
    [
      'a negative size',
      () => {
        const b = demoBuild('ks-12');
        return { ...b, vehicle: { ...b.vehicle, dimensions: { ...b.vehicle.dimensions, widthM: -1 } } };
      },
      400,
      /^vehicle\.dimensions\.widthM/,
    ],
    [
      '50 MB',
      () => JSON.stringify({ pad: 'x'.repeat(50 * 1024 * 1024) }),
      413,
      /too large: 50\.0 MB, at most 4 MB/,
    ],
  ])('%s', async (_, body, status, detail) => {
    const before: unknown = await (await fetch(`${app.address}/api/v1/builds`)).json();
    const answer = await import_(body());
    expect(answer.status).toBe(status);
    expect((await problemOf(answer)).detail).toMatch(detail);
    expect(await (await fetch(`${app.address}/api/v1/builds`)).json()).toEqual(before);
  });

  test('a rule pack with an unknown kind', async () => {
    const answer = await send('POST', '/api/v1/rule-packs', { ...pack(), rules: [{ kind: 'horoscope' }] });
    expect(answer.status).toBe(400);
    expect((await problemOf(answer)).detail).toMatch(/^rules\[0\].*unknown kind of rule 'horoscope'/);
    expect(await (await fetch(`${app.address}/api/v1/rule-packs`)).json()).toEqual([]);
  });

  test('a save of another build’s document, or to no build', async () => {
    const build = demoBuild('ks-12');
    const body = { build, basedOn: 1, saveId: crypto.randomUUID() };
    expect((await send('PUT', `/api/v1/builds/${crypto.randomUUID()}`, body)).status).toBe(400);
    expect((await send('PUT', `/api/v1/builds/${build.id}`, body)).status).toBe(404);
  });
});

describe('what is published', () => {
  test('the OpenAPI document names every route, from the schemas that parse', async () => {
    const api: unknown = await (await fetch(`${app.address}/api/v1/openapi.json`)).json();
    expect(api).toMatchObject({
      openapi: '3.1.0',
      paths: { '/api/v1/builds/{id}': { put: {} }, '/api/v1/rule-packs': { post: {} } },
      components: { schemas: { Build: { type: 'object' }, Problem: { type: 'object' } } },
    });
  });
  test('the build file’s JSON Schema', async () => {
    const schema: unknown = await (await fetch(`${app.address}/api/v1/schema/build.json`)).json();
    expect(schema).toMatchObject({ type: 'object', properties: { placements: { type: 'array' } } });
  });
});
