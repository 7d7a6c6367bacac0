import type { Placement } from '../design/placement.ts';
import type { MountZone } from '../vehicle/types.ts';
import { zoneOf } from '../vehicle/vehicle.ts';
import type { Lookup } from '../resolve/lookup.ts';
import { footprint, keepOnZone, placeFixture } from '../resolve/place.ts';

const SHUT: ReadonlySet<string> = new Set();
/** A zone whose v leans further from upright than this has no heights, as the roof. */
const UPRIGHT = 0.5;

/** Why a lamp came to rest where it did. */
export type SnapReason = 'middle' | 'edge' | 'equal spacing' | 'adjacent' | 'in line' | 'same height';

/** What a lamp was drawn to: a line across its zone at this u or v, m. */
export interface Guide {
  readonly axis: 'u' | 'v';
  readonly atM: number;
  readonly why: SnapReason;
}

export interface Snapped {
  readonly uM: number;
  readonly vM: number;
  readonly guides: readonly Guide[];
}

type Candidate = readonly [atM: number, why: SnapReason];

/** The candidate nearest to a value and no further off than `withinM`; earlier ones win a tie. */
function nearest(value: number, candidates: readonly Candidate[], withinM: number): Candidate | null {
  let best: Candidate | null = null;
  for (const c of candidates) {
    const off = Math.abs(c[0] - value);
    if (off <= withinM && (best === null || off < Math.abs(best[0] - value) - 1e-9)) best = c;
  }
  return best;
}

/**
 * Draws a lamp that is being moved to what it is likely meant for: the middle or the edges of its zone, equal
 * spacing with the others there, their line, or the height of lamps on other zones of the same face.
 *
 * @param others - the other lamps of the build
 * @param withinM - draws no further than this, m
 */
export function snapOnZone(
  lookup: Lookup,
  others: readonly Placement[],
  moving: Pick<Placement, 'fixtureId' | 'zoneId'>,
  at: { readonly uM: number; readonly vM: number },
  withinM: number,
): Snapped {
  const zone = zoneOf(lookup.vehicle, moving.zoneId);
  const fixture = lookup.fixture(moving.fixtureId);
  const { halfU, halfV } = footprint(fixture);
  const there = others.filter((p) => p.zoneId === zone.id);
  const wanted = keepOnZone(fixture, zone, at.uM, at.vM);
  const u = nearest(
    wanted.uM,
    [
      [0, 'middle'],
      ...spacings(there),
      ...there.flatMap((p): Candidate[] => {
        const apart = halfU + footprint(lookup.fixture(p.fixtureId)).halfU;
        return [
          [p.uM - apart, 'adjacent'],
          [p.uM + apart, 'adjacent'],
          [p.uM, 'in line'],
        ];
      }),
      [zone.widthM / 2 - halfU, 'edge'],
      [halfU - zone.widthM / 2, 'edge'],
    ],
    withinM,
  );
  const v = nearest(
    wanted.vM,
    [
      [0, 'middle'],
      ...there.map((p): Candidate => [p.vM, 'in line']),
      ...heights(lookup, zone, others),
      [zone.heightM / 2 - halfV, 'edge'],
      [halfV - zone.heightM / 2, 'edge'],
    ],
    withinM,
  );
  const drawn = keepOnZone(fixture, zone, u?.[0] ?? wanted.uM, v?.[0] ?? wanted.vM);
  return {
    ...drawn,
    guides: [
      ...(u !== null && Math.abs(drawn.uM - u[0]) < 1e-9
        ? [{ axis: 'u' as const, atM: u[0], why: u[1] }]
        : []),
      ...(v !== null && Math.abs(drawn.vM - v[0]) < 1e-9
        ? [{ axis: 'v' as const, atM: v[0], why: v[1] }]
        : []),
    ],
  };
}

/** Places that make three lamps evenly spaced: between two neighbours, or as far beyond one as the next is. */
function spacings(there: readonly Placement[]): Candidate[] {
  const us = there.map((p) => p.uM).toSorted((a, b) => a - b);
  return us.slice(1).flatMap((b, i): Candidate[] => {
    const a = us[i] ?? b;
    return [
      [(a + b) / 2, 'equal spacing'],
      [b + (b - a), 'equal spacing'],
      [a - (b - a), 'equal spacing'],
    ];
  });
}

/** Where on an upright zone a lamp stands as high as others of that face do. */
function heights(lookup: Lookup, zone: MountZone, others: readonly Placement[]): Candidate[] {
  if (zone.v[2] < UPRIGHT) return [];
  const known = new Set<number>();
  return others.flatMap((p): Candidate[] => {
    const placed = placeFixture(lookup, p, SHUT);
    if (placed.zone.face !== zone.face || placed.zone.id === zone.id) return [];
    const height = Math.round(placed.base[2] * 1e4) / 1e4;
    if (known.has(height)) return [];
    known.add(height);
    return [[(height - zone.centre[2]) / zone.v[2], 'same height']];
  });
}

/** Clear room beside a lamp on its zone, m: to its neighbours' housings or the zone's edge. */
export interface RoomAround {
  readonly leftM: number;
  readonly rightM: number;
  readonly belowM: number;
  readonly aboveM: number;
}

/** The clear room around a lamp: sideways to the next lamp that it would meet, or to the edge. */
export function roomAround(lookup: Lookup, others: readonly Placement[], p: Placement): RoomAround {
  const zone = zoneOf(lookup.vehicle, p.zoneId);
  const { halfU, halfV } = footprint(lookup.fixture(p.fixtureId));
  const gaps = others
    .filter((q) => q.zoneId === p.zoneId && q.id !== p.id)
    .flatMap((q) => {
      const half = footprint(lookup.fixture(q.fixtureId));
      // One above the other they do not meet sideways.
      if (Math.abs(q.vM - p.vM) >= halfV + half.halfV) return [];
      return [{ left: q.uM < p.uM, m: Math.abs(q.uM - p.uM) - halfU - half.halfU }];
    });
  const least = (left: boolean, edge: number) =>
    Math.min(edge, ...gaps.filter((g) => g.left === left).map((g) => g.m));
  return {
    leftM: least(true, zone.widthM / 2 + p.uM - halfU),
    rightM: least(false, zone.widthM / 2 - p.uM - halfU),
    belowM: zone.heightM / 2 + p.vM - halfV,
    aboveM: zone.heightM / 2 - p.vM - halfV,
  };
}
