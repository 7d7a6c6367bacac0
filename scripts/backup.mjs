// npm run backup -- FILE: everything of the database that DATABASE_URL names, as one compressed file.
import { spawn } from 'node:child_process';
import { createWriteStream, existsSync, renameSync, rmSync, statSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { databaseAsked, ensureDump, withOptions } from './lib/dump.mjs';
import { say, start, Stop } from './lib/run.mjs';

start(async () => {
  const [file, ...others] = process.argv.slice(2);
  if (file === undefined || others.length > 0)
    throw new Stop('Say where the backup goes: npm run backup -- FILE.sql.gz');
  if (existsSync(file)) throw new Stop(`${file} is there already; a backup never writes over another.`);
  const { url, schema } = databaseAsked();
  const dump = await ensureDump();
  const half = `${file}.part`;
  try {
    await withOptions(url, async (options) => {
      const child = spawn(dump, [
        options,
        // All tables as they stood at one moment, while the app goes on saving.
        '--single-transaction',
        '--hex-blob',
        '--skip-dump-date',
        '--skip-lock-tables',
        schema,
      ]);
      let trouble = '';
      child.stderr.on('data', (/** @type {Buffer} */ data) => (trouble += data.toString()));
      const ended = new Promise((done) => child.once('close', done));
      await pipeline(child.stdout, createGzip(), createWriteStream(half, { mode: 0o600 }));
      if ((await ended) !== 0) throw new Stop(`Nothing was backed up: ${trouble.trim()}`);
    });
    renameSync(half, file);
  } finally {
    rmSync(half, { force: true });
  }
  say(`${file}: ${(statSync(file).size / 1e6).toFixed(1)} MB. It holds every build, revision and rule pack.`);
});
