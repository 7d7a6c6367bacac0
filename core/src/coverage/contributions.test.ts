import { describe, expect, test } from 'vitest';
import { stateWith } from '../state/state.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { contributionsAt } from './contributions.ts';
import { litChannels, powerRing } from './ring.ts';

const OPTIONS = { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 } as const;

describe('who lights a bearing', () => {
  const build = demoBuild('ks-12');
  const lit = litChannels(build, stateWith({ on: ['stage-3'] }), OPTIONS);
  const whole = powerRing(lit);

  test('parts add up to the whole, the most first; no lamp is named that sends next to nothing', () => {
    for (let bearing = 0; bearing < 360; bearing += 15) {
      const parts = contributionsAt(lit, bearing);
      const sum = parts.reduce((power, p) => power + p.powerCdsPerMin, 0);
      // Channels below half a candela are left out: of 76 of them that is 38 cd at most, all the time.
      expect(sum).toBeLessThanOrEqual((whole[bearing] ?? 0) + 1e-6);
      expect(sum).toBeGreaterThan((whole[bearing] ?? 0) - 38 * 60);
      expect(parts.map((p) => p.powerCdsPerMin)).toEqual(
        parts.map((p) => p.powerCdsPerMin).toSorted((a, b) => b - a),
      );
      for (const p of parts) expect(p.peakCd).toBeGreaterThanOrEqual(0.5);
      expect(new Set(parts.map((p) => p.placementId)).size).toBe(parts.length);
    }
  });

  test('each lamp’s part is what it sends alone, in its own colours', () => {
    const bearing = 20;
    for (const part of contributionsAt(lit, bearing)) {
      const own = lit.filter(
        ({ drive, share }) =>
          drive.placementId === part.placementId && drive.peakCd * (share[bearing] ?? 0) >= 0.5,
      );
      expect(part.powerCdsPerMin).toBeCloseTo(powerRing(own)[bearing] ?? 0, 6);
      expect(part.peakCd).toBeCloseTo(
        own.reduce((cd, { drive, share }) => cd + drive.peakCd * (share[bearing] ?? 0), 0),
        9,
      );
      expect(part.colours.toSorted()).toEqual([...new Set(own.map(({ drive }) => drive.colour))].toSorted());
    }
  });

  test('the border is half a candela: at it a lamp is named, below it not', () => {
    const [one] = lit;
    if (one === undefined) throw new Error('something is lit');
    const sending = (cd: number) =>
      contributionsAt([{ ...one, share: new Float64Array(360).fill(cd / one.drive.peakCd) }], 0).length;
    expect([sending(0.4999), sending(0.500001), sending(3)]).toEqual([0, 1, 1]);
  });
});
