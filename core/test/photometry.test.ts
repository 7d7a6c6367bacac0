import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readEulumdat } from '../src/fixture/photometry/eulumdat.ts';
import { readIes } from '../src/fixture/photometry/ies.ts';
import { peakOf, tableCd, type PhotometricTable, type TableAxis } from '../src/fixture/photometry/table.ts';
import { writeIes } from '../src/fixture/photometry/writeIes.ts';

const RAD = Math.PI / 180;

/** Toward γ and C of a type C table about its aim: C from the module's right toward its up. */
const atC = (t: PhotometricTable, c: number, gamma: number, axis: TableAxis = 'aim'): number => {
  const s = Math.sin(gamma * RAD);
  return axis === 'aim'
    ? tableCd(t, axis, Math.cos(gamma * RAD), s * Math.cos(c * RAD), s * Math.sin(c * RAD))
    : tableCd(t, axis, s * Math.cos(c * RAD), -s * Math.sin(c * RAD), -Math.cos(gamma * RAD));
};
/** Toward H, V: H = atan2(right, aim), V = asin(up). */
const atHV = (t: PhotometricTable, h: number, v: number): number =>
  tableCd(
    t,
    'aim',
    Math.cos(v * RAD) * Math.cos(h * RAD),
    Math.cos(v * RAD) * Math.sin(h * RAD),
    Math.sin(v * RAD),
  );

interface IesParts {
  readonly head?: string[];
  readonly tilt?: string;
  readonly multiplier?: number;
  readonly type?: 1 | 2 | 3;
  readonly factors?: string;
  readonly v: readonly number[];
  readonly h: readonly number[];
  readonly cd: readonly (readonly number[])[];
}

const ies = ({
  head = ['IESNA:LM-63-1995'],
  tilt = 'TILT=NONE',
  multiplier = 1,
  type = 1,
  factors = '1 1 20',
  v,
  h,
  cd,
}: IesParts): string =>
  [
    ...head,
    tilt,
    `1 1000 ${multiplier} ${v.length} ${h.length} ${type} 2 0.1 0.2 0.05`,
    factors,
    v.join(' '),
    h.join(' '),
    ...cd.map((row) => row.join(' ')),
  ].join('\n');

describe('IES LM-63, type C', () => {
  const v = [0, 45, 90];

  test('one plane: the same all round; between angles linear; outside zero', () => {
    const t = readIes(ies({ v, h: [0], cd: [[1000, 400, 0]] }));
    for (const c of [0, 77, 180, 301]) expect(atC(t, c, 45)).toBeCloseTo(400, 9);
    expect(atC(t, 10, 22.5)).toBeCloseTo(700, 9);
    expect(atC(t, 10, 100)).toBe(0);
    expect(peakOf(t)).toBe(1000);
    expect(t.watts).toBe(20);
  });

  test('a quadrant: mirrored to all four', () => {
    const t = readIes(
      ies({
        v,
        h: [0, 45, 90],
        cd: [
          [9, 10, 0],
          [9, 20, 0],
          [9, 40, 0],
        ],
      }),
    );
    for (const c of [45, 135, 225, 315]) expect(atC(t, c, 45)).toBeCloseTo(20, 9);
    for (const c of [90, 270]) expect(atC(t, c, 45)).toBeCloseTo(40, 9);
    expect(atC(t, 157.5, 45)).toBeCloseTo(15, 9);
  });

  test('0–180: the other half mirrored about C0–C180', () => {
    const t = readIes(
      ies({
        v,
        h: [0, 90, 180],
        cd: [
          [9, 10, 0],
          [9, 20, 0],
          [9, 30, 0],
        ],
      }),
    );
    expect(atC(t, 90, 45)).toBeCloseTo(20, 9);
    expect(atC(t, 270, 45)).toBeCloseTo(20, 9);
    expect(atC(t, 225, 45)).toBeCloseTo(25, 9);
  });

  test('90–270: the other half mirrored about C90–C270', () => {
    const t = readIes(
      ies({
        v,
        h: [90, 180, 270],
        cd: [
          [9, 10, 0],
          [9, 20, 0],
          [9, 30, 0],
        ],
      }),
    );
    expect(atC(t, 0, 45)).toBeCloseTo(20, 9);
    expect(atC(t, 45, 45)).toBeCloseTo(15, 9);
    expect(atC(t, 315, 45)).toBeCloseTo(25, 9);
  });

  test('0–360: as it stands, with or without the plane at 360', () => {
    for (const [h, more] of [
      [[0, 90, 180, 270, 360], [[9, 10, 0]]],
      [[0, 90, 180, 270], []],
    ] as const) {
      const t = readIes(ies({ v, h, cd: [[9, 10, 0], [9, 20, 0], [9, 30, 0], [9, 40, 0], ...more] }));
      expect(atC(t, 270, 45)).toBeCloseTo(40, 9);
      expect(atC(t, 315, 45)).toBeCloseTo(25, 9);
    }
  });

  test('upright: γ 90 is level, C 0 the aim, C 90 the left', () => {
    const t = readIes(
      ies({
        v: [0, 90, 180],
        h: [0, 90, 180, 270, 360],
        cd: [
          [1, 10, 2],
          [1, 20, 2],
          [1, 30, 2],
          [1, 40, 2],
          [1, 10, 2],
        ],
      }),
    );
    expect(atC(t, 0, 90, 'upright')).toBeCloseTo(10, 9);
    expect(tableCd(t, 'upright', 1, 0, 0)).toBeCloseTo(10, 9);
    expect(tableCd(t, 'upright', 0, -1, 0)).toBeCloseTo(20, 9);
    expect(tableCd(t, 'upright', 0, 0, -1)).toBeCloseTo(1, 9);
  });
});

describe('IES LM-63, types A and B', () => {
  const v = [-10, 0, 10];
  test('type A: H about the vertical axis; from 0 on, the left is the mirror image', () => {
    const t = readIes(
      ies({
        type: 3,
        v,
        h: [0, 30],
        cd: [
          [5, 100, 5],
          [1, 20, 1],
        ],
      }),
    );
    expect(atHV(t, 30, 0)).toBeCloseTo(20, 9);
    expect(atHV(t, -30, 0)).toBeCloseTo(20, 9);
    expect(atHV(t, -15, 0)).toBeCloseTo(60, 9);
    expect(atHV(t, 0, 5)).toBeCloseTo(52.5, 9);
    expect(atHV(t, 0, 11)).toBe(0);
  });
  test('type A, both sides said', () => {
    const t = readIes(
      ies({
        type: 3,
        v,
        h: [-30, 0, 30],
        cd: [
          [1, 70, 1],
          [5, 100, 5],
          [1, 20, 1],
        ],
      }),
    );
    expect(atHV(t, -30, 0)).toBeCloseTo(70, 9);
  });
  test('type B: H toward the horizontal pole, direction (cos H cos V, sin H, cos H sin V)', () => {
    const t = readIes(
      ies({
        type: 2,
        v: [-90, 0, 90],
        h: [-60, 0, 60],
        cd: [
          [0, 10, 0],
          [0, 100, 0],
          [0, 50, 0],
        ],
      }),
    );
    const [h, w] = [60 * RAD, 45 * RAD];
    expect(tableCd(t, 'aim', Math.cos(h) * Math.cos(w), Math.sin(h), Math.cos(h) * Math.sin(w))).toBeCloseTo(
      25,
      9,
    );
  });
});

describe('quirks that are read right', () => {
  const plain = { v: [0, 90], h: [0], cd: [[100, 50]] } as const;

  test('multiplier, ballast and ballast-lamp factors; the last only before 2002', () => {
    expect(peakOf(readIes(ies({ ...plain, multiplier: 2.5, factors: '0.8 0.5 20' })))).toBeCloseTo(100, 9);
    const head = ['IESNA:LM-63-2002'];
    expect(peakOf(readIes(ies({ ...plain, head, multiplier: 2.5, factors: '0.8 0.5 20' })))).toBeCloseTo(
      200,
      9,
    );
  });

  test('no edition line and no keywords; any line ends; long and broken lines; commas; remarks', () => {
    const text = ies({ ...plain, head: [] });
    for (const end of ['\r\n', '\r']) expect(readIes(text.replaceAll('\n', end))).toEqual(readIes(text));
    const words = text.split('\n').slice(1).join(' ');
    expect(readIes(`made by hand\n[KEY] odd = 1\nTILT=NONE\n${words}`)).toEqual(readIes(text));
    expect(readIes(`TILT=NONE\n${words.replaceAll(' ', '\n')}`)).toEqual(readIes(text));
    expect(readIes(`TILT=NONE\n# a remark\n${words.replaceAll(' ', ', ')}\n; another\n\u001A`)).toEqual(
      readIes(text),
    );
    expect(readIes(`\uFEFF${text}`)).toEqual(readIes(text));
  });

  test('TILT=INCLUDE is read past', () => {
    expect(peakOf(readIes(ies({ ...plain, tilt: 'TILT=INCLUDE\n1\n3\n0 45 90\n1 0.9 0.8' })))).toBe(100);
  });
});

describe('what is refused, with its line', () => {
  const good = ies({ v: [0, 90], h: [0], cd: [[100, 50]] });
  test.each<[string, string, RegExp]>([
    ['no TILT line', 'IESNA91\n1 2 3', /^line 2: no TILT= line/],
    ['a tilt file', good.replace('NONE', 'lamp.tlt'), /^line 2: TILT=lamp\.tlt points to another file/],
    [
      'a word among numbers',
      good.replace('100 50', '100 abc'),
      /^line 7: intensity 2 of 2 is not a number: 'abc'/,
    ],
    [
      'a file cut short',
      good.replace('100 50', '100'),
      /^line 7: the file ends where intensity 2 of 2 should be/,
    ],
    ['numbers left over', `${good}\n7 8`, /^line 8: 2 more numbers than the angles ask for, from '7'/],
    [
      'angles that fall',
      good.replace('0 90\n0', '90 0\n0'),
      /^line 5: vertical angles must ascend, but 0 follows 90/,
    ],
    [
      'a negative intensity',
      good.replace('100 50', '100 -5'),
      /^line 7: an intensity cannot be negative: -5/,
    ],
    [
      'a strange run of planes',
      ies({
        v: [0, 90],
        h: [0, 120],
        cd: [
          [1, 2],
          [1, 2],
        ],
      }),
      /^line 5: horizontal angles of type C run/,
    ],
    [
      'an unknown type',
      good.replace('2 1 1 2 0.1', '2 1 4 2 0.1'),
      /^line 3: the photometric type must be a whole number from 1 to 3, not 4/,
    ],
  ])('%s', (_, text, message) => expect(() => readIes(text)).toThrow(message));
});

describe('EULUMDAT', () => {
  interface LdtParts {
    readonly symmetry: number;
    readonly planes: number;
    readonly rows: readonly (readonly number[])[];
    readonly flux?: number;
    readonly conversion?: string;
  }
  const ldt = ({ symmetry, planes, rows, flux = 2000, conversion = '1' }: LdtParts): string =>
    [
      'Flarik',
      '1',
      String(symmetry),
      String(planes),
      String(360 / planes),
      '3',
      '45',
      'report',
      'lamp',
      'no',
      'file',
      'date',
      '100',
      '0',
      '50',
      '90',
      '0',
      '0',
      '0',
      '0',
      '0',
      '100',
      '100',
      conversion,
      '0',
      '1',
      '1',
      'LED',
      String(flux),
      'white',
      '80',
      '25',
      ...Array.from({ length: 10 }, () => '0.5'),
      ...Array.from({ length: planes }, (_, i) => String((i * 360) / planes)),
      '0',
      '45',
      '90',
      ...rows.flat().map(String),
    ].join('\r\n');

  test('cd per 1000 lm times flux and conversion; about the axis', () => {
    const t = readEulumdat(ldt({ symmetry: 1, planes: 1, rows: [[500, 200, 0]], conversion: '1,5' }));
    expect(atC(t, 0, 0)).toBeCloseTo(1500, 9);
    expect(atC(t, 222, 45)).toBeCloseTo(600, 9);
    expect(t.watts).toBe(25);
  });

  test.each<[number, readonly number[], readonly [number, number][]]>([
    [
      0,
      [10, 20, 30, 40],
      [
        [0, 10],
        [90, 20],
        [180, 30],
        [270, 40],
      ],
    ],
    [
      2,
      [10, 20, 30],
      [
        [0, 10],
        [90, 20],
        [180, 30],
        [270, 20],
      ],
    ],
    [
      3,
      [40, 10, 20],
      [
        [270, 40],
        [0, 10],
        [90, 20],
        [180, 10],
      ],
    ],
    [
      4,
      [10, 20],
      [
        [0, 10],
        [90, 20],
        [180, 10],
        [270, 20],
      ],
    ],
  ])('symmetry %i', (symmetry, said, expected) => {
    const t = readEulumdat(ldt({ symmetry, planes: 4, rows: said.map((cd) => [99, cd, 0]), flux: 1000 }));
    for (const [c, cd] of expected) expect(atC(t, c, 45), `C${c}`).toBeCloseTo(cd, 9);
  });

  test.each<[string, string, RegExp]>([
    [
      'a symmetry that is none',
      ldt({ symmetry: 7, planes: 4, rows: [] }),
      /^line 3: the symmetry must be a whole number from 0 to 4, not 7/,
    ],
    [
      'no flux',
      ldt({ symmetry: 1, planes: 1, rows: [[1, 2, 3]], flux: 0 }),
      /^line 24: conversion factor and flux give 0/,
    ],
    [
      'planes that do not divide',
      ldt({ symmetry: 4, planes: 6, rows: [] }),
      /^line 4: with symmetry 4 the number of C planes must divide by 4/,
    ],
    [
      'a file cut short',
      ldt({ symmetry: 1, planes: 1, rows: [[1, 2]] }),
      /the file ends where intensity 3 of 3 should be/,
    ],
    ['an empty file', '', /^line 3|^line 1/],
  ])('%s is refused', (_, text, message) => expect(() => readEulumdat(text)).toThrow(message));
});

describe('writing IES', () => {
  test('what is written reads back, for any distribution', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 90 }), fc.integer({ min: 0, max: 359 }), (width, toward) => {
        const cd = (c: number, gamma: number) =>
          Math.round(
            1e3 *
              1000 *
              2 ** -(((gamma - 90) / width) ** 2 + ((((c - toward + 540) % 360) - 180) / width) ** 2),
          ) / 1e3;
        const heading = { name: 'Tést', watts: 12.5, sizeM: { width: 1, length: 2, height: 0.5 } };
        const t = readIes(writeIes(heading, cd, { c: 15, gamma: 5 }));
        expect(t.watts).toBe(12.5);
        for (let c = 0; c < 360; c += 15)
          for (let gamma = 0; gamma <= 180; gamma += 5)
            expect(atC(t, gamma === 0 || gamma === 180 ? 0 : c, gamma, 'upright')).toBeCloseTo(
              cd(gamma === 0 || gamma === 180 ? 0 : c, gamma),
              6,
            );
      }),
      { numRuns: 20, seed: 23 },
    );
  });
  test('steps that leave a gap are refused', () => {
    const heading = { name: 'x', watts: 0, sizeM: { width: 0, length: 0, height: 0 } };
    expect(() => writeIes(heading, () => 0, { c: 7, gamma: 5 })).toThrow(RangeError);
  });
});
