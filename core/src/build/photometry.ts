import { z } from 'zod';
import { InputError } from '../errors.ts';
import { Colour } from '../fixture/colour.ts';
import { readEulumdat } from '../fixture/photometry/eulumdat.ts';
import { readIes } from '../fixture/photometry/ies.ts';
import type { PhotometricTable } from '../fixture/photometry/table.ts';
import { Id, Name } from '../names.ts';

/** No attached file is larger, characters. */
const MOST_CHARACTERS = 400_000;

/** A photometric file attached to a fixture, as it came. */
export const PhotometryFile = z
  .strictObject({
    id: Id,
    fileName: Name,
    format: z.enum(['ies', 'ldt'], { error: "must be 'ies' or 'ldt'" }),
    fixtureId: Id,
    /** The module it speaks of; null speaks of every module. */
    moduleId: Id.nullable(),
    axis: z.enum(['aim', 'upright'], { error: "must be 'aim' or 'upright'" }),
    /** The colour whose peak the file gives; null takes its shape alone. */
    peakFor: Colour.nullable(),
    text: z.string().max(MOST_CHARACTERS, `must be at most ${MOST_CHARACTERS} characters`),
  })
  .superRefine((file, ctx) => {
    try {
      readTable(file.format, file.text);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      ctx.addIssue({ code: 'custom', path: ['text'], message: `${file.fileName}: ${error.message}` });
    }
  });
export type PhotometryFile = z.infer<typeof PhotometryFile>;

/**
 * Reads a photometric file of either format.
 * @throws {InputError} the line and what is wrong with it
 */
export const readTable = (format: 'ies' | 'ldt', text: string): PhotometricTable =>
  format === 'ies' ? readIes(text) : readEulumdat(text);

/** Which format a file's name says. */
export function formatOf(fileName: string): 'ies' | 'ldt' {
  const kind = /\.(ies|ldt)$/i.exec(fileName)?.[1]?.toLowerCase();
  if (kind !== 'ies' && kind !== 'ldt') throw new InputError(fileName, 'must be an .ies or an .ldt file');
  return kind;
}

const tables = new WeakMap<PhotometryFile, PhotometricTable>();

/** The table in an attached file; read once. */
export function tableOf(file: PhotometryFile): PhotometricTable {
  const known = tables.get(file) ?? readTable(file.format, file.text);
  tables.set(file, known);
  return known;
}
