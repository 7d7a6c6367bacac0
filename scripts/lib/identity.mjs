// Telling a process from another that got its number later. Node built-ins only.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';

/** @typedef {{ pid: number, startedAt: string, command: string }} Identity */

/**
 * Who runs under a process number just now: when it was started, and by which command.
 * @param {number} pid
 * @returns {Identity | null} null when nobody does
 */
export function identityOf(pid) {
  if (!Number.isSafeInteger(pid) || pid <= 0) return null;
  try {
    if (existsSync('/proc/self/stat')) {
      const stat = readFileSync(`/proc/${String(pid)}/stat`, 'utf8');
      // The name in brackets may hold blanks; the start time is the 20th field after it, the state the first.
      const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
      if (fields[0] === 'Z') return null;
      const command = readFileSync(`/proc/${String(pid)}/cmdline`, 'utf8')
        .replaceAll('\0', ' ')
        .trim();
      return { pid, startedAt: fields[19] ?? '', command };
    }
    const told = execFileSync('ps', ['-o', 'lstart=,args=', '-p', String(pid)], { encoding: 'utf8' }).trim();
    return { pid, startedAt: told.slice(0, 24), command: told.slice(25) };
  } catch {
    return null;
  }
}

/**
 * Whether a process that was written down still runs, and is not a stranger with its number.
 * @param {Identity} known
 */
export function isStill(known) {
  const now = identityOf(known.pid);
  return now !== null && now.startedAt === known.startedAt && now.command === known.command;
}

/**
 * @param {unknown} value
 * @returns {value is Identity}
 */
export const isIdentity = (value) =>
  typeof value === 'object' &&
  value !== null &&
  'pid' in value &&
  typeof value.pid === 'number' &&
  'startedAt' in value &&
  typeof value.startedAt === 'string' &&
  'command' in value &&
  typeof value.command === 'string';
