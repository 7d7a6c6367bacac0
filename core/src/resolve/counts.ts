import { lookupOf } from './lookup.ts';
import { holesOf } from './place.ts';
import type { Build } from '../design/schema.ts';
import { zoneOf } from '../vehicle/vehicle.ts';

/** What a layout comes to. */
export interface Counts {
  readonly heads: number;
  readonly modules: number;
  readonly channels: number;
  readonly holes: number;
  /** Of what is bought, minor units. */
  readonly costMinor: number;
  readonly installMinutes: number;
  /** Days until the last of what is not on the shelf comes; 0 when all is. */
  readonly leadDays: number;
}

/** Price of the fixtures to buy: those new on this vehicle. */
export function fixtureCostMinor(build: Build): number {
  const lookup = lookupOf(build);
  return build.placements.reduce(
    (sum, p) => sum + (p.status === 'new' ? lookup.fixture(p.fixtureId).priceMinor : 0),
    0,
  );
}

/** Counts what will be on the vehicle; what is removed counts no more. */
export function countsOf(build: Build): Counts {
  const lookup = lookupOf(build);
  const lamps = build.placements.filter((p) => p.status !== 'removed');
  const wanted = new Map<string, number>();
  for (const p of lamps) if (p.status === 'new') wanted.set(p.fixtureId, (wanted.get(p.fixtureId) ?? 0) + 1);
  return {
    heads: lamps.length,
    modules: lamps.reduce((n, p) => n + p.modules.length, 0),
    channels: lamps.reduce((n, p) => n + p.modules.reduce((c, m) => c + m.colours.length, 0), 0),
    holes: lamps.reduce(
      (n, p) => n + holesOf(lookup.fixture(p.fixtureId), zoneOf(lookup.vehicle, p.zoneId), p),
      0,
    ),
    costMinor: fixtureCostMinor(build),
    installMinutes: lamps.reduce(
      (n, p) => n + (p.status === 'kept' ? 0 : lookup.fixture(p.fixtureId).installMinutes),
      0,
    ),
    leadDays: Math.max(
      0,
      ...[...wanted].map(([id, count]) => {
        const { inStock, leadDays } = lookup.fixture(id);
        return inStock >= count ? 0 : leadDays;
      }),
    ),
  };
}
