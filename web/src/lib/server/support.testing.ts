import { readBuildText, readRulePack } from '@flarik/core/rules/document';
import { readFileSync } from 'node:fs';
import mysql from 'mysql2/promise';
import type { RulePack } from '@flarik/core/design/rulePack';
import type { Build } from '@flarik/core/design/schema';

/** A fresh, empty database on the test instance; `npm test` starts that and says where it is. */
export async function freshDatabase(name: string): Promise<string> {
  const base = process.env.TEST_DATABASE_URL;
  if (base === undefined) throw new Error('TEST_DATABASE_URL is not set: run the tests by npm test');
  const connection = await mysql.createConnection(base);
  await connection.query(`DROP DATABASE IF EXISTS flarik_${name}`);
  await connection.query(`CREATE DATABASE flarik_${name} CHARACTER SET utf8mb4`);
  await connection.end();
  const url = new URL(base);
  url.pathname = `/flarik_${name}`;
  return url.href;
}

/** A demo build under an id of its own. */
export function demoBuild(name: 'ks-12' | 'ks-13'): Build {
  const text = readFileSync(new URL(`../../../../demo/builds/${name}.json`, import.meta.url), 'utf8');
  return { ...readBuildText(text), id: crypto.randomUUID() };
}

/** A pack of the demo. */
export const demoPack = (): RulePack =>
  readRulePack(
    JSON.parse(readFileSync(new URL('../../../../demo/packs/kestrel-sound.json', import.meta.url), 'utf8')),
  );
