import { describe, expect, test } from 'vitest';
import { newBuild } from '@flarik/core/design/create';
import { attachFile } from '@flarik/core/design/fixtureEdits';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { CATALOGUE } from '@flarik/core/fixture/catalogue/catalogue';
import { factsIn } from './facts';
import { polarOf } from '@flarik/core/resolve/polar';

const empty = newBuild('77777777-7777-4777-8777-777777777777', 'Test', 'police', []);

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
