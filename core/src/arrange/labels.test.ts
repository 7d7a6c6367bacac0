import { describe, expect, test } from 'vitest';
import { addPartner, changePlacement, nameLamp, removePlacements } from './lamps.ts';
import { relabel } from './labels.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeFixture } from '../resolve/place.ts';
import type { Build } from '../design/schema.ts';
import { iesOfState } from '../coverage/iesOfState.ts';
import { readIes } from '../fixture/photometry/ies.ts';
import { peakOf } from '../fixture/photometry/table.ts';
import { demoBuild, DEMO_BUILDS } from '../../test/reference/demo.ts';
import { emptyBuild, ofKind, put } from '../../test/reference/places.ts';

const labels = (b: Build): Record<string, string> =>
  Object.fromEntries(b.placements.map((p) => [p.id, p.label]));

describe('names that follow the layout', () => {
  test('along a flank from the front back, the same on both sides', () => {
    const flank = [-0.8, 0.9, 0.1].reduce(
      (b, uM, i) =>
        addPartner(put(b, `p${i}`, { zone: 'sill-left', uM, fixture: 'mini-head-1' }), `p${i}`, `x${i}`),
      emptyBuild(),
    );
    const named = labels(flank);
    const lookup = lookupOf(flank);
    const forward = (id: string): number => {
      const p = flank.placements.find((q) => q.id === id);
      return p === undefined ? NaN : placeFixture(lookup, p, new Set()).base[0];
    };
    const order = ['p0', 'p1', 'p2'].toSorted((a, b) => forward(b) - forward(a));
    expect(order.map((id) => named[id])).toEqual(['Sill L1', 'Sill L2', 'Sill L3']);
    for (const id of order) expect(named[id.replace('p', 'x')]).toBe(named[id]?.replace('L', 'R'));
  });

  test('a lamp taken away closes the row; a named one keeps its name through moves', () => {
    const three = [0.1, 0.25, 0.4].reduce(
      (b, uM, i) => put(b, `p${i}`, { zone: 'grille', uM }),
      emptyBuild(),
    );
    expect(labels(removePlacements(three, new Set(['p0'])))).toEqual({ p1: 'Grille L1', p2: 'Grille L2' });
    const named = nameLamp(three, 'p2', 'Far eye');
    expect(labels(changePlacement(named, 'p2', { uM: -0.3 })).p2).toBe('Far eye');
  });

  test('no two lamps of any demo build are called alike, and naming again changes nothing', () => {
    for (const name of DEMO_BUILDS) {
      const build = demoBuild(name);
      const all = build.placements.map((p) => p.label);
      expect(new Set(all).size, name).toBe(all.length);
      expect(relabel(build).placements).toEqual(build.placements);
    }
  });

  test('a fault that a pair shares is said once, one that only one has by its name alone', () => {
    const pair = addPartner(put(emptyBuild(), 'a', { zone: 'wing-left' }), 'a', 'b');
    expect(ofKind(pair, 'reach').map((f) => f.sentence)).toEqual([
      expect.stringMatching(
        /^Front wing L \(and its counterpart\) is accessible only behind trim: Single-wall wing; wheel-house liner\./,
      ),
    ]);
    const [finding] = ofKind(pair, 'reach');
    expect(finding?.evidence.channels.map((c) => c.placementId)).toEqual(['a', 'b']);
    const alone = removePlacements(pair, new Set(['b']));
    expect(ofKind(alone, 'reach')[0]?.sentence).toMatch(
      /^Front wing L is accessible only behind trim: Single-wall wing; wheel-house liner\./,
    );
  });
});

describe('one lamp as an IES file', () => {
  const build = demoBuild('ks-13');
  const state = { on: ['stage-2'], open: [], ambient: 'day' } as const;
  test('is less than the vehicle and more than nothing; lamps that are dark write darkness', () => {
    const whole = peakOf(readIes(iesOfState(build, state)));
    const one = peakOf(readIes(iesOfState(build, state, 'grille')));
    expect(one).toBeGreaterThan(0);
    expect(one).toBeLessThan(whole);
    expect(peakOf(readIes(iesOfState(build, { ...state, on: ['off'] }, 'grille')))).toBe(0);
  });
  test('the lamps by themselves add up to the vehicle', () => {
    const tables = build.placements.map((p) => readIes(iesOfState(build, state, p.id)));
    const whole = readIes(iesOfState(build, state));
    for (const [h, row] of whole.cd.entries())
      for (let v = 0; v < row.length; v += 9) {
        const sum = tables.reduce((s, t) => s + (t.cd[h]?.[v] ?? 0), 0);
        expect(Math.abs((row[v] ?? 0) - sum)).toBeLessThan(0.05);
      }
  });
});
