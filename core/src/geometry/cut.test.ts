import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cutFaces } from './cut.ts';
import { box, type Solid } from './solid.ts';
import { cross, dot, scale, sub, unit, type Vec3 } from './vec.ts';

type Faces = readonly (readonly Vec3[])[];
const facesOf = (solid: Solid): Faces =>
  solid.faces.map((face) =>
    face.flatMap((i): Vec3[] => {
      const p = solid.vertices[i];
      return p === undefined ? [] : [p];
    }),
  );
const cube = facesOf(box('cube', [0, 0, 0], [1, 1, 1]));

/** By the divergence theorem: a sixth of the sum of a · (b × c) over triangles that look outward. */
const volume = (faces: Faces): number =>
  faces.reduce((sum, [a, ...rest]) => {
    if (a === undefined) return sum;
    return rest.slice(0, -1).reduce((part, b, i) => part + dot(a, cross(b, rest[i + 1] ?? b)) / 6, sum);
  }, 0);
/** Each edge is walked once in either direction: the body is closed. */
function openEdges(faces: Faces): number {
  const key = (p: Vec3): string => p.join();
  const walked = new Map<string, number>();
  for (const face of faces)
    for (const [i, p] of face.entries()) {
      const q = face[(i + 1) % face.length] ?? p;
      if (key(p) === key(q)) continue;
      const [there, back] = [`${key(p)} ${key(q)}`, `${key(q)} ${key(p)}`];
      walked.set(there, (walked.get(there) ?? 0) + 1);
      walked.set(back, (walked.get(back) ?? 0) - 1);
    }
  return [...walked.values()].filter((n) => n !== 0).length;
}

describe('cutting a convex body', () => {
  test('a cube of a metre: whole, halved, its corner off, nothing left', () => {
    expect(volume(cube)).toBeCloseTo(1, 12);
    expect(cutFaces(cube, { n: [1, 0, 0], d: 2 })).toBe(cube);
    const half = cutFaces(cube, { n: [1, 0, 0], d: 0.5 });
    expect(volume(half)).toBeCloseTo(0.5, 12);
    expect(half).toHaveLength(6);
    expect(half.at(-1)?.every(([x]) => Math.abs(x - 0.5) < 1e-12)).toBe(true);
    // The plane through the middles of the three edges at a corner takes a tetrahedron of 1/48.
    const cornered = cutFaces(cube, { n: unit([1, 1, 1]), d: dot(unit([1, 1, 1]), [1, 1, 0.5]) });
    expect(volume(cornered)).toBeCloseTo(1 - 1 / 48, 12);
    expect(cornered).toHaveLength(7);
    expect(cutFaces(cube, { n: [1, 0, 0], d: -1 })).toEqual([]);
  });

  test('any cuts: what is left is closed, looks outward, and two halves are the whole', () => {
    const along = fc.double({ min: -1, max: 1, noNaN: true });
    const plane = fc
      .tuple(along, along, along, fc.double({ min: -0.4, max: 0.4, noNaN: true }))
      .filter(([x, y, z]) => Math.hypot(x, y, z) > 0.1)
      .map(([x, y, z, off]) => {
        const n = unit([x, y, z]);
        return { n, d: dot(n, [0.5, 0.5, 0.5]) + off };
      });
    fc.assert(
      fc.property(fc.array(plane, { minLength: 1, maxLength: 5 }), plane, (planes, last) => {
        const body = planes.reduce<Faces>(cutFaces, cube);
        fc.pre(volume(body) > 1e-3);
        expect(openEdges(body)).toBe(0);
        const middle: Vec3 = [0.5, 0.5, 0.5];
        const isInside = [...planes].every(({ n, d }) => dot(n, middle) < d - 1e-3);
        if (isInside)
          for (const [a, b, c] of body)
            if (a !== undefined && b !== undefined && c !== undefined)
              expect(dot(cross(sub(b, a), sub(c, b)), sub(a, middle))).toBeGreaterThan(-1e-9);
        const other = { n: scale(last.n, -1), d: -last.d };
        expect(volume(cutFaces(body, last)) + volume(cutFaces(body, other))).toBeCloseTo(volume(body), 6);
      }),
      {
        numRuns: 200,
        examples: [
          // Cuts a millionth of a metre flat, which once tore the body open.
          [
            [
              { n: [-0.0000019999999998909783, 0, 0.9999999999979999], d: 0.499998999999 },
              { n: [-5.551115123125783e-17, -0.9999999999999999, 0], d: -0.5 },
              { n: [0, 0, 1], d: 0.5 },
              { n: [1, 0, 0], d: 0.5 },
            ],
            { n: [0, 1, 0], d: 0.5 },
          ],
        ],
      },
    );
  });
});
