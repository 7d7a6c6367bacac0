import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { DEMO_BUILDS, demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { putSet } from '../design/controlEdits.ts';
import { fixedSet } from '../design/lampSets.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { addGroup } from '../design/timingEdits.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { misfit } from '../resolve/place.ts';
import { readBuild } from '../rules/document.ts';
import { effectOf, exchanged, exchangeMisfit } from './exchange.ts';
import { addPartner, changePlacement, nameLamp, setColour } from './lamps.ts';

const lampOf = (build: Build, id: string): Placement => {
  const p = build.placements.find((one) => one.id === id);
  if (p === undefined) throw new Error(`no lamp ${id}`);
  return p;
};
const ref = [{ placementId: 'a', moduleId: 'm1' }];
/** A head in a group and a set, named, with two colours and a delay. */
const head = (): Build => {
  const placed = put(emptyBuild(), 'a', { zone: 'grille', fixture: 'perimeter-head-2', uM: 0.3 });
  const painted = setColour(setColour(placed, ref, 1, 'red'), ref, 2, 'amber');
  const grouped = changeModules(addGroup(painted, { id: 'g', name: 'G' }), ref, {
    groupId: 'g',
    phase: 'B',
    order: 5,
    offsetMs: 120,
  });
  return putSet(
    nameLamp(grouped, 'a', 'Left eye'),
    fixedSet('s', 'S', [{ placementId: 'a', moduleId: 'm1' }]),
  );
};

describe('another fixture', () => {
  test('name, group, phase, place in a row, delay and set stay; colours that it is not made in go, and are told', () => {
    const before = head();
    const single = exchanged(before, 'a', { fixtureId: 'perimeter-head-1', zoneId: 'grille' });
    const p = lampOf(single, 'a');
    expect(p.label).toBe('Left eye');
    expect(p.modules[0]).toMatchObject({
      groupId: 'g',
      phase: 'B',
      order: 5,
      offsetMs: 120,
      colours: ['red'],
    });
    expect(single.controls.sets).toEqual(before.controls.sets);
    expect(readBuild(single)).toEqual(single);
    const { lost, costMinor, holes } = effectOf(before, single, 'a');
    expect(lost).toEqual(['amber light']);
    const [one, two] = ['perimeter-head-1', 'perimeter-head-2'].map(
      (id) => lookupOf(before).fixture(id).priceMinor,
    );
    expect(costMinor).toBe((one ?? 0) - (two ?? 0));
    expect(Number.isInteger(holes)).toBe(true);
  });

  test('what is kept in place is not exchanged, and what is reused is bought', () => {
    const to = { fixtureId: 'perimeter-head-1', zoneId: 'grille' };
    const kept = changePlacement(head(), 'a', { status: 'kept' });
    expect(exchangeMisfit(kept, 'a', to)).toMatch(/^it is kept in place/);
    expect(exchanged(kept, 'a', to)).toBe(kept);
    const reused = changePlacement(head(), 'a', { status: 'reused' });
    expect(lampOf(exchanged(reused, 'a', to), 'a').status).toBe('new');
    expect(lampOf(exchanged(reused, 'a', { ...to, fixtureId: 'perimeter-head-2' }), 'a').status).toBe(
      'reused',
    );
  });
});

describe('another zone', () => {
  test('a pair moves with its partner, each on its side, clear of each other', () => {
    const pair = addPartner(head(), 'a', 'b');
    const moved = exchanged(pair, 'a', { fixtureId: 'perimeter-head-2', zoneId: 'front-bumper' });
    const [a, b] = [lampOf(moved, 'a'), lampOf(moved, 'b')];
    expect([a.zoneId, b.zoneId]).toEqual(['front-bumper', 'front-bumper']);
    expect(b.uM).toBeCloseTo(-a.uM, 6);
    expect(Math.abs(a.uM)).toBeGreaterThan(0.05);
    expect(a.modules[0]).toEqual(lampOf(pair, 'a').modules[0]);
    expect(readBuild(moved)).toEqual(moved);
  });

  test('it lands beside the lamp that is there', () => {
    const both = put(head(), 'c', { zone: 'front-bumper' });
    const moved = exchanged(both, 'a', { fixtureId: 'perimeter-head-2', zoneId: 'front-bumper' });
    expect(Math.abs(lampOf(moved, 'a').uM)).toBeGreaterThan(0.05);
  });

  test('where it does not fit nothing changes, and the zone is named', () => {
    const build = head();
    const zone = lookupOf(build).vehicle.zones.find(
      (z) => misfit(lookupOf(build).fixture('perimeter-head-2'), z) !== null,
    );
    const to = { fixtureId: 'perimeter-head-2', zoneId: zone?.id ?? '' };
    expect(exchangeMisfit(build, 'a', to)).toContain(`does not fit on ${zone?.name}`);
    expect(exchanged(build, 'a', to)).toBe(build);
  });
});

test('a lamp, a fixture or a zone that is gone is told, and nothing changes', () => {
  const build = head();
  const to = { fixtureId: 'perimeter-head-1', zoneId: 'grille' };
  expect(exchangeMisfit(build, 'ghost', to)).toBe('the lamp no longer exists');
  expect(exchangeMisfit(build, 'a', { ...to, fixtureId: 'ghost' })).toBe('the fixture no longer exists');
  expect(exchangeMisfit(build, 'a', { ...to, zoneId: 'ghost' })).toBe('the zone no longer exists');
  expect(exchanged(build, 'a', { ...to, zoneId: 'ghost' })).toBe(build);
});

test('any lamp of the demo builds, any fixture, any zone: what comes reads back, and no other lamp is touched', () => {
  fc.assert(
    fc.property(fc.constantFrom(...DEMO_BUILDS), fc.nat(), fc.nat(), fc.nat(), (name, i, j, k) => {
      const build = demoBuild(name);
      const { fixtures, vehicle } = lookupOf(build);
      const p = build.placements[i % build.placements.length];
      const fixture = fixtures[j % fixtures.length];
      const zone = vehicle.zones[k % vehicle.zones.length];
      if (p === undefined || fixture === undefined || zone === undefined) return;
      const to = { fixtureId: fixture.id, zoneId: zone.id };
      const after = exchanged(build, p.id, to);
      expect(after === build).toBe(exchangeMisfit(build, p.id, to) !== null);
      expect(readBuild(JSON.parse(JSON.stringify(after)))).toEqual(after);
      for (const q of after.placements)
        if (q.id !== p.id && q.id !== p.partnerId)
          expect({ ...q, label: '' }).toEqual({ ...lampOf(build, q.id), label: '' });
    }),
    { numRuns: 150 },
  );
});
