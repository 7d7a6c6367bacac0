import { readFileSync } from 'node:fs';
import { formatOf, readTable } from '@flarik/core/fixture/photometry/file';
import { InputError } from '@flarik/core/words/errors';
import { peakOf, tableCd, type PhotometricTable } from '@flarik/core/fixture/photometry/table';
import { decimal } from './decimal.ts';
import type { Args } from './args.ts';
import type { Output } from './output.ts';
import { fileTrouble } from './fileTrouble.ts';

/** What an IES or EULUMDAT file says: its size and peak, and the intensity toward H, V of the module's aim. */
export function photometry(args: Args): Output {
  const table = tableIn(args.file);
  const facts = {
    type: table.type,
    verticalAngles: table.verticalDeg.length,
    horizontalAngles: table.horizontalDeg.length,
    peakCd: peakOf(table),
    watts: table.watts,
  };
  const toward = args.at === undefined ? null : anglesOf(args.at);
  const cd = toward === null ? null : cdToward(table, args.upright, toward);
  if (args.json) return { exitCode: 0, text: JSON.stringify({ ...facts, toward, cd }, null, 2) };
  const lines = [
    `type ${facts.type}, ${facts.verticalAngles} × ${facts.horizontalAngles} angles, peak ${facts.peakCd.toFixed(1)} cd`,
    ...(toward === null || cd === null ? [] : [`H ${toward.hDeg}°, V ${toward.vDeg}°: ${cd.toFixed(3)} cd`]),
  ];
  return { exitCode: 0, text: lines.join('\n') };
}

function tableIn(file: string): PhotometricTable {
  const format = formatOf(file);
  try {
    return readTable(format, readFileSync(file, 'latin1'));
  } catch (error) {
    if (error instanceof InputError) throw new InputError(file, error.message);
    throw new InputError(file, fileTrouble(error));
  }
}

function anglesOf(at: string): { hDeg: number; vDeg: number } {
  const [hDeg, vDeg, more] = at.split(',').map(decimal);
  if (
    hDeg === undefined ||
    vDeg === undefined ||
    more !== undefined ||
    !(Math.abs(hDeg) <= 180 && Math.abs(vDeg) <= 90)
  )
    throw new InputError('--at', `must be H,V in degrees, such as --at 10,-2.5, not '${at}'`);
  return { hDeg, vDeg };
}

function cdToward(
  table: PhotometricTable,
  upright: boolean,
  { hDeg, vDeg }: { hDeg: number; vDeg: number },
): number {
  const h = (hDeg * Math.PI) / 180;
  const v = (vDeg * Math.PI) / 180;
  const axis = upright ? 'upright' : 'aim';
  return tableCd(table, axis, Math.cos(v) * Math.cos(h), Math.cos(v) * Math.sin(h), Math.sin(v));
}
