import { z } from 'zod';

/**
 * A backup is a compressed file of lines of JSON: a head, one line a row, a foot. It holds data alone; nothing in it is
 * run.
 */
export const Head = z.strictObject({
  format: z.literal('flarik-backup'),
  version: z.literal(1),
  /** Those that had been applied, in order: the rows fit the tables that they make. */
  migrations: z.array(z.strictObject({ number: z.int(), name: z.string(), checksum: z.string() })).min(1),
  /** A table that another refers to comes before it. */
  tables: z.array(z.strictObject({ name: z.string(), columns: z.array(z.string()).min(1) })),
});
export type Head = z.infer<typeof Head>;

/** A value as MariaDB writes it; moments are texts, bytes are in base64. */
const Cell = z.union([z.string(), z.number(), z.null(), z.strictObject({ base64: z.base64() })]);
/** The number of the row's table in the head, and a value for each of its columns. */
export const Row = z.tuple([z.int().min(0), z.array(Cell)]);

/** Tables that are no part of a backup: made anew by whoever restores, or of use to a running server alone. */
export const NOT_KEPT: ReadonlySet<string> = new Set(['schema_migration', 'lease']);

const Hex = z.string().regex(/^[0-9a-f]{64}$/);
export const Foot = z.strictObject({
  /** How many rows each table has, in the head's order. */
  rows: z.array(z.int().min(0)),
  /** Of every line above, its end included. */
  sha256: Hex,
  /** HMAC-SHA-256 of that checksum with the server's secret. */
  signature: Hex,
});
export type Foot = z.infer<typeof Foot>;

/** A value as a driver takes and gives it. */
export type Value = string | number | null | Buffer;

export const toCell = (value: Value): z.infer<typeof Cell> =>
  Buffer.isBuffer(value) ? { base64: value.toString('base64') } : value;

export const toValue = (cell: z.infer<typeof Cell>): Value =>
  cell !== null && typeof cell === 'object' ? Buffer.from(cell.base64, 'base64') : cell;

/** Why something is not backed up or restored, in words for the person at the keyboard. */
export class BackupError extends Error {
  override name = 'BackupError';
}

/** The tables were perhaps exchanged already when something failed. */
export class SwapError extends BackupError {
  constructor(aside: string, cause: unknown) {
    super(
      `The restore was interrupted while the tables changed places. If the new data are there, the old ones are in the database '${aside}'; npm run restore -- --undo brings them back.`,
    );
    this.cause = cause;
  }
}
