// npm run load: 50 editors saving every second, 50 readers and a watcher of /health at once; then 20 writers on one build.
import autocannon from 'autocannon';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, startApp } from './lib/app.mjs';
import { endAll, endOnSignals } from './lib/closing.mjs';
import { startDatabase } from './lib/database.mjs';
import { freePort, pause, ROOT, say, start, Stop } from './lib/run.mjs';

const EDITORS = 50;
const READERS = 50;
const WRITERS = 20;
const SAVES_EACH = 5;
const SECONDS = 20;
/** Between two tries of a writer, ms. */
const LONGEST_WAIT_MS = 400;

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
 * Saves a build once a second, each time over what was saved before.
 * @param {string} address
 * @param {string} id
 * @param {string} text
 */
function editor(address, id, text) {
  let version = 1;
  return {
    url: address,
    requests: [
      {
        method: /** @type {const} */ ('PUT'),
        headers: { 'content-type': 'application/json' },
        path: `/api/v1/builds/${id}`,
        /** @param {import('autocannon').Request} request */
        setupRequest: (request) => {
          const build = { ...parsed(text), id, notes: `Save ${String(version)}` };
          const saveId = crypto.randomUUID();
          return {
            ...request,
            body: JSON.stringify({ build, basedOn: version, saveId, changed: 'Load' }),
          };
        },
        /**
         * A save that was cut off at the end of a stretch may have been taken: the next is told so.
         * @param {number} status
         * @param {string} answer
         */
        onResponse: (status, answer) => {
          version = status === 200 ? version + 1 : (versionIn(answer) ?? version);
        },
      },
    ],
  };
}

/**
 * @param {string} address
 * @param {string} path
 */
const reader = (address, path) => ({ url: address + path });

/**
 * Each on a connection of its own, asking at its own moment, as people do; not all in the same millisecond.
 * @param {readonly import('autocannon').Options[]} askers
 * @param {number} seconds
 * @param {number} everyMs
 */
async function asking(askers, seconds, everyMs = 1000) {
  const results = await Promise.all(
    askers.map(async (asker, i) => {
      await pause((i * everyMs) / askers.length);
      return autocannon({
        ...asker,
        connections: 1,
        connectionRate: 1000 / everyMs,
        duration: seconds,
        skipAggregateResult: true,
      });
    }),
  );
  return autocannon.aggregateResult(results, { url: 'all', connections: askers.length });
}

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
      let refused = 0;
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
        refused = answer.status === 200 ? 0 : refused + 1;
        // Who was refused more often tries again sooner; who got through waits longest.
        await pause((LONGEST_WAIT_MS * Math.random()) / (1 + refused));
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
    const editors = own.map((id) => editor(address, id, text));
    const calm = {
      saves: await asking([editor(address, alone, text)], 8),
      reads: await asking([reader(address, paths[0] ?? '')], 5),
      health: await asking([reader(address, '/health')], 5, 100),
    };
    /** All at once; each build is at the version that it was left at. */
    const busy = () =>
      Promise.all([
        asking(editors, SECONDS),
        asking(
          paths.slice(0, READERS).map((path) => reader(address, path)),
          SECONDS,
        ),
        asking([reader(address, '/health')], SECONDS, 100),
      ]);
    const cold = await busy();
    const [saves, reads, health] = await busy();
    const one = await sharing(address, shared, text);
    say(
      [
        '',
        '| what | requests | refused | half within, ms | 97.5 % within, ms | longest, ms |',
        '| --- | --- | --- | --- | --- | --- |',
        line('one editor alone', calm.saves),
        line('one reader alone', calm.reads),
        line('/health, nothing else going on', calm.health),
        line(`${String(EDITORS)} editors, a save a second each, the server just started`, cold[0]),
        line(`${String(READERS)} readers beside them`, cold[1]),
        line('/health beside them', cold[2]),
        line('the same editors, later', saves),
        line('the same readers', reads),
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
