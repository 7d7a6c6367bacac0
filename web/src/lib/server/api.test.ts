import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { z } from 'zod';
import { startApp } from '../../../../scripts/lib/app.mjs';
import { freePort, pause } from '../../../../scripts/lib/run.mjs';
import { BuildPicture, BuildSummary, Created, Problem, Revision, SaveAnswer, SavedBuild } from '../api';
import digest from './digest';
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
    expect((await problemOf(pack_)).detail).toMatch(
      /^rulePackIds\[0\]: no rule pack 'no-such' in the library/,
    );
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
    const body = { build: demoBuild('ks-13'), basedOn: 1, saveId: crypto.randomUUID() };
    expect((await send('PUT', `/api/v1/builds/${build.id}`, body)).status).toBe(404);
    await send('POST', '/api/v1/builds/import', build);
    const answer = await send('PUT', `/api/v1/builds/${build.id}`, body);
    expect(answer.status).toBe(400);
    expect((await problemOf(answer)).detail).toMatch(/^id: the document is build/);
  });
});

test('one build imported by many at once is stored once under its id, and by each of the others under another', async () => {
  const build = demoBuild('ks-12');
  const answers = await Promise.all(
    Array.from({ length: 16 }, () => send('POST', '/api/v1/builds/import', build)),
  );
  expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 201));
  const ids = await Promise.all(answers.map(async (answer) => Created.parse(await answer.json()).id));
  expect(new Set(ids).size).toBe(16);
  expect(ids).toContain(build.id);
});

test('after an answer that came before its body was read, the connection serves others', async () => {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  const ask = (method: string, path: string, headers: Record<string, string>, body?: string) =>
    new Promise<number>((done, failed) => {
      const { port } = new URL(app.address);
      const to = {
        host: '127.0.0.1',
        port,
        path,
        method,
        headers: { host: new URL(app.address).host, ...headers },
      };
      const sent = request({ ...to, agent }, (answer) => {
        answer.resume();
        answer.once('end', () => done(answer.statusCode ?? 0));
      });
      sent.once('error', (error: NodeJS.ErrnoException) => {
        // It was told while it still sent.
        if (error.code === 'EPIPE' || error.code === 'ECONNRESET') done(0);
        else failed(error);
      });
      sent.end(body);
    });
  const long = 'x'.repeat(3_000_000);
  const json = { 'content-type': 'application/json' };
  const refused = [
    await ask('POST', '/api/v1/builds', { ...json, origin: 'http://elsewhere.example' }, long),
    await ask('GET', '/health', {}),
    await ask('PUT', '/api/v1/builds', json, long),
    await ask('GET', '/health', {}),
    await ask('POST', '/api/v1/builds', { 'content-type': 'application/xml' }, long),
    await ask('GET', '/health', {}),
  ];
  agent.destroy();
  expect([403, 0]).toContain(refused[0]);
  expect([405, 0]).toContain(refused[2]);
  expect([415, 0]).toContain(refused[4]);
  expect([refused[1], refused[3], refused[5]]).toEqual([200, 200, 200]);
});

describe('names and pages that may not reach it', () => {
  /** Node's fetch sets the name of the host itself, so this goes below it. */
  const asked = (headers: Record<string, string>, method = 'GET') =>
    new Promise<number>((done, failed) => {
      const { port } = new URL(app.address);
      const sent = request({ host: '127.0.0.1', port, path: '/api/v1/builds', method, headers }, (answer) => {
        answer.resume();
        done(answer.statusCode ?? 0);
      });
      sent.on('error', failed);
      sent.end(method === 'POST' ? '{}' : undefined);
    });
  const own = () => new URL(app.address).host;

  test('a request under a foreign name is refused', async () => {
    expect(await asked({ host: own() })).toBe(200);
    expect(await asked({ host: 'rebound.example' })).toBe(403);
  });

  test('a change from a foreign page is refused, as JSON too', async () => {
    const json = { host: own(), 'content-type': 'application/json' };
    expect(await asked({ ...json, origin: 'http://elsewhere.example' }, 'POST')).toBe(403);
    expect(await asked({ ...json, origin: 'null' }, 'POST')).toBe(403);
    expect(await asked({ ...json, origin: app.address }, 'POST')).toBe(400);
  });

  test('answers say how browsers are to keep them', async () => {
    for (const path of ['/', '/api/v1/builds']) {
      const { headers } = await fetch(`${app.address}${path}`);
      expect(headers.get('x-content-type-options'), path).toBe('nosniff');
      expect(headers.get('referrer-policy'), path).toBe('no-referrer');
      expect(headers.get('cross-origin-opener-policy'), path).toBe('same-origin');
      expect(headers.get('cache-control'), path).toMatch(/no-store/);
    }
    const policy = (await fetch(app.address)).headers.get('content-security-policy');
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).toContain("form-action 'self'");
  });
});

test('who asks too fast is told when to come again, of pages too; whoever watches the server is answered', async () => {
  const slow = await startApp({
    databaseUrl: await freshDatabase('pace'),
    port: await freePort(),
    logLevel: 'silent',
    env: { MOST_REQUESTS: '1' },
  });
  try {
    const answers = await Promise.all(
      Array.from({ length: 12 }, () => fetch(`${slow.address}/api/v1/builds`)),
    );
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(10);
    const late = answers.find(({ status }) => status !== 200);
    expect(late?.status).toBe(429);
    expect(Number(late?.headers.get('retry-after'))).toBeGreaterThan(0);
    expect((await fetch(slow.address)).status).toBe(429);
    expect((await fetch(`${slow.address}/health`)).status).toBe(200);
    expect((await fetch(`${slow.address}/ready`)).status).toBe(200);
  } finally {
    await slow.stop();
  }
});

test('documents that do not change are sent once', async () => {
  for (const path of ['openapi.json', 'schema/build.json']) {
    const first = await fetch(`${app.address}/api/v1/${path}`);
    const etag = first.headers.get('etag') ?? '';
    expect(etag, path).toMatch(/^"[\w-]{43}"$/);
    expect((await first.text()).length).toBeGreaterThan(1000);
    const again = await fetch(`${app.address}/api/v1/${path}`, { headers: { 'if-none-match': etag } });
    expect(again.status, path).toBe(304);
    expect(await again.text()).toBe('');
  }
});

test('the page of a build that is not there is not found', async () => {
  const build = demoBuild('ks-13');
  const at = `${app.address}/builds/${build.id}/layout`;
  expect((await fetch(at)).status).toBe(404);
  await send('POST', '/api/v1/builds/import', build);
  expect((await fetch(at)).status).toBe(200);
  expect((await fetch(`${app.address}/builds/x/layout`)).status).toBe(404);
});

describe('odd requests get the right answer', () => {
  test('an id that can be none is not found', async () => {
    for (const id of ['%C3%A9', 'x', 'a%20b', '00000000-0000-4000-8000-000000000000'])
      for (const [method, body] of [
        ['GET', undefined],
        ['DELETE', undefined],
        ['PUT', { build: {}, basedOn: 1, saveId: crypto.randomUUID() }],
      ] as const) {
        const answer = await fetch(`${app.address}/api/v1/builds/${id}`, {
          method,
          ...(body === undefined
            ? {}
            : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
        });
        expect(answer.status, `${method} ${id}`).toBe(404);
      }
  });

  test('a rule whose kind is no word is refused with its place', async () => {
    const answer = await send('POST', '/api/v1/rule-packs', { ...pack(), rules: [{ kind: {} }] });
    expect(answer.status).toBe(400);
    expect((await problemOf(answer)).detail).toMatch(/^rules\[0\]/);
  });

  test('the same pack twice is refused, and nothing is stored', async () => {
    const build = demoBuild('ks-12');
    const [one] = build.rulePacks;
    const answer = await send('POST', '/api/v1/builds/import', { ...build, rulePacks: [one, one] });
    expect(answer.status).toBe(400);
    expect((await problemOf(answer)).detail).toMatch(/^rulePacks\[1\]/);
    expect((await fetch(`${app.address}/api/v1/builds/${build.id}`)).status).toBe(404);
  });

  test('a save’s id used for other contents is refused', async () => {
    const build = demoBuild('ks-13');
    await send('POST', '/api/v1/builds/import', build);
    const saveId = crypto.randomUUID();
    const put = (name: string, basedOn: number) =>
      send('PUT', `/api/v1/builds/${build.id}`, { build: { ...build, name }, basedOn, saveId });
    expect((await put('One', 1)).status).toBe(200);
    expect((await put('One', 1)).status).toBe(200);
    const other = await put('Two', 2);
    expect(other.status).toBe(400);
    expect((await problemOf(other)).detail).toMatch(/^saveId: names an earlier save/);
  });

  test('a body without a length that is too large is answered, not cut off', async () => {
    const { port } = new URL(app.address);
    const answer = await new Promise<Response>((done, failed) => {
      const sent = request(
        {
          host: '127.0.0.1',
          port,
          path: '/api/v1/builds/import',
          method: 'POST',
          headers: { 'content-type': 'application/json' },
        },
        (got) => {
          const parts: Buffer[] = [];
          got.on('data', (part: Buffer) => parts.push(part));
          got.on('end', () => {
            const { statusCode: status = 0, headers } = got;
            const type = headers['content-type'] ?? '';
            done(new Response(Buffer.concat(parts), { status, headers: { 'content-type': type } }));
          });
        },
      );
      sent.on('error', failed);
      for (let mb = 0; mb < 12; mb++) sent.write(Buffer.alloc(1024 * 1024, ' '));
      sent.end();
    });
    expect(answer.status).toBe(413);
    expect((await problemOf(answer)).detail).toMatch(/too large: 12\.0 MB, at most 4 MB/);
  });
});

describe('findings for the list', () => {
  const counted = async (id: string) => {
    for (;;) {
      const list = z.array(BuildSummary).parse(await (await fetch(`${app.address}/api/v1/builds`)).json());
      const build = list.find((b) => b.id === id);
      if (build?.counting === false) return build;
      await pause(100);
    }
  };

  test('come after the save, by severity', async () => {
    const build = demoBuild('ks-12');
    await send('POST', '/api/v1/builds/import', build);
    const { findings, pictureKey, version } = await counted(build.id);
    const at = `${app.address}/api/v1/builds/${build.id}/picture`;
    const answer = await fetch(`${at}?key=${pictureKey ?? ''}`);
    expect(answer.headers.get('cache-control')).toBe('private, max-age=31536000, immutable');
    const picture = BuildPicture.parse(await answer.json());
    expect((await fetch(at)).headers.get('cache-control')).toBe('no-store');
    const gone = await fetch(at.replace(build.id, crypto.randomUUID()));
    expect([gone.status, gone.headers.get('cache-control')]).toEqual([200, 'no-store']);
    expect(await gone.json()).toBeNull();
    expect(version).toBe(1);
    expect({ findings, picture }).toEqual(digest(JSON.stringify(build)));
    expect(findings?.blocks).toBeGreaterThan(0);
  });
});

describe('revisions', () => {
  test('listed, read, named; what is not there is a 404 that says so', async () => {
    const build = { ...demoBuild('ks-13'), id: crypto.randomUUID() };
    await send('POST', '/api/v1/builds/import', build);
    const save = { build: { ...build, name: 'Later' }, basedOn: 1, saveId: crypto.randomUUID() };
    await send('PUT', `/api/v1/builds/${build.id}`, { ...save, changed: 'Rename the build' });
    const at = `/api/v1/builds/${build.id}/revisions`;
    const list = async () => Revision.array().parse(await (await fetch(`${app.address}${at}`)).json());
    expect((await list()).map((r) => [r.version, r.changed])).toEqual([
      [2, 'Rename the build'],
      [1, 'Imported from a file'],
    ]);
    const first = SavedBuild.parse(await (await fetch(`${app.address}${at}/1`)).json());
    expect(first.build.name).toBe(build.name);
    expect((await send('PATCH', `${at}/1`, { name: 'As delivered' })).status).toBe(204);
    expect((await list())[1]?.name).toBe('As delivered');
    for (const path of [`${at}/3`, `${at}/0`, `${at}/x`, at.replace(build.id, crypto.randomUUID())])
      expect((await fetch(`${app.address}${path}`)).status, path).toBe(404);
    expect((await send('PATCH', `${at}/1`, { name: '<b>' })).status).toBe(400);
    expect((await send('PATCH', `${at}/9`, { name: null })).status).toBe(404);
  });

  test('put away and brought back', async () => {
    const build = { ...demoBuild('ks-13'), id: crypto.randomUUID() };
    await send('POST', '/api/v1/builds/import', build);
    const at = `/api/v1/builds/${build.id}`;
    const archived = async () =>
      BuildSummary.array()
        .parse(await (await fetch(`${app.address}/api/v1/builds`)).json())
        .find((b) => b.id === build.id)?.archived;
    expect((await send('PATCH', at, { archived: true })).status).toBe(204);
    expect(await archived()).toBe(true);
    expect((await send('PATCH', at, { archived: 'yes' })).status).toBe(400);
    expect((await send('PATCH', at.replace(build.id, crypto.randomUUID()), { archived: true })).status).toBe(
      404,
    );
  });
});

test('a body that is not sent as JSON is refused before it is read', async () => {
  const body = JSON.stringify(demoBuild('ks-13'));
  for (const type of ['text/plain', 'application/x-www-form-urlencoded', 'application/jsonx']) {
    const answer = await fetch(`${app.address}/api/v1/builds/import`, {
      method: 'POST',
      headers: { 'content-type': type, origin: app.address },
      body,
    });
    expect(answer.status, type).toBe(415);
    expect((await problemOf(answer)).detail).toMatch(/must be sent as application\/json/);
  }
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
