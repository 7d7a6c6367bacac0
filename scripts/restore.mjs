// npm run restore -- FILE [--replace]: puts a backup into the database that DATABASE_URL names, whole or not at all.
import { spawn } from 'node:child_process';
import { createReadStream, existsSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { databaseAsked, ensureClient, withOptions } from './lib/dump.mjs';
import { say, start, Stop } from './lib/run.mjs';

/** How a dump that is whole ends. */
const LAST_LINE = '-- Dump completed';

start(async () => {
  const replace = process.argv.includes('--replace');
  const [file, ...others] = process.argv.slice(2).filter((arg) => arg !== '--replace');
  if (file === undefined || others.length > 0)
    throw new Stop('Say which backup: npm run restore -- FILE.sql.gz [--replace]');
  if (!existsSync(file)) throw new Stop(`There is no file ${file}.`);
  const { url, schema } = databaseAsked();
  const client = await ensureClient();
  await checkWhole(file);
  await withOptions(url, async (options) => {
    /** @param {string} sql */
    const ask = (sql) => run(client, [options, '--batch', '--skip-column-names', '--execute', sql]);
    /** @param {string} of */
    const tablesOf = async (of) =>
      (await ask(`SELECT table_name FROM information_schema.tables WHERE table_schema = '${of}'`))
        .split('\n')
        .filter((name) => name !== '');
    const old = await tablesOf(schema);
    const builds = old.includes('build') ? Number(await ask(`SELECT COUNT(*) FROM \`${schema}\`.build`)) : 0;
    if (builds > 0 && !replace)
      throw new Stop(
        `The database '${schema}' holds ${String(builds)} builds. Add --replace to put the backup in their place.`,
      );
    // Beside the old tables first; then both change places in one statement, and only after it are the old ones dropped.
    const [beside, aside] = [`${schema}_restoring`, `${schema}_replaced`];
    for (const name of [beside, aside])
      await ask(`DROP DATABASE IF EXISTS \`${name}\`; CREATE DATABASE \`${name}\` CHARACTER SET utf8mb4`);
    try {
      await run(client, [options, beside], file);
      const fresh = await tablesOf(beside);
      /** @param {string[]} tables @param {string} from @param {string} to */
      const move = (tables, from, to) =>
        tables.map((table) => `\`${from}\`.\`${table}\` TO \`${to}\`.\`${table}\``);
      const moves = [...move(old, schema, aside), ...move(fresh, beside, schema)];
      await ask(`SET FOREIGN_KEY_CHECKS = 0; RENAME TABLE ${moves.join(', ')}`);
      await ask(`DROP DATABASE \`${aside}\``);
    } finally {
      await ask(`DROP DATABASE IF EXISTS \`${beside}\``);
    }
    const count = await ask(`SELECT COUNT(*) FROM \`${schema}\`.build`);
    say(`Restored: ${count.trim()} builds with all of their revisions. Start the app again.`);
  });
});

/**
 * @param {string} file
 * @throws {Stop} it is cut short, or no backup
 */
async function checkWhole(file) {
  let end = '';
  try {
    for await (const part of createReadStream(file).pipe(createGunzip()))
      end = (end + String(part)).slice(-200);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new Stop(`${file} cannot be read as a backup: ${why}. Nothing was changed.`);
  }
  if (!end.includes(LAST_LINE)) throw new Stop(`${file} is not a whole backup. Nothing was changed.`);
}

/**
 * Runs the client; what a file holds, unpacked, is its input.
 * @param {string} program
 * @param {string[]} args
 * @param {string} [file]
 */
async function run(program, args, file) {
  const child = spawn(program, args);
  let [told, trouble] = ['', ''];
  child.stdout.on('data', (/** @type {Buffer} */ data) => (told += data.toString()));
  child.stderr.on('data', (/** @type {Buffer} */ data) => (trouble += data.toString()));
  const ended = new Promise((done) => child.once('close', done));
  if (file === undefined) child.stdin.end();
  else
    await pipeline(createReadStream(file), createGunzip(), child.stdin).catch(() => {
      // The client says itself why it took no more.
    });
  if ((await ended) !== 0) throw new Stop(`Not restored; nothing was changed: ${trouble.trim()}`);
  return told;
}
