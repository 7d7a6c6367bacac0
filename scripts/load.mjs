// npm run load: 50 editors saving every second, 50 readers and a watcher of /health at once; then 20 writers on one build.
import autocannon from 'autocannon';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, startApp } from './lib/app.mjs';
import { endAll, endOnSignals } from './lib/closing.mjs';
import { startDatabase } from './lib/database.mjs';
import { freePort, ROOT, say, start, Stop } from './lib/run.mjs';

const EDITORS = 50;
const READERS = 50;
const WRITERS = 20;
const SAVES_EACH = 5;
const SECONDS = 20;

/** @typedef {{ id: string, version: number }} Open */

/**
 * @param {string} address
 * @param {string} path
 * @param {string} method
 * @param {unknown} body
 */
const send = (address, path, method, body) =>
  fetch(address + path, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

/** @param {string} text of a build file */
function parsed(text) {
  /** @type {unknown} */
  const value = JSON.parse(text);
  if (typeof value !== 'object' || value === null) throw new Stop('the demo build is no document');
  return value;
}

/**
 * The version that an answer speaks of, of the build itself or of the one that stands in a save's way; it comes last.
 * @param {string} answer
 */
function versionIn(answer) {
  const last = [...answer.matchAll(/"version":(\d+)/g)].at(-1)?.[1];
  return last === undefined ? null : Number(last);
}

/**
 * So many copies of a demo build.
 * @param {string} address
 * @param {number} count
 */
async function makeBuilds(address, count) {
  const text = readFileSync(join(ROOT, 'demo/builds/ks-12.json'), 'utf8');
  /** @type {string[]} */
  const ids = [];
  for (let i = 0; i < count; i++) {
    const id = crypto.randomUUID();
    const answer = await send(address, '/api/v1/builds/import', 'POST', { ...parsed(text), id });
    if (!answer.ok) throw new Stop(`a build was refused: ${await answer.text()}`);
    ids.push(id);
  }
  return { ids, text };
}

/**
 * Saves builds, one a second each, each over what it saved before.
 * @param {string} address
 * @param {readonly string[]} ids
 * @param {string} text
 * @param {number} seconds
 */
function saving(address, ids, text, seconds) {
  // Taken in turn: each has a second before it comes round again.
  const opened = ids.map((id) => ({ id, version: 1 }));
  let turn = 0;
  return autocannon({
    url: address,
    connections: ids.length,
    overallRate: ids.length,
    duration: seconds,
    requests: [
      {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        setupRequest: (request, context) => {
          const open = opened[turn++ % opened.length];
          if (open === undefined) return request;
          Object.assign(context, { open });
          const build = { ...parsed(text), id: open.id, notes: `Save ${String(open.version)}` };
          const saveId = crypto.randomUUID();
          return {
            ...request,
            path: `/api/v1/builds/${open.id}`,
            body: JSON.stringify({ build, basedOn: open.version, saveId, changed: 'Load' }),
          };
        },
        onResponse: (status, _, context) => {
          const { open } = /** @type {{ open?: Open }} */ (context);
          if (status === 200 && open !== undefined) open.version++;
        },
      },
    ],
  });
}

/**
 * @param {string} address
 * @param {readonly string[]} paths
 * @param {number} rate requests a second
 * @param {number} seconds
 */
const reading = (address, paths, rate, seconds) =>
  autocannon({
    url: address,
    connections: Math.min(paths.length, READERS),
    overallRate: rate,
    duration: seconds,
    requests: paths.map((path) => ({ method: 'GET', path })),
  });

/**
 * Many writers save over one build, each over what it last saw, until each has got through a few times.
 * @param {string} address
 * @param {string} id
 * @param {string} text
 */
async function sharing(address, id, text) {
  const from = performance.now();
  const tries = await Promise.all(
    Array.from({ length: WRITERS }, async (_, writer) => {
      let tried = 0;
      let basedOn = 1;
      for (let save = 0; save < SAVES_EACH;) {
        const build = { ...parsed(text), id, notes: `Writer ${String(writer)}, save ${String(save)}` };
        const body = { build, basedOn, saveId: crypto.randomUUID(), changed: 'Shared' };
        const answer = await send(address, `/api/v1/builds/${id}`, 'PUT', body);
        tried++;
        const told = await answer.text();
        if (answer.status === 200) save++;
        else if (answer.status !== 409 && answer.status !== 503)
          throw new Stop(`a writer was told ${String(answer.status)}`);
        basedOn = versionIn(told) ?? basedOn;
      }
      return tried;
    }),
  );
  const answer = await fetch(`${address}/api/v1/builds/${id}`);
  const version = versionIn(await answer.text()) ?? 0;
  return { seconds: (performance.now() - from) / 1000, tries, version };
}

/**
 * @param {string} name
 * @param {import('autocannon').Result} result
 */
const line = (name, { latency, non2xx, errors, requests }) =>
  `| ${name} | ${String(requests.total)} | ${String(non2xx + errors)} | ${String(latency.p50)} | ${String(latency.p97_5)} | ${String(latency.max)} |`;

endOnSignals();
start(async () => {
  await ensureBuilt();
  const dir = join(ROOT, '.data/load');
  rmSync(dir, { recursive: true, force: true });
  try {
    const database = await startDatabase(dir);
    const { address } = await startApp({ databaseUrl: database.url('flarik'), port: await freePort() });
    const { ids, text } = await makeBuilds(address, EDITORS + 2);
    const [alone = '', shared = '', ...own] = ids;
    const paths = own.map((id) => `/api/v1/builds/${id}`);
    const calm = {
      saves: await saving(address, [alone], text, 8),
      reads: await reading(address, paths.slice(0, 1), 1, 5),
      health: await reading(address, ['/health'], 10, 5),
    };
    const [saves, reads, health] = await Promise.all([
      saving(address, own, text, SECONDS),
      reading(address, paths, READERS, SECONDS),
      reading(address, ['/health'], 10, SECONDS),
    ]);
    const one = await sharing(address, shared, text);
    say(
      [
        '',
        '| what | requests | refused | half within, ms | 97.5 % within, ms | longest, ms |',
        '| --- | --- | --- | --- | --- | --- |',
        line('one editor alone', calm.saves),
        line('one reader alone', calm.reads),
        line('/health, nothing else going on', calm.health),
        line(`${String(EDITORS)} editors, a save a second each`, saves),
        line(`${String(READERS)} readers beside them`, reads),
        line('/health beside them', health),
        '',
        `Saves under load take ${(saves.latency.p97_5 / Math.max(1, calm.saves.latency.p97_5)).toFixed(1)} times what one alone takes (97.5 %).`,
        `${String(WRITERS)} writers on one build, ${String(SAVES_EACH)} saves each: all through in ${one.seconds.toFixed(1)} s, ` +
          `${String(Math.min(...one.tries))} to ${String(Math.max(...one.tries))} tries each; ` +
          `the build stands at revision ${String(one.version)} of ${String(1 + WRITERS * SAVES_EACH)}.`,
      ].join('\n'),
    );
  } finally {
    await endAll();
    rmSync(dir, { recursive: true, force: true });
  }
});
