import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { changePlacement } from '../arrange/lamps.ts';
import { newBuild } from '../design/create.ts';
import { setCue } from '../design/controlEdits.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import type { Build } from '../design/schema.ts';
import { directionOf } from '../geometry/direction.ts';
import { anglesInFrame } from '../geometry/frame.ts';
import { transmissionAlong } from '../geometry/ray.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeModules } from '../resolve/place.ts';
import { hiddenToward } from '../sight/hiders.ts';
import { stateWith } from '../state/state.ts';
import { posedSolids, stopsOf } from '../vehicle/vehicle.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { plainHousings } from '../../test/reference/plainHousings.ts';
import { emptyBuild, ofKind, put } from '../../test/reference/places.ts';
import { fieldsOf } from './lampFields.ts';

const empty = newBuild('22222222-2222-4222-8222-222222222222', 'Test', 'police', []);
const stage2 = stateWith({ on: ['stage-2'] });

/** A beacon on the roof behind a bar, on a pole of some height. */
function behindBar(poleM: number): Build {
  const beacon = put(empty, 'beacon', { fixture: 'beacon-low', zone: 'roof', vM: -0.55, poleM });
  const both = put(beacon, 'bar', { fixture: 'roof-bar-1200', zone: 'roof', vM: 0.2 });
  return setCue(both, 'stage-2', groupTarget(null), 1, lightCue(groupTarget(null), 1, 'steady'));
}

const placementOf = (build: Build, id: string) => {
  const p = build.placements.find((one) => one.id === id);
  if (p === undefined) throw new RangeError(`no lamp ${id}`);
  return p;
};

describe('the housing of another lamp', () => {
  test('hides what stands low behind it, and nothing of what is raised above it', () => {
    const ahead = (poleM: number, bearing = 0): number => {
      const build = behindBar(poleM);
      return fieldsOf(build).of(placementOf(build, 'beacon'), [], 0)[0]?.share[bearing] ?? NaN;
    };
    expect(ahead(0)).toBe(0);
    expect(ahead(0, 180)).toBeGreaterThan(0.5);
    expect(ahead(0.3)).toBeGreaterThan(0.5);
  });

  test('that is planned or removed hides nothing', () => {
    for (const status of ['planned', 'removed'] as const) {
      const build = changePlacement(behindBar(0), 'bar', { status });
      expect(fieldsOf(build).of(placementOf(build, 'beacon'), [], 0)[0]?.share[0], status).toBeGreaterThan(
        0.5,
      );
    }
  });

  test('is named as what hides a direction, with the ray as far as it', () => {
    const hidden = hiddenToward(behindBar(0), stage2, { bearingDeg: 0, elevationDeg: 0 });
    const beacon = hidden.find(({ placementId }) => placementId === 'beacon');
    expect(beacon?.by).toBe('the housing of "Roof 1"');
    expect(beacon?.arrivesCd).toBe(0);
    const [from, to] = [beacon?.from[0] ?? NaN, beacon?.to[0] ?? NaN];
    expect(to - from).toBeGreaterThan(0.1);
    expect(to - from).toBeLessThan(0.3);
  });

  test('is a finding where it hides most of a beam, and none where it stands clear', () => {
    const sentences = (build: Build) => ofKind(build, 'behind-lamp').map(({ sentence }) => sentence);
    const [ofBar, ofBeacon, ...more] = sentences(behindBar(0)).toSorted();
    expect(more).toEqual([]);
    expect(ofBeacon).toMatch(
      /^Roof 2: 99 % of the beam is blocked by the housing of Roof 1 \(limit 40 %\)\./,
    );
    // The beacon stands close behind one of the bar's rear modules in turn.
    expect(ofBar).toMatch(
      /^One module of Roof 1: 55 % of the beam is blocked by the housing of Roof 2 \(limit 40 %\)\./,
    );
    expect(sentences(changePlacement(behindBar(0.3), 'bar', { vM: 0.5 }))).toEqual([]);
    expect(sentences(changePlacement(behindBar(0), 'bar', { status: 'planned' }))).toEqual([]);
  });

  test('and one more hide together what neither hides alone', () => {
    const sentencesWith = (ids: readonly string[]): string[] => {
      const beacon = put(emptyBuild(), 'beacon', { fixture: 'beacon-low', zone: 'roof' });
      const all = ids.reduce(
        (b, id) =>
          put(b, id, { fixture: 'beacon-low', zone: 'roof', uM: id === 'a' ? -0.15 : 0.15, vM: 0.16 }),
        beacon,
      );
      return ofKind(all, 'behind-lamp').map(({ sentence }) => sentence);
    };
    expect(sentencesWith(['a'])).toEqual([]);
    expect(sentencesWith(['b'])).toEqual([]);
    expect(sentencesWith(['a', 'b']).join()).toMatch(
      /^Roof: 69 % of the beam is blocked by the housing of Roof L and 1 more \(limit 40 %\)\./,
    );
  });

  test('counts as every ray against every slab counts it, in every pose and with lamps on doors', () => {
    const bases = [demoBuild('ks-12'), demoBuild('ferry-slip'), behindBar(0)];
    let met = 0;
    for (const base of bases) {
      const { vehicle } = lookupOf(base);
      // Raised lamps, so that many stand in each other's way.
      const build = { ...base, placements: base.placements.map((p, i) => ({ ...p, poleM: (i % 4) * 0.05 })) };
      const lookup = lookupOf(build);
      const poses = [[], ...stopsOf(vehicle).map(({ id }) => [id])];
      fc.assert(
        fc.property(
          fc.constantFrom(...build.placements),
          fc.constantFrom(...poses),
          fc.constantFrom(-8, -2, 0, 2, 6),
          fc.integer({ min: 0, max: 359 }),
          (p, pose, elevation, turn) => {
            const open = new Set(pose);
            const solids = posedSolids(lookup.vehicle, open);
            const behind = plainHousings(lookup, build.placements, open);
            const fields = fieldsOf(build).of(p, pose, elevation);
            for (const [i, { placementId, module, centre, frame }] of placeModules(lookup, p, open).entries())
              for (let b = turn; b < turn + 360; b += 9) {
                const direction = directionOf(b % 360, elevation);
                const { hDeg, vDeg } = anglesInFrame(frame, direction);
                const sent = relativeIntensity(module.distribution, hDeg, vDeg) * p.lensTransmission;
                const past = sent === 0 ? 0 : transmissionAlong(solids, centre, direction);
                const hidden = behind(placementId, centre, direction);
                if (hidden && sent * past > 0.01) met += 1;
                expect(fields[i]?.share[b % 360]).toBeCloseTo(hidden ? 0 : sent * past, 12);
              }
          },
        ),
        { numRuns: 50, seed: 88 },
      );
    }
    expect(met).toBeGreaterThan(20);
  });
});
