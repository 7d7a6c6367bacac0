import { expect, test } from 'vitest';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { DEMO_BUILDS, demoBuild } from '../../test/reference/demo.ts';
import type { Build } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { misfit } from '../resolve/place.ts';
import { keepOutFaults } from '../rules/layout/keepOut.ts';
import { overlapFaults } from '../rules/layout/overlap.ts';
import { LayoutSubject } from '../rules/layout/subject.ts';
import { freeSpot } from './freeSpot.ts';
import { addPartner, addPlacement } from './lamps.ts';

const head = { fixtureId: 'perimeter-head-2', zoneId: 'grille', uM: 0, vM: 0 };

/** What overlaps, with everything closed. */
const faults = (build: Build): number => {
  const subject = new LayoutSubject(build);
  return overlapFaults(subject).length + keepOutFaults(subject).filter(({ state }) => state === null).length;
};

test('pair after pair in a grille stands clear of the others until there is no room', () => {
  let build = emptyBuild();
  let pairs = 0;
  for (; pairs < 20; pairs++) {
    const lamp = { ...head, id: `p${pairs}`, uM: 0.2 };
    const spot = freeSpot(build, lamp, true);
    if (spot === null) break;
    build = addPartner(addPlacement(build, { ...lamp, ...spot }), lamp.id, `${lamp.id}-x`);
    expect(faults(build)).toBe(0);
  }
  expect(pairs).toBeGreaterThan(2);
  expect(pairs).toBeLessThan(20);
});

test('where it is free the wanted spot is kept', () => {
  expect(freeSpot(emptyBuild(), { ...head, id: 'a', uM: 0.123 }, false)).toEqual({ uM: 0.123, vM: 0 });
});

test('the next to a lamp is beside it, at its height', () => {
  const build = put(emptyBuild(), 'a', { zone: 'grille' });
  const spot = freeSpot(build, { ...head, id: 'b' }, false);
  expect(spot?.vM).toBe(0);
  const { width } = lookupOf(build).fixture(head.fixtureId).sizeM;
  expect(Math.abs(spot?.uM ?? 0)).toBeGreaterThan(width - 0.002);
  expect(Math.abs(spot?.uM ?? 0)).toBeLessThan(1.5 * width);
});

test.each(DEMO_BUILDS)('%s: on every zone that takes a head the spot is as free as it says', (name) => {
  const build = demoBuild(name);
  const lookup = lookupOf(build);
  const before = faults(build);
  for (const zone of lookup.vehicle.zones) {
    if (misfit(lookup.fixture(head.fixtureId), zone) !== null) continue;
    const lamp = { ...head, id: 'new', zoneId: zone.id };
    const spot = freeSpot(build, lamp, false);
    if (spot === null) continue;
    expect(faults(addPlacement(build, { ...lamp, ...spot })), zone.id).toBe(before);
  }
});

test('a lamp that fits upright alone is kept within its zone upright', () => {
  const build = emptyBuild();
  const lookup = lookupOf(build);
  const long = lookup.fixtures.flatMap((fixture) =>
    lookup.vehicle.zones
      .filter((zone) => misfit(fixture, zone) !== null && misfit(fixture, zone, 90) === null)
      .map((zone) => ({ id: 'up', fixtureId: fixture.id, zoneId: zone.id, uM: 9, vM: 0, rollDeg: 90 })),
  );
  expect(long.length).toBeGreaterThan(0);
  for (const lamp of long.slice(0, 12)) {
    const p = addPlacement(build, lamp).placements[0];
    const { width, height } = lookup.fixture(lamp.fixtureId).sizeM;
    const zone = lookup.vehicle.zones.find(({ id }) => id === lamp.zoneId);
    expect(p?.rollDeg).toBe(90);
    expect(p?.uM).toBeCloseTo(Math.max(0, (zone?.widthM ?? 0) / 2 - height / 2), 3);
    expect(width).toBeLessThan((zone?.heightM ?? 0) + 0.0011);
  }
});
