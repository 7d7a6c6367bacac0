// What a bare machine lacks. Node built-ins only.
import { existsSync, statSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { ROOT, run, say, Stop } from './run.mjs';

/** Installs the npm packages when they are missing or older than the lockfile. */
export async function ensurePackages() {
  const installed = join(ROOT, 'node_modules/.package-lock.json');
  const lock = statSync(join(ROOT, 'package-lock.json'));
  if (existsSync(installed) && statSync(installed).mtimeMs >= lock.mtimeMs) return;
  say('Installing the npm packages …');
  await run('npm', ['ci', '--no-audit', '--no-fund']);
}

/**
 * Where a program is; null when it is not installed.
 * @param {string} program
 */
export function findProgram(program) {
  const folders = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/bin', '/sbin'];
  return folders.map((folder) => join(folder, program)).find((file) => existsSync(file)) ?? null;
}

/**
 * Installs Debian packages when a program of theirs is missing.
 * @param {string} program
 * @param {readonly string[]} packages
 * @returns {Promise<string>} where the program is
 */
export async function ensureProgram(program, packages) {
  const found = findProgram(program);
  if (found !== null) return found;
  const install = `apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  if (process.getuid?.() !== 0 || findProgram('apt-get') === null)
    throw new Stop(`Flarik needs ${program}, which is not installed. Please run, as root:\n  ${install}`);
  say(`Installing ${packages.join(' and ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await run('apt-get', ['update'], { env, quiet: true });
  await run('apt-get', install.split(' ').slice(1), { env, quiet: true });
  const now = findProgram(program);
  if (now === null) throw new Stop(`${packages.join(' and ')} installed, but there is still no ${program}.`);
  return now;
}

export const ensureMariaDb = () => ensureProgram('mariadbd', ['mariadb-server-core', 'mariadb-client-core']);
/** Debian's Chromium without its own windows, which cost a test more than the page it looks at. */
export const ensureChromium = () => ensureProgram('chromium-headless-shell', ['chromium-headless-shell']);
