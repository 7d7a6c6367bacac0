import type { Face } from '../words/face.ts';
import type { PartKind, Vehicle } from './types.ts';

/** Whether people open a part of this kind to reach in or get out, and stand beside it. */
export function isOpening(kind: PartKind): boolean {
  switch (kind) {
    case 'door':
    case 'hatch':
    case 'bonnet':
    case 'tailgate':
    case 'shutter':
      return true;
    case 'blade':
    case 'lift':
    case 'mast':
      return false;
  }
}

/** The side of the vehicle at which a part stands while it is shut; null for one without a body. */
export function sideOfPart({ solids, lengthM, widthM }: Vehicle, partId: string): Face | null {
  const corners = solids.filter((solid) => solid.partId === partId).flatMap(({ vertices }) => vertices);
  if (corners.length === 0) return null;
  const mean = (axis: 0 | 1): number => corners.reduce((sum, v) => sum + v[axis], 0) / corners.length;
  const [x, y] = [mean(0) / lengthM, mean(1) / widthM];
  if (Math.abs(x) > Math.abs(y)) return x > 0 ? 'front' : 'rear';
  return y > 0 ? 'left' : 'right';
}
