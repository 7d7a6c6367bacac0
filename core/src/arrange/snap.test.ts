import { describe, expect, test } from 'vitest';
import { copyAcross, nameLamp, setInsert } from './lamps.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { footprint } from '../resolve/place.ts';
import type { Build } from '../design/schema.ts';
import { roomAround, snapOnZone } from './snap.ts';
import { zoneOf } from '../vehicle/vehicle.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';

const grille = (...us: readonly number[]): Build =>
  us.reduce((b, uM, i) => put(b, `p${i}`, { zone: 'grille', uM }), emptyBuild());
const MOVING = { fixtureId: 'perimeter-head-2', zoneId: 'grille' };
const drawn = (build: Build, uM: number, vM = 0.03, within = 0.02) =>
  snapOnZone(lookupOf(build), build.placements, MOVING, { uM, vM }, within);
const zone = zoneOf(lookupOf(emptyBuild()).vehicle, 'grille');
const { halfU, halfV } = footprint(lookupOf(emptyBuild()).fixture('perimeter-head-2'));

describe('a moved lamp is drawn', () => {
  test('to the middle and the edges of its zone, and says why', () => {
    expect(drawn(emptyBuild(), 0.012)).toMatchObject({
      uM: 0,
      guides: [{ axis: 'u', atM: 0, why: 'middle' }],
    });
    const edge = zone.widthM / 2 - halfU;
    expect(drawn(emptyBuild(), edge - 0.01)).toMatchObject({
      uM: edge,
      guides: [{ axis: 'u', why: 'edge' }],
    });
    expect(drawn(emptyBuild(), 0.2, zone.heightM / 2 - halfV - 0.004).vM).toBeCloseTo(
      zone.heightM / 2 - halfV,
      9,
    );
  });
  test('to equal spacing, between two and beyond them', () => {
    const two = grille(-0.4, 0.1);
    expect(drawn(two, -0.16).uM).toBeCloseTo(-0.15, 9);
    expect(drawn(two, -0.16).guides).toMatchObject([{ why: 'equal spacing' }]);
    expect(drawn(grille(-0.4, -0.2), -0.01).uM).toBeCloseTo(0, 9);
  });
  test('side by side with its neighbour, and into its line', () => {
    const one = put(emptyBuild(), 'a', { zone: 'grille', uM: 0.2, vM: 0.03 });
    expect(drawn(one, 0.2 + 2 * halfU + 0.01, 0.035)).toMatchObject({
      uM: 0.2 + 2 * halfU,
      vM: 0.03,
      guides: [{ why: 'adjacent' }, { axis: 'v', why: 'in line' }],
    });
  });
  test('to the height of a lamp on another zone of that face', () => {
    const other = put(emptyBuild(), 'a', { zone: 'front-bumper', fixture: 'mini-head-1', vM: 0.05 });
    const lookup = lookupOf(other);
    const height = zoneOf(lookup.vehicle, 'front-bumper').centre[2] + 0.05;
    const wanted = height - zone.centre[2];
    const at = snapOnZone(lookup, other.placements, MOVING, { uM: 0.2, vM: wanted + 0.004 }, 0.01);
    // As far as the grille reaches down.
    if (Math.abs(wanted) <= zone.heightM / 2 - halfV) expect(at.vM).toBeCloseTo(wanted, 6);
    else expect(at.guides.some((g) => g.why === 'same height')).toBe(false);
  });
  test('nowhere from further off, and never over the edge', () => {
    expect(drawn(emptyBuild(), 0.2, 0.03, 0.01)).toEqual({ uM: 0.2, vM: 0.03, guides: [] });
    expect(Math.abs(drawn(emptyBuild(), 9, 9).uM)).toBeLessThanOrEqual(zone.widthM / 2 - halfU + 1e-12);
  });
});

test('room beside a lamp is to its neighbour’s housing or the edge', () => {
  const two = grille(0, 0.3);
  const [first] = two.placements;
  if (first === undefined) throw new Error('two lamps');
  const room = roomAround(lookupOf(two), two.placements, first);
  expect(room.rightM).toBeCloseTo(0.3 - 2 * halfU, 9);
  expect(room.leftM).toBeCloseTo(zone.widthM / 2 - halfU, 9);
  expect(room.aboveM + room.belowM).toBeCloseTo(zone.heightM - 2 * halfV, 9);
});

describe('names', () => {
  test('number from the middle outward, and follow a move; a typed name stays', () => {
    const labels = (b: Build) => b.placements.map((p) => p.label);
    expect(labels(grille(0.2, 0.4, -0.3))).toEqual(['Grille L1', 'Grille L2', 'Grille R']);
    expect(labels(grille(0.4, 0.2, 0))).toEqual(['Grille L2', 'Grille L1', 'Grille']);
    const named = nameLamp(grille(0.2, 0.4), 'p0', 'Left eye');
    expect(labels(named)).toEqual(['Left eye', 'Grille L2']);
    expect(labels(put(named, 'p9', { zone: 'grille', uM: 0 }))).toContain('Left eye');
    expect(labels(nameLamp(named, 'p0', ''))).toEqual(['Grille L1', 'Grille L2']);
  });
});

describe('across and slot by slot', () => {
  test('a copy on the other side is its mirror image without a tie', () => {
    const one = put(emptyBuild(), 'a', { zone: 'wing-left', uM: 0.1, panDeg: 20 });
    const copied = copyAcross(one, 'a', 'b').placements[1];
    expect(copied).toMatchObject({ zoneId: 'wing-right', uM: -0.1, panDeg: -20, partnerId: null });
  });
  test('a bar mirrored has its left colours on the right', () => {
    const bar = put(emptyBuild(), 'a', { zone: 'roof', fixture: 'roof-bar-1200' });
    const colours = (b: Build, i: number) => b.placements[i]?.modules.map((m) => m.colours[0]);
    const painted: Build = {
      ...bar,
      placements: bar.placements.map((p) => ({
        ...p,
        modules: p.modules.map((m, i) => ({ ...m, colours: i === 0 ? ['blue' as const] : ['red' as const] })),
      })),
    };
    const copied = copyAcross(painted, 'a', 'b');
    const blueAt = colours(copied, 1)?.indexOf('blue') ?? -1;
    const made = lookupOf(bar).fixture('roof-bar-1200').modules;
    expect(blueAt).toBeGreaterThan(0);
    expect(made[blueAt]?.at[1]).toBeCloseTo(-(made[0]?.at[1] ?? NaN), 9);
  });
  test('an insert changes what a slot is made in, and only on a bar of slots', () => {
    const bar = put(emptyBuild(), 'a', { zone: 'roof', fixture: 'roof-bar-1200' });
    const refs = [{ placementId: 'a', moduleId: 'm1' }];
    const flood = setInsert(bar, refs, 'flood').placements[0]?.modules[0];
    expect(flood).toMatchObject({ insert: 'flood', colours: ['white'] });
    const head = put(emptyBuild(), 'a', { zone: 'grille' });
    expect(setInsert(head, refs, 'flood')).toEqual(head);
  });
});
