import { stageId } from '../../test/reference/places.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { newBuild } from '../design/create.ts';
import { addPartner, addPlacement, changePlacement, mirrorBuild } from '../arrange/lamps.ts';
import { misfit } from '../resolve/place.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import {
  darkGapRing,
  lightToward,
  litChannels,
  powerRing,
  ringOf,
  type Ring,
  type RingOptions,
} from './ring.ts';
import { bearingsIn, mirrorBearing, sectorsWhere } from './sectors.ts';
import { CATALOGUE } from '../fixture/catalogue/catalogue.ts';
import { levelAt, timelinesOf } from '../timing/timeline.ts';
import { longestDarkMs } from '../timing/signal.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { bruteRing } from '../../test/reference/bruteRing.ts';
import { demoBuild } from '../../test/reference/demo.ts';

const ALL: RingOptions = { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 };
const ring = (build: Build, state: State, options = ALL): Ring => ringOf(litChannels(build, state, options));
const day = (stage: number, open: readonly string[] = []): State => ({
  on: [stageId(stage)],
  open,
  ambient: 'day',
});

const empty = newBuild('22222222-2222-4222-8222-222222222222', 'Test', 'police', []);
const { zones, parts } = vehicleOf(empty.vehicle);
const fits = CATALOGUE.flatMap((f) =>
  zones.filter((z) => misfit(f, z) === null).map((z) => ({ fixtureId: f.id, zoneId: z.id })),
);

/** A few lamps anywhere, each on its own clock, all lit. */
const anyBuild = fc
  .array(
    fc.record({
      at: fc.constantFrom(...fits),
      u: fc.double({ min: -0.5, max: 0.5, noNaN: true }),
      pan: fc.integer({ min: -40, max: 40 }),
      tilt: fc.integer({ min: -15, max: 15 }),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((lamps) => {
    const placed = lamps.reduce(
      (b, { at, u, pan, tilt }, i) =>
        changePlacement(addPlacement(b, { id: `p${i}`, ...at, uM: u, vM: 0 }), `p${i}`, {
          panDeg: pan,
          tiltDeg: tilt,
        }),
      empty,
    );
    return setCue(placed, 'stage-2', groupTarget(null), 1, lightCue(groupTarget(null), 1, 'double'));
  });

describe('the ring', () => {
  test('agrees with counting everything out, to 1e-9', () => {
    const build = demoBuild('ks-12');
    for (const [state, elevation] of [
      [day(3), 0],
      [{ on: ['stage-2'], open: ['hatch'], ambient: 'night' }, 4],
    ] as const) {
      const fast = ring(build, state, { ...ALL, elevationDeg: elevation });
      const slow = bruteRing(build, state, elevation);
      for (let b = 0; b < 360; b++) {
        expect(Math.abs((fast.powerCdsPerMin[b] ?? 0) - (slow.powerCdsPerMin[b] ?? 0))).toBeLessThan(
          1e-9 * (1 + (slow.powerCdsPerMin[b] ?? 0)),
        );
        expect(Math.abs((fast.effectiveCd[b] ?? 0) - (slow.effectiveCd[b] ?? 0))).toBeLessThan(
          1e-9 * (1 + (slow.effectiveCd[b] ?? 0)),
        );
      }
    }
  });

  test('a mirrored build gives a mirrored ring, doors and hatch open too', () => {
    const other = (id: string) =>
      id.includes('left') ? id.replace('left', 'right') : id.replace('right', 'left');
    fc.assert(
      fc.property(
        anyBuild,
        fc.constantFrom<string | null>(null, ...parts.map((p) => p.id)),
        (build, part) => {
          const here = ring(build, day(2, part === null ? [] : [part]));
          const there = ring(mirrorBuild(build), day(2, part === null ? [] : [other(part)]));
          for (let b = 0; b < 360; b++) {
            const value = here.powerCdsPerMin[b] ?? 0;
            expect(Math.abs((there.powerCdsPerMin[mirrorBearing(b)] ?? 0) - value)).toBeLessThan(
              1e-6 * (1 + value),
            );
          }
        },
      ),
      { numRuns: 25, seed: 17 },
    );
  });

  test('no bearing is brighter than the sum of its channels’ peaks', () => {
    fc.assert(
      fc.property(anyBuild, fc.constantFrom(...parts.map((p) => p.id)), (build, part) => {
        const lit = litChannels(build, day(2, [part]), ALL);
        const sum = lit.reduce((cd, l) => cd + l.drive.peakCd, 0);
        for (const cd of ringOf(lit).effectiveCd) expect(cd).toBeLessThanOrEqual(sum);
        for (const { share } of lit) for (const s of share) expect(s >= 0 && s <= 1).toBe(true);
      }),
      { numRuns: 25, seed: 19 },
    );
  });

  test('an open hatch lets no light through itself: what it newly stands in the way of does not grow', () => {
    // Lamps on the body, not on the hatch, seen past the raised hatch: at most what they send with no hatch at all.
    const build = addPartner(
      addPlacement(empty, { id: 'a', fixtureId: 'roof-bar-1200', zoneId: 'roof', uM: 0, vM: 0 }),
      'a',
      'b',
    );
    const cued = setCue(build, 'stage-2', groupTarget(null), 1, lightCue(groupTarget(null), 1, 'steady'));
    for (const elevationDeg of [-8, -4, -2, 0, 2]) {
      const options = { ...ALL, elevationDeg };
      const free = litChannels(cued, day(2), options).map((l) => l.drive.peakCd);
      const shut = ring(cued, day(2), options).powerCdsPerMin;
      const open = ring(cued, day(2, ['hatch']), options).powerCdsPerMin;
      expect(free.length).toBeGreaterThan(0);
      for (const b of bearingsIn({ fromDeg: 130, toDeg: 230 }))
        expect(open[b] ?? 0).toBeLessThanOrEqual((shut[b] ?? 0) + 1e-9);
    }
  });

  test('Off is dark all round', () => {
    for (const value of ring(demoBuild('ks-12'), day(0)).effectiveCd) expect(value).toBe(0);
  });

  test('night dims by the stage’s level', () => {
    const build = demoBuild('ks-12');
    const bright = ring(build, day(2)).powerCdsPerMin;
    const dim = ring(build, { ...day(2), ambient: 'night' }).powerCdsPerMin;
    for (const [b, value] of bright.entries()) expect(dim[b]).toBeCloseTo(value * 0.7, 6);
  });

  test('colours add up to all, upper and lower too', () => {
    const build = demoBuild('ks-13');
    const total = ring(build, day(3)).powerCdsPerMin;
    const parts = (['red', 'blue', 'amber', 'white'] as const).map((colour) =>
      powerRing(litChannels(build, day(3), { ...ALL, colour })),
    );
    const levels = (['upper', 'lower'] as const).map((level) =>
      powerRing(litChannels(build, day(3), { ...ALL, level })),
    );
    for (const [b, value] of total.entries()) {
      for (const split of [parts, levels])
        expect(split.reduce((sum, s) => sum + (s[b] ?? 0), 0)).toBeCloseTo(value, 3);
    }
  });
});

describe('clocks that drift', () => {
  test('the guaranteed effective intensity and the dark gap hold at every alignment', () => {
    const build = demoBuild('ks-12');
    const lit = litChannels(build, day(2), ALL);
    const { effectiveCd } = ringOf(lit);
    const gaps = darkGapRing(lit, 60);
    const clocks = [...new Set(lit.map((l) => l.drive.clockId))];
    for (const bearing of [20, 95, 200]) {
      for (let trial = 0; trial < 12; trial++) {
        const shift = new Map(clocks.map((c, i) => [c, (trial * 137 + i * 71 * trial) % 1250]));
        const ms = Float64Array.from({ length: 20_000 }, (_, t) =>
          lit.reduce((sum, { drive, share }) => {
            const level = levelAt(drive, t + (shift.get(drive.clockId) ?? 0));
            return sum + drive.peakCd * (share[bearing] ?? 0) * level;
          }, 0),
        );
        let best = 0;
        for (let from = 0; from < 1250; from += 5) {
          let energy = 0;
          for (let n = 0; n < 1000; n++) {
            energy += (ms[from + n] ?? 0) / 1000;
            best = Math.max(best, energy / (0.2 + (n + 1) / 1000));
          }
        }
        const mean = ms.reduce((a, b) => a + b, 0) / ms.length;
        // Windows here begin every 5 ms, so they may miss the best by a little.
        expect(Math.max(best, mean)).toBeGreaterThan((effectiveCd[bearing] ?? 0) * 0.96);
        const dark = longestDarkMs(
          { cycleMs: 20_000, durationsMs: Array.from(ms, () => 1), start: ms, end: ms },
          60,
        );
        expect(dark).toBeLessThanOrEqual(gaps.ms[bearing] ?? 0);
      }
    }
  });
});

describe('sectors', () => {
  test('runs of bearings, one of them through 0', () => {
    const sectors = sectorsWhere((b) => b >= 350 || b <= 5 || (b >= 90 && b <= 92));
    expect(sectors).toEqual([
      { fromDeg: 90, toDeg: 92 },
      { fromDeg: 350, toDeg: 5 },
    ]);
    expect(bearingsIn({ fromDeg: 358, toDeg: 1 })).toEqual([358, 359, 0, 1]);
  });

  test('all and none', () => {
    expect(sectorsWhere(() => true)).toEqual([{ fromDeg: 0, toDeg: 359 }]);
    expect(sectorsWhere(() => false)).toEqual([]);
  });

  test('every stage of both sisters has a ring of finite numbers', () => {
    for (const name of ['ks-12', 'ks-13'] as const)
      for (const stage of [0, 1, 2, 3])
        for (const cd of ring(demoBuild(name), day(stage)).effectiveCd)
          expect(Number.isFinite(cd)).toBe(true);
  });
});

test('of light in which one clock is linked to another what is worst is a bound', () => {
  const build = demoBuild('ks-13');
  const lit = litChannels(build, day(2), ALL);
  const timelines = timelinesOf(lit.map(({ drive }) => drive));
  expect(timelines.length).toBeGreaterThan(1);
  const linked = (which: number | null): boolean =>
    lightToward(
      lit,
      timelines.map((t, i) => ({ ...t, linked: i === which })),
      180,
    ).linked === true;
  expect([linked(null), linked(0), linked(timelines.length - 1)]).toEqual([false, true, true]);
});
