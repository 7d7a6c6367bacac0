import type { Face } from '../words/face.ts';
import { BEARINGS } from './field.ts';

/** A run of whole bearings, clockwise, both ends within it; it may pass through 0. */
export interface Sector {
  readonly fromDeg: number;
  readonly toDeg: number;
}

/** Faces by bearing; the bearing between two faces belongs to both, so that left and right are alike. */
export const FACE_SECTORS: Readonly<Record<Face, Sector>> = {
  front: { fromDeg: 315, toDeg: 45 },
  right: { fromDeg: 45, toDeg: 135 },
  rear: { fromDeg: 135, toDeg: 225 },
  left: { fromDeg: 225, toDeg: 315 },
};

/** The whole bearings of a sector, clockwise. */
export function bearingsIn({ fromDeg, toDeg }: Sector): number[] {
  const count = ((toDeg - fromDeg + BEARINGS) % BEARINGS) + 1;
  return Array.from({ length: count }, (_, i) => (fromDeg + i) % BEARINGS);
}

/** The whole bearings of each face. */
export const FACE_BEARINGS: Readonly<Record<Face, readonly number[]>> = {
  front: bearingsIn(FACE_SECTORS.front),
  right: bearingsIn(FACE_SECTORS.right),
  rear: bearingsIn(FACE_SECTORS.rear),
  left: bearingsIn(FACE_SECTORS.left),
};

const mostOf = new WeakMap<Float64Array, Map<Face, number>>();

/** The most of a ring toward a face. @param ring - by bearing; it does not change: each face is looked at once */
export function mostToward(ring: Float64Array, face: Face): number {
  const ofRing = mostOf.get(ring) ?? new Map<Face, number>();
  mostOf.set(ring, ofRing);
  const known = ofRing.get(face);
  if (known !== undefined) return known;
  const most = FACE_BEARINGS[face].reduce((max, bearing) => Math.max(max, ring[bearing] ?? 0), 0);
  ofRing.set(face, most);
  return most;
}

/** The bearings for which `test` holds, as sectors, clockwise; a run through 0 is one sector. */
export function sectorsWhere(test: (bearing: number) => boolean): Sector[] {
  const holds = Array.from({ length: BEARINGS }, (_, b) => test(b));
  if (holds.every(Boolean)) return [{ fromDeg: 0, toDeg: BEARINGS - 1 }];
  const begins = holds.flatMap((h, b) => (h && holds[(b + BEARINGS - 1) % BEARINGS] === false ? [b] : []));
  return begins.map((fromDeg) => {
    let toDeg = fromDeg;
    while (holds[(toDeg + 1) % BEARINGS] === true) toDeg = (toDeg + 1) % BEARINGS;
    return { fromDeg, toDeg };
  });
}

const FACE_SETS: Readonly<Record<Face, ReadonlySet<number>>> = {
  front: new Set(FACE_BEARINGS.front),
  right: new Set(FACE_BEARINGS.right),
  rear: new Set(FACE_BEARINGS.rear),
  left: new Set(FACE_BEARINGS.left),
};

/** The runs of a face's bearings for which `test` holds. */
export function faceSectorsWhere(face: Face, test: (bearing: number) => boolean): Sector[] {
  const inFace = FACE_SETS[face];
  return sectorsWhere((b) => inFace.has(b) && test(b));
}

/** The same sectors seen in a mirror. */
export const mirrorBearing = (bearing: number): number => (BEARINGS - bearing) % BEARINGS;

export const sectorText = ({ fromDeg, toDeg }: Sector): string =>
  fromDeg === toDeg ? `${fromDeg}°` : `${fromDeg}°–${toDeg}°`;
