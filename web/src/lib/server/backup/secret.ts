import { createHmac, randomBytes } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BackupError } from './format';

const SHORTEST = 32;

/**
 * The server's secret: FLARIK_SECRET, or else a random one kept in a file of the data folder, made when it is missing.
 * @throws {BackupError} FLARIK_SECRET is too short
 */
export function readSecret(env: NodeJS.ProcessEnv, dataFolder: string): string {
  const given = env.FLARIK_SECRET;
  if (given !== undefined && given !== '') {
    if (given.length < SHORTEST)
      throw new BackupError(`FLARIK_SECRET must have at least ${SHORTEST} characters.`);
    return given;
  }
  const file = join(dataFolder, 'secret');
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  try {
    writeFileSync(file, randomBytes(SHORTEST).toString('base64url'), { flag: 'wx', mode: 0o600 });
  } catch (error) {
    if (!(error instanceof Error && 'code' in error && error.code === 'EEXIST')) throw error;
  }
  return readFileSync(file, 'utf8').trim();
}

/** @returns the signature of a checksum, hex */
export const sign = (sha256: string, secret: string): string =>
  createHmac('sha256', secret).update(sha256).digest('hex');
