import fc from 'fast-check';
import { expect, test } from 'vitest';
import { bruteReach, pictureOf } from '../../test/reference/bruteReach.ts';
import { checkProgramme } from '../../test/reference/checkProgramme.ts';
import { randomProgramme } from '../../test/reference/randomProgramme.ts';
import { readOn } from '../design/controls.ts';
import type { Condition } from '../design/condition.ts';
import { holds } from '../design/programmeFaults.ts';
import { Machine } from './machine.ts';
import { valuesAt, wayTo } from './atMoment.ts';
import { momentsOf, type Moments } from './moments.ts';
import type { Moment } from './momentTable.ts';
import { reach } from './reach.ts';

const allOf = ({ count, at }: Moments): Moment[] => Array.from({ length: count }, (_, place) => at(place));

test('the small programme of check figures: 1 536 sets of functions, 2 304 with the number of each cycle', () => {
  const found = momentsOf(reach(new Machine(checkProgramme().programme)));
  const { pictures, whole } = found;
  expect({ pictures, whole }).toEqual({ pictures: 2_304, whole: true });
  expect(new Set(allOf(found).map(({ on }) => on.map((one) => readOn(one).id).join())).size).toBe(1_536);
});

test.each<[string, Condition, number]>([
  ['the siren on', { kind: 'on', functionId: 'siren' }, 4],
  [
    'the siren with the hatch open',
    {
      kind: 'all',
      of: [
        { kind: 'on', functionId: 'siren' },
        { kind: 'is', input: 'hatch', values: ['open'] },
      ],
    },
    5,
  ],
])('shortest way: %s', (_, condition, events) => {
  const found = momentsOf(reach(new Machine(checkProgramme().programme)), [condition]);
  const nearest = allOf(found).find(({ holds: [so] }) => so);
  expect(nearest?.depth).toBe(events);
  expect(nearest === undefined ? [] : wayTo(found.reach, nearest)).toHaveLength(events);
});

test('of any programme: the same pictures as a plain search, each as near, and told apart by a condition as there', () => {
  const asked: Condition = { kind: 'is', input: 'i1', values: ['b', 'c'] };
  fc.assert(
    fc.property(randomProgramme, (programme) => {
      const found = momentsOf(reach(new Machine(programme)), [asked]);
      const plain = new Map<string, number>();
      for (const { state, depth } of bruteReach(programme)) {
        const key = `${pictureOf(programme, state)} ${String(holds(asked, state.values, () => false))}`;
        plain.set(key, Math.min(plain.get(key) ?? Infinity, depth));
      }
      const mine = new Map(
        allOf(found).map((m) => [
          `${m.on.map((on) => withNumber(programme, on)).join()} ${String(m.holds[0])}`,
          m.depth,
        ]),
      );
      expect(mine).toEqual(plain);
      for (const moment of allOf(found)) {
        expect(wayTo(found.reach, moment)).toHaveLength(moment.depth);
        expect(holds(asked, valuesAt(found.reach, moment), () => false)).toBe(moment.holds[0]);
      }
    }),
    { numRuns: 100, seed: 43 },
  );
});

/** The plain search names a cycle with its number always, the first too. */
const withNumber = (programme: ReturnType<typeof checkProgramme>['programme'], on: string): string => {
  const { id, number } = readOn(on);
  return programme.function(id)?.when.way === 'cycle' ? `${id}:${number}` : id;
};

test('cut short it says so', () => {
  const short = momentsOf(reach(new Machine(checkProgramme().programme)), [], { most: 50 });
  expect(short.whole).toBe(false);
  expect(short.pictures).toBeLessThanOrEqual(50);
});
