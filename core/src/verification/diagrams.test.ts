import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { OverBudget } from './cannotTell.ts';
import { Diagrams, EVERY, NONE, type Diagram } from './diagrams.ts';

/** A formula over a few variables, with what it says of an assignment: the plain twin. */
interface Formula {
  readonly text: string;
  readonly is: (bits: number) => boolean;
  readonly of: (d: Diagrams) => Diagram;
}

const LEVELS = 12;
const all = Array.from({ length: 1 << LEVELS }, (_, bits) => bits);
const bit = (bits: number, level: number): boolean => ((bits >> level) & 1) === 1;

const variable = fc.nat(LEVELS - 1).map((level): Formula => ({
  text: `x${level}`,
  is: (bits) => bit(bits, level),
  of: (d) => d.variable(level),
}));
const formula = fc.letrec<{ any: Formula }>((tie) => ({
  any: fc.oneof(
    { maxDepth: 5, depthSize: 'large' },
    variable,
    tie('any').map((f): Formula => ({
      text: `!${f.text}`,
      is: (bits) => !f.is(bits),
      of: (d) => d.not(f.of(d)),
    })),
    fc.tuple(tie('any'), tie('any')).map(([f, g]): Formula => ({
      text: `(${f.text} & ${g.text})`,
      is: (bits) => f.is(bits) && g.is(bits),
      of: (d) => d.and(f.of(d), g.of(d)),
    })),
    fc.tuple(tie('any'), tie('any'), tie('any')).map(([f, g, h]): Formula => ({
      text: `(${f.text} ? ${g.text} : ${h.text})`,
      is: (bits) => (f.is(bits) ? g.is(bits) : h.is(bits)),
      of: (d) => d.ite(f.of(d), g.of(d), h.of(d)),
    })),
  ),
})).any;

const has = (d: Diagrams, f: Diagram, bits: number): boolean => {
  let node = f;
  while (node > EVERY) node = bit(bits, d.levelOf(node)) ? d.high(node) : d.low(node);
  return node === EVERY;
};
const table = (d: Diagrams, f: Diagram): string => all.map((bits) => Number(has(d, f, bits))).join('');
const tableOf = ({ is }: Formula): string => all.map((bits) => Number(is(bits))).join('');
const levels = Array.from({ length: LEVELS }, (_, level) => level);
const some = fc.subarray(levels);

describe('diagrams against truth tables', () => {
  test('a formula is the set of its assignments; equal sets are equal numbers', () =>
    fc.assert(
      fc.property(formula, formula, (f, g) => {
        const d = new Diagrams(LEVELS);
        const [a, b] = [f.of(d), g.of(d)];
        expect(table(d, a)).toBe(tableOf(f));
        expect(a === b).toBe(tableOf(f) === tableOf(g));
        expect(d.not(d.or(d.not(a), d.not(b)))).toBe(d.and(a, b));
        expect(d.same(a, b)).toBe(d.or(d.and(a, b), d.and(d.not(a), d.not(b))));
        expect(d.without(a, b)).toBe(d.and(a, d.not(b)));
      }),
      { numRuns: 60 },
    ));

  test('variables left out, of one set and of two together', () =>
    fc.assert(
      fc.property(formula, formula, some, (f, g, out) => {
        const d = new Diagrams(LEVELS);
        const mask = out.reduce((bits, level) => bits | (1 << level), 0);
        const [a, b] = [f.of(d), g.of(d)];
        const cube = d.cube(out);
        const kept = new Set(all.filter((bits) => f.is(bits)).map((bits) => bits & ~mask));
        expect(all.map((bits) => has(d, d.exists(a, cube), bits))).toEqual(
          all.map((bits) => kept.has(bits & ~mask)),
        );
        expect(d.andExists(a, b, cube)).toBe(d.exists(d.and(a, b), cube));
      }),
      { numRuns: 40 },
    ));

  test('how many there are, what they depend on, and one of them', () =>
    fc.assert(
      fc.property(formula, (f) => {
        const d = new Diagrams(LEVELS);
        const a = f.of(d);
        expect(d.countOver(a, levels)).toBe(BigInt(all.filter((bits) => f.is(bits)).length));
        const depends = levels.filter((level) =>
          all.some((bits) => f.is(bits) !== f.is(bits ^ (1 << level))),
        );
        expect(d.support(a)).toEqual(depends);
        if (a === NONE) expect(() => d.pick(a)).toThrow(RangeError);
        else {
          const bits = [...d.pick(a)].reduce((sum, level) => sum | (1 << level), 0);
          expect(f.is(bits)).toBe(true);
        }
      }),
      { numRuns: 60 },
    ));

  test('variables renamed in their order, and sets in place of variables', () =>
    fc.assert(
      fc.property(formula, formula, fc.nat(LEVELS - 1), (f, g, level) => {
        const d = new Diagrams(LEVELS + 1);
        const a = f.of(d);
        const down = d.renaming(levels.map((one) => [one, one + 1]));
        const moved = d.rename(a, down);
        expect(all.map((bits) => has(d, moved, bits << 1))).toEqual(all.map(f.is));
        const put = d.compose(a, new Map([[level, g.of(d)]]));
        expect(all.map((bits) => has(d, put, bits))).toEqual(
          all.map((bits) => f.is(g.is(bits) ? bits | (1 << level) : bits & ~(1 << level))),
        );
      }),
      { numRuns: 40 },
    ));
});

test('nodes made meanwhile are freed, and what was there before stays what it was', () => {
  const d = new Diagrams(LEVELS);
  const kept = d.and(d.variable(3), d.not(d.variable(5)));
  const size = d.size;
  const meanwhile = () => d.all(levels.map((level) => d.same(d.variable(level), d.variable(11 - level))));
  const tooMuch = (): never => {
    meanwhile();
    throw new OverBudget('enough');
  };
  expect(d.attempt(tooMuch)).toBeNull();
  expect(d.size).toBe(size);
  expect(d.and(d.variable(3), d.not(d.variable(5)))).toBe(kept);
  expect(d.countOver(meanwhile(), levels)).toBe(64n);
});

test('it holds as many nodes as it may, and says when that is too few', () => {
  const d = new Diagrams(40, 200);
  const apart = () => d.all(Array.from({ length: 20 }, (_, i) => d.same(d.variable(i), d.variable(i + 20))));
  const one = d.variable(7);
  const size = d.size;
  expect(d.attempt(apart)).toBeNull();
  expect(d.size).toBe(size);
  expect(d.attempt(() => d.and(one, d.not(one)))).toBe(NONE);
  expect(apart).toThrow(OverBudget);
  expect(d.size).toBeLessThanOrEqual(200);
  expect(() =>
    d.attempt(() => {
      throw new TypeError('another fault');
    }),
  ).toThrow(TypeError);
});

test('thousands of nodes: the table grows, and equal sets stay equal', () => {
  const d = new Diagrams(32);
  const counter = (n: number): Diagram => {
    let atLeast = [EVERY, ...Array.from({ length: n }, () => NONE)];
    for (let level = 0; level < 32; level++)
      atLeast = atLeast.map((set, k) =>
        k === 0 ? EVERY : d.ite(d.variable(level), atLeast[k - 1] ?? NONE, set),
      );
    return atLeast[n] ?? NONE;
  };
  const parity = Array.from({ length: 32 }, (_, level) => d.variable(level)).reduce(
    (odd, one) => d.ite(one, d.not(odd), odd),
    NONE,
  );
  expect(
    d.countOver(
      counter(16),
      Array.from({ length: 32 }, (_, l) => l),
    ),
  ).toBe(2448023843n);
  expect(
    d.countOver(
      parity,
      Array.from({ length: 32 }, (_, l) => l),
    ),
  ).toBe(1n << 31n);
  const again = counter(16);
  for (let n = 1; n < 32; n++) counter(n);
  expect(counter(16)).toBe(again);
});
