import { readBuild } from '@flarik/core/rules/document';
import { describe, expect, test } from 'vitest';
import { newBuild } from '@flarik/core/design/create';
import { attachFile } from '@flarik/core/design/fixtureEdits';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { CATALOGUE } from '@flarik/core/fixture/catalogue/catalogue';
import { zoneOf } from '@flarik/core/vehicle/vehicle';
import { factsIn } from '../src/lib/layout/facts';
import { polarOf } from '@flarik/core/resolve/polar';
import { addDrawn, type Drawing } from '../src/lib/vehicle/drawing';
import { arrange, VIEWS } from '../src/lib/sheet/arrangement';
import { rememberedPictures, lampPictures } from '../src/lib/sheet/pictures';
import { BODY_TYPES } from '@flarik/core/vehicle/bodies/bodyTypes';
import { stopsOf, vehicleOf } from '@flarik/core/vehicle/vehicle';
import { usualSpec } from '@flarik/core/vehicle/spec';
import { demoBuild } from './support';

const empty = newBuild('77777777-7777-4777-8777-777777777777', 'Test', 'police', []);
const { vehicle } = lookupOf(empty);

describe('what is drawn on a view', () => {
  const rects = {
    left: { view: 'left', from: [-0.4, 0.6], to: [0, 0.8] },
    right: { view: 'right', from: [-0.4, 0.6], to: [0, 0.8] },
    front: { view: 'front', from: [0.2, 0.5], to: [0.5, 0.6] },
    rear: { view: 'rear', from: [0.2, 0.5], to: [0.5, 0.6] },
    plan: { view: 'plan', from: [-0.5, 0.2], to: [0.3, 0.5] },
  } as const;
  const WHATS: readonly Drawing[] = ['zone', 'solid', 'keep-out'];

  test('becomes an own part of each kind on each view, and the build reads back', () => {
    for (const view of VIEWS)
      for (const what of WHATS) {
        const built = addDrawn(empty, vehicle, what, rects[view], false);
        expect(readBuild(built), `${what} ${view}`).toEqual(built);
        const { zones, solids, keepOuts } = built.vehicle;
        expect([zones.length, solids.length, keepOuts.length].toSorted()).toEqual([0, 0, 1]);
      }
  });

  test('with its mirror image: two that lie on either side, named by their side', () => {
    for (const view of VIEWS) {
      const [one, two] = addDrawn(empty, vehicle, 'zone', rects[view], true).vehicle.zones;
      if (one === undefined || two === undefined) throw new Error(view);
      expect(one.centre[1]).toBeCloseTo(-two.centre[1], 6);
      const left = one.centre[1] > 0 ? one : two;
      expect(left.name, view).toMatch(/left$/);
      expect([one, two].find((z) => z !== left)?.name).toMatch(/right$/);
    }
  });

  test('a mirrored pair of boxes is as large, and both hide light', () => {
    const built = addDrawn(empty, vehicle, 'solid', rects.left, true);
    const [one, two] = built.vehicle.solids;
    if (one?.kind !== 'box' || two?.kind !== 'box') throw new Error('two boxes');
    for (const axis of [0, 1, 2] as const)
      expect(one.to[axis] - one.from[axis]).toBeCloseTo(two.to[axis] - two.from[axis], 6);
    const ids = new Set(lookupOf(built).vehicle.solids.map((s) => s.id));
    expect(ids.has(one.id) && ids.has(two.id)).toBe(true);
  });

  test('a drawn zone is one among the vehicle’s own', () => {
    const built = addDrawn(empty, vehicle, 'zone', rects.rear, false);
    const [zone] = built.vehicle.zones;
    expect(zoneOf(lookupOf(built).vehicle, zone?.id ?? '').face).toBe('rear');
  });
});

describe('facts and polar curves of fixtures', () => {
  test('every fixture of the catalogue has every fact, in words', () => {
    for (const fixture of CATALOGUE)
      for (const fact of factsIn('EUR')) {
        expect(fact.of(fixture), `${fixture.id}: ${fact.name}`).not.toBe('');
        expect(fact.of(fixture)).not.toMatch(/undefined|NaN/);
      }
  });

  test('a head peaks ahead and falls to half at its half angle; a beacon is the same all round', () => {
    const lookup = lookupOf(empty);
    const head = lookup.fixture('perimeter-head-2');
    const [module] = head.modules;
    if (module === undefined) throw new Error('a head has a module');
    const { level, upright, peakCd, measured } = polarOf(lookup, head, module, 'red');
    const at = (curve: typeof level, deg: number) => curve.find((p) => p.deg === deg)?.cd ?? NaN;
    expect(measured).toBe(false);
    expect(at(level, 0)).toBe(peakCd);
    expect(at(level, 22)).toBeCloseTo(peakCd / 2, 6);
    expect(at(level, 180)).toBe(0);
    expect(at(upright, 180)).toBe(0);
    expect(at(upright, 8)).toBeCloseTo(at(upright, -8), 9);
    const beacon = lookup.fixture('beacon-low');
    const [dome] = beacon.modules;
    if (dome === undefined) throw new Error('a beacon has a module');
    const round = polarOf(lookup, beacon, dome, 'amber');
    expect(new Set(round.level.map((p) => Math.round(p.cd)))).toEqual(new Set([Math.round(round.peakCd)]));
  });

  test('an attached file takes the beam’s place', () => {
    const text = [
      'IESNA:LM-63-2002',
      'TILT=NONE',
      '1 -1 1 3 1 1 2 0 0 0',
      '1 1 5',
      '0 45 90',
      '0',
      '900 450 0',
      '',
    ].join('\n');
    const built = attachFile(empty, {
      id: 'f',
      fileName: 'a.ies',
      format: 'ies',
      fixtureId: 'perimeter-head-2',
      moduleId: null,
      axis: 'aim',
      peakFor: 'red',
      text,
    });
    const lookup = lookupOf(built);
    const head = lookup.fixture('perimeter-head-2');
    const [module] = head.modules;
    if (module === undefined) throw new Error('a head has a module');
    const polar = polarOf(lookup, head, module, 'red');
    const cdAt = (deg: number) => polar.level.find((p) => p.deg === deg)?.cd ?? NaN;
    expect([polar.measured, polar.peakCd]).toEqual([true, 900]);
    // Linear between 45° and 90° from the axis.
    expect(cdAt(68)).toBeCloseTo(450 * (1 - 23 / 45), 6);
    expect(cdAt(100)).toBe(0);
  });
});

describe('the sheet of any vehicle', () => {
  test('views lie apart in every pose of every body, and hold what they show', () => {
    for (const body of BODY_TYPES) {
      const made = vehicleOf({ ...usualSpec(body.id), options: [...body.options] });
      for (const open of [[], ...stopsOf(made).map((s) => [s.id])]) {
        const { frames, width, height } = arrange(made, new Set(open));
        const all = VIEWS.map((view) => frames[view]);
        for (const [i, f] of all.entries()) {
          const where = `${body.id} ${open.join()} ${VIEWS[i] ?? ''}`;
          expect(f.left >= 0 && f.top >= 0 && f.left + f.width <= width + 1e-9, where).toBe(true);
          expect(f.top + f.height, where).toBeLessThanOrEqual(height + 1e-9);
          for (const g of all.slice(i + 1)) {
            const apart =
              f.left + f.width <= g.left + 1e-9 ||
              g.left + g.width <= f.left + 1e-9 ||
              f.top + f.height <= g.top + 1e-9 ||
              g.top + g.height <= f.top + 1e-9;
            expect(apart, where).toBe(true);
          }
        }
      }
    }
  });

  test('remembered pictures of lamps are those made afresh, in each pose', () => {
    const build = demoBuild('ks-13');
    const lookup = lookupOf(build);
    for (const open of [new Set<string>(), new Set(['hatch'])])
      for (const p of build.placements) {
        const first = rememberedPictures(lookup, p, open);
        expect(rememberedPictures(lookup, p, open)).toBe(first);
        expect(first).toEqual(lampPictures(lookup, p, open));
      }
  });
});
