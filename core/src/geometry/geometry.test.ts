import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { layOut, occluderAt } from '../coverage/occlusion.ts';
import { apartDeg, bearingOf, directionOf } from './direction.ts';
import { aimFrame, anglesInFrame, movePoint, pointInFrame, turnAbout, turnFrame } from './frame.ts';
import { overlapDepthM, type Convex } from './overlap.ts';
import { chordM, entryM, transmissionAlong } from './ray.ts';
import { box, moveSolid, prism } from './solid.ts';
import { dot, length, type Vec3 } from './vec.ts';
import { BODY_TYPES } from '../vehicle/bodies/bodyTypes.ts';
import { defaultSpec } from '../vehicle/spec.ts';
import { posedSolids, stopsOf, vehicleOf } from '../vehicle/vehicle.ts';
import { meetsSkin } from '../../test/reference/triangles.ts';

const near = (a: Vec3, b: Vec3) => a.forEach((v, i) => expect(v).toBeCloseTo(b[i] ?? NaN, 12));
const bearing = fc.double({ min: 0, max: 359.99, noNaN: true });
const elevation = fc.double({ min: -89, max: 89, noNaN: true });

describe('directions', () => {
  test('two bearings are apart by the shorter way round', () => {
    const apart = [
      [10, 350],
      [350, 10],
      [-180, 180],
      [90, -90],
      [0, 359.5],
      [720, 45],
    ] as const;
    expect(apart.map(([a, b]) => apartDeg(a, b))).toEqual([20, 20, 0, 180, 0.5, 45]);
  });
  test('bearing 0 is ahead, 90 right, 180 behind, 270 left; y is left', () => {
    near(directionOf(0, 0), [1, 0, 0]);
    near(directionOf(90, 0), [0, -1, 0]);
    near(directionOf(180, 0), [-1, 0, 0]);
    near(directionOf(270, 0), [0, 1, 0]);
    near(directionOf(30, 90), [0, 0, 1]);
  });

  test('bearingOf undoes directionOf', () => {
    fc.assert(
      fc.property(bearing, elevation, (b, e) => {
        const back = bearingOf(directionOf(b, e));
        const turn = Math.abs(back.bearingDeg - b);
        expect(Math.min(turn, 360 - turn)).toBeLessThan(1e-9);
        expect(back.elevationDeg).toBeCloseTo(e, 9);
      }),
    );
  });
});

describe('lamp frames', () => {
  const ahead = aimFrame([1, 0, 0], [0, 0, 1]);

  test('right is the vehicle’s right for a lamp that looks ahead', () => near(ahead.right, [0, -1, 0]));

  test('pan adds to the bearing, tilt to the elevation', () => {
    const { bearingDeg, elevationDeg } = bearingOf(turnFrame(ahead, 25, 10, 0).aim);
    expect(bearingDeg).toBeCloseTo(25, 9);
    expect(elevationDeg).toBeCloseTo(10, 9);
  });

  test('roll leaves the aim, and turns up toward right', () => {
    const rolled = turnFrame(ahead, 0, 0, 90);
    near(rolled.aim, [1, 0, 0]);
    near(rolled.up, [0, -1, 0]);
  });

  test('angles in the frame: H to the right, V up', () => {
    expect(anglesInFrame(ahead, directionOf(20, 0)).hDeg).toBeCloseTo(20, 9);
    expect(anglesInFrame(ahead, directionOf(0, -7)).vDeg).toBeCloseTo(-7, 9);
    expect(Math.abs(anglesInFrame(ahead, directionOf(180, 0)).hDeg)).toBeCloseTo(180, 9);
  });
});

describe('solids and rays', () => {
  const cube = box('cube', [1, -1, -1], [3, 1, 1]);

  test('a ray through a cube of 2 m is 2 m inside it; beside it and away from it 0', () => {
    expect(chordM(cube, [0, 0, 0], [1, 0, 0])).toBeCloseTo(2, 5);
    expect(chordM(cube, [0, 0, 0], [-1, 0, 0])).toBe(0);
    expect(chordM(cube, [0, 1.5, 0], [1, 0, 0])).toBe(0);
  });

  test('from inside, what is left of the way out', () =>
    expect(chordM(cube, [2, 0, 0], [0, 1, 0])).toBeCloseTo(1, 5));

  test('a ray along a face is not hidden by it', () => {
    expect(transmissionAlong([cube], [0, 1, 0], [1, 0, 0])).toBe(1);
    expect(transmissionAlong([cube], [1, 1.001, 0], [1, 0, 0])).toBe(1);
  });

  test('glass passes its share, two panes the product', () => {
    const pane = (x: number) => box(`pane${x}`, [x, -1, -1], [x + 0.01, 1, 1], { transmission: 0.5 });
    expect(transmissionAlong([pane(1), pane(2)], [0, 0, 0], [1, 0, 0])).toBeCloseTo(0.25, 12);
  });

  test('either way round a polygon, planes face outward', () => {
    const triangle: Vec3[] = [
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
    ];
    for (const loop of [triangle, triangle.toReversed()]) {
      const solid = prism('wedge', loop, [0, 0, 1]);
      const middle: Vec3 = [0.2, 0.2, 0.5];
      for (const { n, d } of solid.planes) expect(dot(n, middle)).toBeLessThan(d);
    }
  });

  test('a prism swept in its own plane, or of two corners, is refused', () => {
    expect(() =>
      prism(
        'flat',
        [
          [0, 0, 0],
          [1, 0, 0],
          [0, 1, 0],
        ],
        [1, 1, 0],
      ),
    ).toThrow(RangeError);
    expect(() =>
      prism(
        'line',
        [
          [0, 0, 0],
          [1, 0, 0],
        ],
        [0, 0, 1],
      ),
    ).toThrow(/three corners, got 2/);
  });

  test('a moved solid is where its corners are', () => {
    const turn = turnAbout([1, 0, 0], [0, 0, 1], 30);
    const moved = moveSolid(cube, turn);
    near(moved.vertices[0] ?? [0, 0, 0], movePoint(turn, cube.vertices[0] ?? [0, 0, 0]));
    for (const v of moved.vertices) {
      for (const { n, d } of moved.planes) expect(dot(n, v)).toBeLessThan(d + 1e-12);
    }
  });
});

describe('boxes that stand in each other', () => {
  const boxAt = (centre: Vec3, turnDeg: number): Convex => {
    const { aim, right, up } = turnFrame(aimFrame([1, 0, 0], [0, 0, 1]), turnDeg, turnDeg / 2, turnDeg / 3);
    const corners = [-1, 1].flatMap((a) =>
      [-1, 1].flatMap((r) =>
        [-1, 1].map((u) => pointInFrame(centre, { aim, right, up }, [a * 0.3, r * 0.2, u * 0.1])),
      ),
    );
    return { corners, normals: [aim, right, up], edges: [aim, right, up] };
  };

  test('apart by a gap, in each other by a depth', () => {
    expect(overlapDepthM(boxAt([0, 0, 0], 0), boxAt([0.7, 0, 0], 0))).toBeCloseTo(-0.1, 12);
    expect(overlapDepthM(boxAt([0, 0, 0], 0), boxAt([0.55, 0, 0], 0))).toBeCloseTo(0.05, 12);
  });

  test('agrees with looking for a common point, however they are turned', () => {
    const side = fc.double({ min: -0.6, max: 0.6, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(side, side, side), fc.integer({ min: 0, max: 90 }), (at, turn) => {
        const [a, b] = [boxAt([0, 0, 0], 0), boxAt(at, turn)];
        const [aim, right, up] = b.edges;
        if (aim === undefined || right === undefined || up === undefined) throw new Error('a box has three');
        const steps = Array.from({ length: 13 }, (_, i) => i / 6 - 1);
        const common = steps.some((i) =>
          steps.some((j) =>
            steps.some((k) => {
              const p = pointInFrame(at, { aim, right, up }, [i * 0.3, j * 0.2, k * 0.1]);
              return Math.abs(p[0]) < 0.3 && Math.abs(p[1]) < 0.2 && Math.abs(p[2]) < 0.1;
            }),
          ),
        );
        // A common point proves an overlap; looking only at a grid may miss a small one.
        if (common) expect(overlapDepthM(a, b)).toBeGreaterThan(0);
        if (overlapDepthM(a, b) > 0.08) expect(common).toBe(true);
      }),
      { numRuns: 200, seed: 29 },
    );
  });
});

describe.each(BODY_TYPES)('on the $id with every option', (body) => {
  const vehicle = vehicleOf({ ...defaultSpec(body.id), options: [...body.options] });
  const poses = [[], ...stopsOf(vehicle).map((stop) => [stop.id])];
  const origin = fc.tuple(
    fc.double({ min: -3.5, max: 3.5, noNaN: true }),
    fc.double({ min: -1.6, max: 1.6, noNaN: true }),
    fc.double({ min: 0.2, max: 2.1, noNaN: true }),
  );

  test('clipping agrees with triangles for any ray, pose and solid', () => {
    fc.assert(
      fc.property(origin, bearing, elevation, fc.constantFrom(...poses), (from, b, e, open) => {
        const direction = directionOf(b, e);
        for (const solid of posedSolids(vehicle, new Set(open))) {
          const chord = chordM(solid, from, direction);
          // A ray that only brushes an edge may go either way by rounding.
          if (chord === 0 || chord > 1e-5) expect(meetsSkin(solid, from, direction)).toBe(chord > 0);
        }
      }),
      { numRuns: 40, seed: 7 },
    );
  });

  test('the occluder gives what plain clipping gives', () => {
    fc.assert(
      fc.property(origin, fc.constantFrom(...poses), (from, open) => {
        const solids = posedSolids(vehicle, new Set(open));
        const past = occluderAt(layOut(solids), from);
        for (let b = 0; b < 360; b += 7) {
          for (const e of [-20, 0, 12]) {
            const direction = directionOf(b, e);
            expect(past(direction)).toBeCloseTo(transmissionAlong(solids, from, direction), 12);
          }
        }
      }),
      { numRuns: 10, seed: 11 },
    );
  });

  test('as far as a point: what the ray enters beyond it hides nothing, what it enters before does', () => {
    const distance = fc.double({ min: 0.2, max: 6, noNaN: true });
    fc.assert(
      fc.property(origin, bearing, elevation, distance, (from, b, e, farM) => {
        const direction = directionOf(b, e);
        const solids = posedSolids(vehicle, new Set());
        const before = solids.filter((solid) => entryM(solid, from, direction) < farM);
        // A ray that only brushes an edge may go either way by rounding.
        const brushed = solids.some((solid) => {
          const chord = chordM(solid, from, direction);
          return chord > 0 && (chord < 1e-5 || Math.abs(entryM(solid, from, direction) - farM) < 1e-5);
        });
        if (!brushed)
          expect(occluderAt(layOut(solids), from)(direction, farM)).toBeCloseTo(
            transmissionAlong(before, from, direction),
            12,
          );
      }),
      { numRuns: 200, seed: 13 },
    );
  });

  test('every solid is closed and convex: each corner lies in or on every half-space', () => {
    for (const solid of vehicle.solids) {
      const outside = solid.vertices.filter((v) => solid.planes.some(({ n, d }) => dot(n, v) >= d + 1e-9));
      expect(outside, solid.id).toEqual([]);
      for (const { n } of solid.planes) expect(length(n)).toBeCloseTo(1, 12);
    }
  });
});
