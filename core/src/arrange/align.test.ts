import { readBuild } from '../rules/document.ts';
import { describe, expect, test } from 'vitest';
import { alignHeights, arrayAlong, roomFor, spaceEvenly } from './align.ts';
import { newBuild } from '../design/create.ts';
import { addPartner, addPlacement } from './lamps.ts';
import { placeFixture } from '../resolve/place.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from '../rules/check.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { vehicleOf, zoneOf } from '../vehicle/vehicle.ts';

const empty = newBuild('44444444-4444-4444-8444-444444444444', 'Test', 'police', []);
const put = (b: Build, id: string, zoneId: string, uM: number, vM = 0): Build =>
  addPlacement(b, { id, fixtureId: 'mini-head-1', zoneId, uM, vM });
const overlaps = (b: Build) => checkBuild(b).findings.filter((f) => f.kind === 'overlap');
const us = (b: Build): number[] => b.placements.map((p) => p.uM);

describe('same height', () => {
  test('across zones, to the first named', () => {
    const two = put(put(empty, 'a', 'grille', 0, 0.03), 'b', 'front-bumper', 0.2);
    const [a, b] = alignHeights(put(two, 'c', 'grille', 0.3, -0.05), ['a', 'c']).placements.filter(
      (p) => p.zoneId === 'grille',
    );
    expect(b?.vM).toBeCloseTo(a?.vM ?? NaN, 9);
  });
  test('as far as the zone reaches, and not on the roof', () => {
    const two = put(put(empty, 'a', 'grille', 0), 'b', 'front-bumper', 0.2);
    const after = alignHeights(two, ['a', 'b']);
    const lookup = lookupOf(after);
    const heights = after.placements.map((p) => placeFixture(lookup, p, new Set()).base[2]);
    expect(heights[1]).toBeLessThan(heights[0] ?? 0);
    expect(after.placements[1]?.vM).toBeCloseTo(0.1 - 0.015, 4);
    const roof = addPlacement(two, { id: 'r', fixtureId: 'mini-bar', zoneId: 'roof', uM: 0, vM: 0 });
    expect(alignHeights(roof, ['a', 'r'])).toEqual(roof);
  });
});

describe('equal spacing', () => {
  test('between the outermost, in whatever order they were chosen', () => {
    const three = put(put(put(empty, 'a', 'grille', -0.4), 'b', 'grille', 0.35), 'c', 'grille', -0.3);
    expect(us(spaceEvenly(three, ['b', 'c', 'a']))).toEqual([-0.4, 0.35, -0.025]);
  });
  test('two stay, and other zones are spaced by themselves', () => {
    const mixed = put(put(put(empty, 'a', 'grille', -0.4), 'b', 'grille', 0.1), 'c', 'front-bumper', 0.3);
    expect(us(spaceEvenly(mixed, ['a', 'b', 'c']))).toEqual([-0.4, 0.1, 0.3]);
  });
});

const theLamp = (build: Build) => {
  const [one] = build.placements;
  if (one === undefined) throw new Error('no lamp');
  return one;
};

describe('array along a zone', () => {
  const lamp = put(empty, 'a', 'grille', 0.1, 0.02);
  test('fills the zone evenly; names and orders run on; nothing overlaps up to the room there is', () => {
    const filled = arrayAlong(lamp, 'a', ['b', 'c', 'd']);
    const reach = zoneOf(vehicleOf(empty.vehicle), 'grille').widthM / 2 - 0.084 / 2;
    expect(us(filled).toSorted((p, q) => p - q)).toEqual(
      [-reach, -reach / 3, reach / 3, reach].map((u) => Math.round(u * 1e4) / 1e4),
    );
    expect(filled.placements.every((p) => p.vM === 0.02)).toBe(true);
    // The grille looks forward: what lies right as one faces it is the vehicle's left, the first in a sweep.
    expect(filled.placements.map((p) => p.modules[0]?.order)).toEqual([4, 3, 2, 1]);
    expect(new Set(filled.placements.map((p) => p.label)).size).toBe(4);
    expect(readBuild(filled)).toEqual(filled);
    const room = roomFor(lamp, theLamp(lamp));
    expect(room).toBe(13);
    const full = arrayAlong(
      lamp,
      'a',
      Array.from({ length: room - 1 }, (_, i) => `n${i}`),
    );
    expect(overlaps(full)).toEqual([]);
    expect(
      overlaps(
        arrayAlong(
          lamp,
          'a',
          Array.from({ length: room }, (_, i) => `n${i}`),
        ),
      ),
    ).not.toEqual([]);
  });
  test('a pair on two zones is repeated with its partners', () => {
    const pair = addPartner(put(empty, 'a', 'wing-left', 0), 'a', 'b');
    const filled = arrayAlong(pair, 'a', ['c', 'd'], ['e', 'f']);
    expect(filled.placements).toHaveLength(6);
    expect(readBuild(filled)).toEqual(filled);
    for (const p of filled.placements) {
      const partner = filled.placements.find((q) => q.id === p.partnerId);
      expect(partner?.uM).toBeCloseTo(-p.uM, 4);
    }
  });
  test.each([0.1, -0.1])('a pair on a zone across the centre, from %s, fills both halves alike', (u) => {
    const pair = addPartner(put(empty, 'a', 'grille', u), 'a', 'x');
    const room = roomFor(pair, theLamp(pair));
    expect(room).toBe(6);
    const ids = (stem: string) => Array.from({ length: room - 1 }, (_, i) => `${stem}${i}`);
    const filled = arrayAlong(pair, 'a', ids('n'), ids('m'));
    expect(filled.placements).toHaveLength(2 * room);
    expect(readBuild(filled)).toEqual(filled);
    expect(overlaps(filled)).toEqual([]);
    const inOrder = filled.placements.toSorted((p, q) => p.uM - q.uM);
    const gaps = inOrder.slice(1).map((p, i) => p.uM - (inOrder[i]?.uM ?? 0));
    expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThan(2e-4);
    expect(inOrder.map((p) => p.modules[0]?.order)).toEqual(
      Array.from({ length: 2 * room }, (_, i) => 2 * room - i),
    );
    for (const p of filled.placements)
      expect(filled.placements.find((q) => q.id === p.partnerId)?.uM).toBeCloseTo(-p.uM, 4);
  });
  test('no copies asked for change nothing', () => expect(arrayAlong(lamp, 'a', [])).toBe(lamp));
});
