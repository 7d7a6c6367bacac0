import type { MapQuantity } from '@flarik/core/coverage/map';

/** From dark to bright: what little light, and much light, is drawn as. */
const RAMP = ['#10182b', '#1d3a66', '#2b66a0', '#4f97c6', '#95c7dd', '#e3e9c8', '#fff2a8'] as const;

const channel = (hex: string, at: number): number => parseInt(hex.slice(1 + 2 * at, 3 + 2 * at), 16);

/** A shade for a share of the ramp, 0 to 1, as red, green and blue 0 to 255. */
export function shadeOf(share: number): readonly [red: number, green: number, blue: number] {
  const at = Math.min(1, Math.max(0, share)) * (RAMP.length - 1);
  const below = RAMP[Math.min(RAMP.length - 2, Math.floor(at))] ?? RAMP[0];
  const above = RAMP[Math.min(RAMP.length - 1, Math.floor(at) + 1)] ?? RAMP[0];
  const part = at - Math.min(RAMP.length - 2, Math.floor(at));
  const mixed = (c: number): number =>
    Math.round(channel(below, c) + part * (channel(above, c) - channel(below, c)));
  return [mixed(0), mixed(1), mixed(2)];
}

/** Where a value lies between two powers of ten, 0 to 1. */
export const shareOfDecades = (value: number, [low, high]: readonly [number, number]): number =>
  value <= 0 ? 0 : (Math.log10(value) - low) / (high - low);

/** Values as a picture, row by row; `flip` draws the first row at the bottom. */
export function picture(
  values: ArrayLike<number>,
  columns: number,
  rows: number,
  decades: readonly [number, number],
): ImageData {
  const image = new ImageData(columns, rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [r, g, b] = shadeOf(shareOfDecades(values[row * columns + column] ?? 0, decades));
      image.data.set([r, g, b, 255], 4 * ((rows - 1 - row) * columns + column));
    }
  return image;
}

const THOUSANDS = ['', 'k', 'M'];

/** A power of ten as short as it can be read. */
export const powerText = (power: number): string =>
  power < 0 ? String(10 ** power) : `${10 ** (power % 3)}${THOUSANDS[Math.floor(power / 3)] ?? ''}`;

/** The decades and the unit that a map of all directions is shaded by. */
export const scaleOf = (quantity: MapQuantity): { decades: readonly [number, number]; unit: string } =>
  quantity === 'power' ? { decades: [2, 7], unit: 'cd·s/min' } : { decades: [0, 5], unit: 'cd' };
