import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream';
import { createGunzip } from 'node:zlib';
import { z } from 'zod';
import { BackupError, Foot, Head, Row, toValue, type Value } from './format';
import { sign } from './secret';

/** The longest line that is read, bytes: twice the largest document, written as text in a text. */
const LONGEST_LINE = 32 * 1024 * 1024;
const LINE_END = 0x0a;

export interface Backup {
  readonly head: Head;
  readonly foot: Foot;
  /** Whether it was signed with this server's secret. */
  readonly isSigned: boolean;
}

/** What is done with a backup's rows as they come. */
export type OnRow = (table: Head['tables'][number], values: Value[]) => Promise<void>;

/**
 * Reads a backup from its first line to its last, and checks that it is whole and unchanged.
 * @throws {BackupError} it is no backup, is cut short, or was changed
 */
export async function readBackup(file: string, secret: string, onRow?: OnRow): Promise<Backup> {
  const hash = createHash('sha256');
  let head: Head | null = null;
  let foot: Foot | null = null;
  const rows: number[] = [];
  for await (const { line, number } of linesOf(file)) {
    if (foot !== null) throw new BackupError(`${file}: line ${number} follows the end of the backup.`);
    const value = parse(file, number, line);
    if (head === null) head = headOf(file, value);
    else if (Array.isArray(value)) {
      const { table, values } = rowOf(file, number, value, head, rows);
      await onRow?.(table, values);
    } else {
      foot = footOf(file, number, value);
      continue;
    }
    hash.update(line).update('\n');
  }
  if (head === null || foot === null) throw new BackupError(`${file} is not a complete backup.`);
  const counted = head.tables.map((_, i) => rows[i] ?? 0);
  if (hash.digest('hex') !== foot.sha256 || counted.join() !== foot.rows.join())
    throw new BackupError(`${file} was changed after it was made: its checksum does not match.`);
  return { head, foot, isSigned: sign(foot.sha256, secret) === foot.signature };
}

/** The lines of a compressed file, without their ends. */
async function* linesOf(file: string): AsyncGenerator<{ line: Buffer; number: number }> {
  let parts: Buffer[] = [];
  let length = 0;
  let number = 1;
  const Part = z.instanceof(Buffer);
  try {
    // What fails on the way ends the loop below; nobody else need be told.
    const text = pipeline(createReadStream(file), createGunzip(), () => undefined);
    for await (const chunk of text) {
      let rest = Part.parse(chunk);
      for (let end = rest.indexOf(LINE_END); end >= 0; end = rest.indexOf(LINE_END)) {
        yield { line: Buffer.concat([...parts, rest.subarray(0, end)]), number };
        [parts, length, number] = [[], 0, number + 1];
        rest = rest.subarray(end + 1);
      }
      parts.push(rest);
      length += rest.length;
      if (length > LONGEST_LINE) throw new BackupError(`${file}: line ${number} is too long for a backup.`);
    }
  } catch (error) {
    if (error instanceof BackupError || !(error instanceof Error && 'code' in error)) throw error;
    throw new BackupError(`${file} cannot be read as a backup: ${error.message}.`);
  }
  if (length > 0) throw new BackupError(`${file} is not a complete backup.`);
}

function parse(file: string, number: number, line: Buffer): unknown {
  try {
    return JSON.parse(line.toString('utf8'));
  } catch {
    throw new BackupError(
      number === 1 ? `${file} is not a Flarik backup.` : `${file}: line ${number} is not JSON.`,
    );
  }
}

function headOf(file: string, value: unknown): Head {
  const head = Head.safeParse(value);
  if (head.success) return head.data;
  throw new BackupError(`${file} is not a Flarik backup, or one of a newer version.`);
}

function footOf(file: string, number: number, value: unknown): Foot {
  const foot = Foot.safeParse(value);
  if (foot.success) return foot.data;
  throw new BackupError(`${file}: line ${number} is neither a row nor the end of a backup.`);
}

function rowOf(
  file: string,
  number: number,
  value: unknown,
  head: Head,
  rows: number[],
): { table: Head['tables'][number]; values: Value[] } {
  const row = Row.safeParse(value);
  const [i, cells] = row.success ? row.data : [-1, []];
  const table = head.tables[i];
  if (table?.columns.length !== cells.length)
    throw new BackupError(`${file}: line ${number} is not a row of any table.`);
  rows[i] = (rows[i] ?? 0) + 1;
  return { table, values: cells.map(toValue) };
}
