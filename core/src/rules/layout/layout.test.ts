import { describe, expect, test } from 'vitest';
import { addPartner, changePlacement } from '../../arrange/lamps.ts';
import { addOwn, changeDimensions, changeSurvey } from '../../arrange/vehicleEdits.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { zoneOf } from '../../vehicle/vehicle.ts';
import { emptyBuild, ofKind, put, ownZone } from '../../../test/reference/places.ts';

describe('holes and fixings', () => {
  test('a wing is a single wall: held by bracket it stands, drilled it is found', () => {
    const bracket = put(emptyBuild(), 'a', { zone: 'wing-left' });
    expect(ofKind(bracket, 'hole')).toEqual([]);
    const drilled = changePlacement(bracket, 'a', { fixing: 'drill' });
    expect(ofKind(drilled, 'hole')[0]?.sentence).toMatch(
      /^Front wing L: 3 holes in Front wing left, a single-skin panel\. Use bracket or adhesive\./,
    );
    const kept = changePlacement(drilled, 'a', { status: 'kept' });
    expect(ofKind(kept, 'hole')).toEqual([]);
  });
  test('a survey that finds a single wall makes the usual drilling a finding', () => {
    const build = put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3 });
    expect(ofKind(build, 'hole')).toEqual([]);
    expect(ofKind(changeSurvey(build, { singleWall: { 'rear-bumper': true } }), 'hole')).toHaveLength(1);
  });
  test('a magnet on a grille holds nothing', () => {
    const build = put(emptyBuild(), 'a', { zone: 'grille', fixing: 'magnet' });
    expect(ofKind(build, 'fixing')[0]?.sentence).toMatch(
      /^Grille: mounting by magnet is not permitted on Grille\. Use bracket\./,
    );
  });
});

describe('near a turn signal', () => {
  // Turn signals look out of the ends of the nose; the grille's own end comes close to them.
  test('found at the end of a wide zone, not in its middle', () => {
    const lookup = lookupOf(emptyBuild());
    const signals = lookup.vehicle.factoryLamps.filter((l) => l.does === 'turn');
    expect(signals.length).toBeGreaterThanOrEqual(2);
    const [signal] = signals;
    const [corner] = signal?.outline ?? [];
    if (corner === undefined) throw new Error('a turn signal has corners');
    const [x, y, z] = corner;
    const own = (away: number) =>
      put(
        addOwn(emptyBuild(), 'zones', [
          ownZone({ id: 'own-1', face: x > 0 ? 'front' : 'rear', centre: [x, y + Math.sign(y) * away, z] }),
        ]),
        'a',
        { zone: 'own-1', fixture: 'mini-head-1' },
      );
    expect(ofKind(own(0.02), 'near-signal')).toHaveLength(1);
    expect(ofKind(own(0.6), 'near-signal')).toEqual([]);
  });
});

describe('hidden and turned away', () => {
  test('a lamp on the hatch is turned away when it is up', () => {
    const build = put(emptyBuild(), 'a', { zone: 'hatch-panel-left' });
    const [finding] = ofKind(build, 'turned-away');
    expect(finding?.evidence.state?.open).toEqual(['hatch']);
    expect(finding?.figure?.value).toBeGreaterThan(50);
    expect(ofKind(put(emptyBuild(), 'a', { zone: 'rear-bumper' }), 'turned-away')).toEqual([]);
  });

  test('a box before a lamp hides its beam: nearly all close by, nothing far to the side', () => {
    const boxed = (dy: number) => {
      const build = put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3 });
      const [x, y, z] = zoneOf(lookupOf(build).vehicle, 'rear-bumper').centre;
      return addOwn(build, 'solids', [
        {
          kind: 'box',
          id: 'own-box',
          name: 'Step',
          from: [x - 0.3, y - 0.3 - 0.4 + dy, z - 0.3],
          to: [x - 0.15, y - 0.3 + 0.4 + dy, z + 0.3],
          transmission: 0,
        },
      ]);
    };
    const [finding] = ofKind(boxed(0), 'blocked');
    expect(finding?.figure?.value).toBeGreaterThan(80);
    expect(finding?.sentence).toMatch(
      /^Rear bumper R: 100 % of the beam is blocked with everything closed \(limit 40 %\)\./,
    );
    expect(ofKind(boxed(3), 'blocked')).toEqual([]);
  });
});

describe('balance, symmetry, reach', () => {
  test('all light from below is said; a bar on the roof puts it right', () => {
    const low = put(emptyBuild(), 'a', { zone: 'grille', uM: 0.2 });
    const [finding] = ofKind(low, 'balance');
    expect(finding?.sentence).toBe('Upper lamps give 0 % of the warning light to the front (minimum 10 %).');
    const both = put(low, 'bar', { fixture: 'roof-bar-1200', zone: 'roof' });
    expect(ofKind(both, 'balance').some((f) => f.sentence.includes('upper'))).toBe(false);
  });

  test('a lamp alone beside the middle, its partner at the mirror image, and one 60 mm off', () => {
    const one = put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3 });
    expect(ofKind(one, 'asymmetry')[0]?.sentence).toBe('Rear bumper R has no counterpart on the other side.');
    expect(ofKind(addPartner(one, 'a', 'b'), 'asymmetry')).toEqual([]);
    const off = put(one, 'b', { zone: 'rear-bumper', uM: -0.36 });
    expect(ofKind(off, 'asymmetry')[0]?.figure?.value).toBeCloseTo(60, 6);
    expect(ofKind(put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0 }), 'asymmetry')).toEqual([]);
  });

  test('what is reached only behind trim is noted, unless it was there before', () => {
    const build = put(emptyBuild(), 'a', { zone: 'wing-left' });
    expect(ofKind(build, 'reach')).toHaveLength(1);
    expect(ofKind(changePlacement(build, 'a', { status: 'kept' }), 'reach')).toEqual([]);
  });

  test('a lamp taken out is found fault with no more', () => {
    const two = put(put(emptyBuild(), 'a', { zone: 'grille' }), 'b', { zone: 'grille' });
    expect(ofKind(two, 'overlap')).toHaveLength(1);
    expect(ofKind(changePlacement(two, 'b', { status: 'removed' }), 'overlap')).toEqual([]);
  });

  test('a lamp whose zone shrank with the vehicle reaches over its edge', () => {
    const wide = put(emptyBuild(), 'a', { zone: 'front-bumper', uM: 9 });
    expect(ofKind(wide, 'off-zone')).toEqual([]);
    const narrow = changeDimensions(wide, { widthM: 1.82 });
    const over = ofKind(narrow, 'off-zone')[0]?.figure?.value ?? 0;
    const [before, after] = [wide, narrow].map((b) => zoneOf(lookupOf(b).vehicle, 'front-bumper').widthM);
    expect(over).toBeCloseTo((((before ?? 0) - (after ?? 0)) / 2) * 1000, 3);
  });
});
