import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { bruteReach } from '../../test/reference/bruteReach.ts';
import { checkProgramme } from '../../test/reference/checkProgramme.ts';
import { latches } from '../../test/reference/latches.ts';
import { randomProgramme } from '../../test/reference/randomProgramme.ts';
import type { Programme, ProgrammeEvent } from '../controls/programme.ts';
import { atRest, step } from '../controls/step.ts';
import { Machine } from './machine.ts';
import { momentsOf } from './moments.ts';
import { Numbering } from './numbering.ts';
import { reach } from './reach.ts';

const reached = (programme: Programme) => reach(new Machine(programme));

describe('the small programme of check figures', () => {
  const { raw, count, whole } = reached(checkProgramme().programme);
  test('82 944 raw states, 7 680 reachable', () =>
    expect({ raw, count, whole }).toEqual({ raw: 82_944n, count: 7_680n, whole: true }));
});

describe('programmes of any shape', () => {
  test('as many states as a plain search over objects finds, each as near', () => {
    fc.assert(
      fc.property(randomProgramme, (programme) => {
        const { count, whole, parts } = reached(programme);
        const plain = bruteReach(programme);
        expect(whole).toBe(true);
        expect(Number(count)).toBe(plain.length);
        // The sum of the depths of all combinations, part by part, is that of the plain search.
        const total = Number(count);
        const depths = parts.reduce(
          (sum, part) =>
            sum + (part.depths.subarray(0, part.count).reduce((a, b) => a + b, 0) * total) / part.count,
          0,
        );
        expect(Math.round(depths)).toBe(plain.reduce((sum, { depth }) => sum + depth, 0));
      }),
      { numRuns: 120, seed: 41 },
    );
  });

  test('the way to a state leads there, by the one step that all else uses', () => {
    fc.assert(
      fc.property(randomProgramme, fc.nat(), (programme, pick) => {
        const { machine, parts } = reached(programme);
        for (const part of parts) {
          const place = pick % part.count;
          const way: ProgrammeEvent[] = part.wayTo(place);
          expect(way).toHaveLength(part.depths[place] ?? -1);
          const end = way.reduce((state, event) => {
            const next = step(programme, state, event);
            if (next === null) throw new Error(`${JSON.stringify(event)} does not happen`);
            return next.state;
          }, atRest(programme));
          const r = machine.blank();
          new Numbering(part.part).into(part.states[place] ?? 0, r);
          for (const variable of part.part.variables)
            if (variable.kind === 'input') {
              const input = programme.inputs[variable.at];
              expect(end.values.get(input?.id ?? '')).toBe(input?.values[r.values[variable.at] ?? 0]);
            } else if (variable.kind === 'memory') {
              const id = programme.ranked[variable.at]?.id ?? '';
              expect(end.memory.get(id)).toBe(r.memory[variable.at]);
            }
        }
      }),
      { numRuns: 120, seed: 42 },
    );
  });

  test.each([5, 6, 7, 11])(
    '%i latched functions under one key: each stands as it may, key on or off',
    (count) => {
      const { raw, count: found, parts, whole } = reached(latches(count));
      expect({ raw, found, whole }).toEqual({ raw: 2n ** BigInt(count + 1), found: raw, whole: true });
      // The key is turned, and each button pressed that says so; the key is turned back.
      const deepest = parts.map(({ depths, count: places }) => Math.max(...depths.subarray(0, places)));
      expect(deepest).toEqual([count + 2]);
    },
  );

  test('what is too large to be numbered is not known, and not said to be', () => {
    const many = latches(60);
    expect(reached(many)).toMatchObject({ raw: 2n ** 61n, count: 1n, whole: false });
    expect(momentsOf(reached(many)).whole).toBe(false);
  });

  test('cut short it says so, and never more than there is', () => {
    const { programme } = checkProgramme();
    const short = reach(new Machine(programme), 100);
    expect(short.whole).toBe(false);
    expect(short.count).toBeLessThan(7_680n);
  });
});
