import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild } from '../../test/reference/places.ts';
import { mirrorBuild } from '../arrange/lamps.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { stateWith } from '../state/state.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { atJunction, clearM, eyeAt, Junction, USUAL_JUNCTION } from './junction.ts';
import { lightsIn } from './source.ts';
import { outlineOf } from './stations.ts';

const car = demoBuild('ks-13');
const on = stateWith({ on: ['stage-3'] });
const night: Junction = { ...USUAL_JUNCTION, around: 'night' };
const { frontX } = outlineOf(vehicleOf(car.vehicle));

/** Whether the straight line from a lens to the eye, in steps of a centimetre, keeps out of the ground behind the wall. */
function clears(
  { from, cornerBackM, cornerAsideM }: Junction,
  lens: Vec3,
  eye: Vec3,
  noseM: number,
): boolean {
  const side = from === 'left' ? 1 : -1;
  const steps = Math.ceil(Math.hypot(eye[0] - lens[0], eye[1] - lens[1]) / 0.01);
  for (let i = 0; i <= steps; i++) {
    const x = lens[0] + ((eye[0] - lens[0]) * i) / steps;
    const y = lens[1] + ((eye[1] - lens[1]) * i) / steps;
    // The line along which the eye comes is so far ahead of the body's origin.
    const before = frontX + noseM - x;
    if (before > cornerBackM && y * side > cornerAsideM) return false;
  }
  return true;
}

describe('past a blind corner', () => {
  test('worked: a lens on the middle line, the wall 4 m back and 5 m aside, the eye 30 m along', () => {
    expect(clearM(USUAL_JUNCTION, 0)).toBeCloseTo((4 * 30) / 25, 12);
    // The lens that is farther from the wall comes out first.
    expect(clearM(USUAL_JUNCTION, -1)).toBeCloseTo((4 * 31) / 25, 12);
    expect(clearM(USUAL_JUNCTION, 1)).toBeCloseTo((4 * 29) / 25, 12);
    expect(clearM({ ...USUAL_JUNCTION, from: 'right' }, 1)).toBeCloseTo((4 * 31) / 25, 12);
    // One that stands as far aside as the wall comes out where the wall ends.
    expect(clearM(USUAL_JUNCTION, 6)).toBe(4);
    expect(eyeAt(USUAL_JUNCTION, 2, 3)).toEqual([5, 30, 1.08]);
  });

  test('a lens is clear just where a plain walk along the line of sight meets no wall', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 12, noNaN: true }),
        fc.double({ min: 1.5, max: 8, noNaN: true }),
        fc.double({ min: 9, max: 60, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -4, max: 0, noNaN: true }),
        fc.constantFrom('left' as const, 'right' as const),
        (cornerBackM, cornerAsideM, eyeAlongM, y, behindNose, from) => {
          const junction: Junction = { ...night, cornerBackM, cornerAsideM, eyeAlongM, from };
          const lens: Vec3 = [frontX + behindNose, y, 1];
          const noseM = clearM(junction, y) + behindNose;
          const at = (m: number) => clears(junction, lens, eyeAt(junction, frontX, m), m);
          expect(at(noseM - 0.05)).toBe(true);
          expect(at(noseM + 0.05 * (1 + eyeAlongM / cornerAsideM))).toBe(false);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('each lamp is first seen where it clears the corner, or later; all together no later than the first', () => {
    const { byLamp, noseM } = atJunction(car, on, night);
    expect(byLamp.length).toBeGreaterThan(5);
    const lights = lightsIn(car, stateWith({ ...on, ambient: 'night' }));
    for (const one of byLamp) {
      const clear = Math.max(
        ...lights
          .filter(({ placementId }) => placementId === one.placementId)
          .map(({ centre: [x, y] }) => clearM(night, y) - (frontX - x)),
      );
      if (one.noseM !== null) expect(one.noseM).toBeLessThanOrEqual(clear + 1e-9);
    }
    const seen = byLamp.flatMap((one) => one.noseM ?? []);
    expect(seen).toEqual(seen.toSorted((a, b) => b - a));
    expect(noseM).toBeGreaterThanOrEqual((seen[0] ?? NaN) - 0.02);
    // What looks the other way is not seen at all.
    expect(byLamp.some((one) => one.noseM === null)).toBe(true);
  });

  test('a wall that stands closer hides longer, brighter air asks for more, nothing lit is not seen', () => {
    const nose = (patch: Partial<Junction>) => atJunction(car, on, { ...night, ...patch }).noseM ?? -1;
    expect(nose({ cornerAsideM: 3 })).toBeLessThan(nose({ cornerAsideM: 5 }));
    expect(nose({ cornerBackM: 8 })).toBeGreaterThan(nose({ cornerBackM: 2 }));
    expect(nose({ around: 'day', noticing: 1000 })).toBeLessThan(nose({}));
    expect(atJunction(emptyBuild(), on, night)).toEqual({ noseM: null, byLamp: [] });
  });

  test('from the other side a mirrored car shows the same', () => {
    const left = atJunction(car, on, night);
    const right = atJunction(mirrorBuild(car), on, { ...night, from: 'right' });
    const tenths = ({ byLamp }: typeof left) =>
      byLamp.map(({ noseM }) => (noseM === null ? null : Math.round(noseM * 10)));
    expect(tenths(right)).toEqual(tenths(left));
  });

  test('an eye this side of the corner is refused', () => {
    const wrong = Junction.safeParse({ ...USUAL_JUNCTION, eyeAlongM: 4 });
    expect(wrong.error?.issues[0]?.message).toMatch(/must be more than cornerAsideM/);
    expect(Junction.safeParse(USUAL_JUNCTION).success).toBe(true);
  });
});
