import { InputError } from '../words/errors.ts';
import type { MeshSpec } from './spec.ts';

/** Corners closer than this are one corner, m. */
const SAME_CORNER_M = 0.001;

export const UNITS = { mm: 0.001, cm: 0.01, inch: 0.0254, m: 1 } as const;
export type Unit = keyof typeof UNITS;

/** Which way the file's axes lie on the vehicle. */
export interface Placing {
  readonly unit: Unit;
  readonly up: 'y' | 'z';
  /** The file's axis that points to the vehicle's front. */
  readonly front: '+x' | '-x' | '+y' | '-y' | '+z' | '-z';
  /** Moves it, after it was set on the ground in the middle of the vehicle, m. */
  readonly byM: readonly [number, number, number];
}

/** The axes of the file that point forward, left and up on the vehicle; null when front and up are the same axis. */
function axesOf({ up, front }: Placing): [number[], number[], number[]] | null {
  const axis = { x: 0, y: 1, z: 2 } as const;
  const unitAlong = (i: number, sign: number): number[] => [0, 1, 2].map((k) => (k === i ? sign : 0));
  const letter = front.slice(1);
  if (letter !== 'x' && letter !== 'y' && letter !== 'z') return null;
  if (letter === up) return null;
  const f = unitAlong(axis[letter], front.startsWith('+') ? 1 : -1);
  const u = unitAlong(axis[up], 1);
  const at = (v: number[], i: number): number => v[i] ?? 0;
  // Left is up × forward.
  const l = [0, 1, 2].map((i) => {
    const [j, k] = [(i + 1) % 3, (i + 2) % 3];
    return at(u, j) * at(f, k) - at(u, k) * at(f, j);
  });
  return [f, l, u];
}

/**
 * Puts a mesh on the vehicle: turned, scaled, its middle over the vehicle's, its lowest point on the ground.
 * Corners that fall together become one.
 * @throws {InputError} front and up are the same axis, or it is far larger than any vehicle
 */
export function placeMesh(
  raw: ArrayLike<number>,
  name: string,
  placing: Placing,
  replacesBody: boolean,
): MeshSpec {
  const axes = axesOf(placing);
  if (axes === null) throw new InputError(name, 'front and up cannot be the same axis of the file');
  const factor = UNITS[placing.unit];
  const turned = Array.from({ length: raw.length / 3 }, (_, i) =>
    axes.map((axis) => axis.reduce((sum, a, k) => sum + a * (raw[3 * i + k] ?? 0) * factor, 0)),
  );
  const ends = [0, 1, 2].map((k) => {
    const values = turned.map((p) => p[k] ?? 0);
    return [values.reduce((a, b) => Math.min(a, b)), values.reduce((a, b) => Math.max(a, b))] as const;
  });
  const [x, y, z] = ends;
  const move = [placing.byM[0] - middle(x), placing.byM[1] - middle(y), placing.byM[2] - (z?.[0] ?? 0)];
  const corners = new Map<string, number>();
  const verticesM: number[] = [];
  const indices = turned.map((p) => {
    const at = p.map((v, k) => Math.round((v + (move[k] ?? 0)) / SAME_CORNER_M) * SAME_CORNER_M);
    const key = at.map((v) => Math.round(v / SAME_CORNER_M)).join(' ');
    const known = corners.get(key);
    if (known !== undefined) return known;
    const index = corners.size;
    corners.set(key, index);
    verticesM.push(...at.map((v) => Math.round(v * 1000) / 1000 + 0));
    return index;
  });
  const far = verticesM.find((v) => Math.abs(v) > 15);
  if (far !== undefined)
    throw new InputError(name, `reaches ${far.toFixed(1)} m from the vehicle’s middle: is the unit right?`);
  const triangles: number[] = [];
  for (let i = 0; i + 2 < indices.length; i += 3) {
    const [a = 0, b = 0, c = 0] = indices.slice(i, i + 3);
    if (a !== b && b !== c && a !== c) triangles.push(a, b, c);
  }
  if (triangles.length === 0)
    throw new InputError(name, 'is smaller than a millimetre throughout: is the unit right?');
  return { name, verticesM, triangles, replacesBody };
}

const middle = (ends: readonly [number, number] | undefined): number =>
  ends === undefined ? 0 : (ends[0] + ends[1]) / 2;
