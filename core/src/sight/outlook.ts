import { directionOf } from '../geometry/direction.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { Surfaces } from './surfaces.ts';

/** The picture reaches so far to either side of straight ahead, down and up, degrees; a cell each whole degree. */
export const OUTLOOK_DEG = { aside: 90, down: 45, up: 25 } as const;

/** What stands before an eye that looks ahead, direction by direction: rows by elevation from below, columns from left to right. */
export interface Outlook {
  readonly columns: number;
  readonly rows: number;
  /** What surfaces there are, by name. */
  readonly surfaces: readonly string[];
  /** Of each direction, its surface in `surfaces`; −1 where it goes out to the sky. */
  readonly cells: Int16Array;
}

/** What an eye sees first toward each whole degree; glass is looked through. */
export function outlookOf(surfaces: Surfaces, eye: Vec3): Outlook {
  const { aside, down, up } = OUTLOOK_DEG;
  const columns = 2 * aside + 1;
  const rows = down + up + 1;
  const known = new Map<string, number>();
  const cells = Int16Array.from({ length: columns * rows }, (_, i) => {
    const view = directionOf((i % columns) - aside, Math.floor(i / columns) - down);
    const met = surfaces.first(eye, view);
    if (met === null) return -1;
    const at = known.get(met.surface) ?? known.size;
    known.set(met.surface, at);
    return at;
  });
  return { columns, rows, surfaces: [...known.keys()], cells };
}
