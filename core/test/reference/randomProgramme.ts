import fc from 'fast-check';
import { ControlProgram } from '../../src/controls/program.ts';
import type { Condition, InputEvent } from '../../src/design/condition.ts';
import type { InputLink, Implication } from '../../src/design/controls.ts';
import type { ControlFunction, When } from '../../src/design/functions.ts';
import { newFunction, shown } from '../../src/design/functions.ts';
import { isAllowed } from '../../src/design/programFaults.ts';
import { defaultControls } from '../../src/design/usualControls.ts';

const INPUTS = [
  { id: 'i0', values: ['a', 'b'] },
  { id: 'i1', values: ['a', 'b', 'c'] },
  { id: 'i2', values: ['a', 'b'] },
];
const KEYS = ['k0', 'k1'];

const isCondition: fc.Arbitrary<Condition> = fc
  .constantFrom(...INPUTS)
  .chain(({ id, values }) =>
    fc.subarray(values, { minLength: 1 }).map((some): Condition => ({ kind: 'is', input: id, values: some })),
  );

/** A condition about inputs, and about functions that come earlier. */
const conditionOf = (earlier: readonly string[]): fc.Arbitrary<Condition> => {
  const leaf =
    earlier.length === 0
      ? isCondition
      : fc.oneof(
          { weight: 2, arbitrary: isCondition },
          {
            weight: 1,
            arbitrary: fc
              .constantFrom(...earlier)
              .map((functionId): Condition => ({ kind: 'on', functionId })),
          },
        );
  return fc.oneof(
    leaf,
    leaf.map((of): Condition => ({ kind: 'not', of })),
    fc.tuple(leaf, leaf).map((of): Condition => ({ kind: 'all', of })),
    fc.tuple(leaf, leaf).map((of): Condition => ({ kind: 'any', of })),
  );
};

const event: fc.Arbitrary<InputEvent> = fc.oneof(
  fc.constantFrom(...KEYS).map((control): InputEvent => ({ kind: 'press', control, press: 'short' })),
  fc.constantFrom(...KEYS).map((control): InputEvent => ({ kind: 'press', control, press: 'long' })),
  fc.constant<InputEvent>({ kind: 'chord', controls: ['k1', 'k0'] }),
  fc
    .constantFrom(...INPUTS)
    .chain(({ id, values }) =>
      fc.constantFrom(...values).map((value): InputEvent => ({ kind: 'arrives', input: id, value })),
    ),
);
const events = fc.array(event, { maxLength: 2 });
const ms = fc.constantFrom(0, 0, 1000);

const whenOf = (earlier: readonly string[]): fc.Arbitrary<When> =>
  fc.oneof(
    fc.record({
      way: fc.constant('while' as const),
      condition: conditionOf(earlier),
      afterMs: ms,
      staysMs: ms,
    }),
    fc.record({
      way: fc.constant('latched' as const),
      sets: events,
      clears: events,
      toggles: events,
      timeoutMs: ms,
    }),
    fc.record({
      way: fc.constant('cycle' as const),
      sets: events,
      steps: events,
      clears: events,
      wraps: fc.constantFrom('off' as const, 'first' as const),
      timeoutMs: ms,
    }),
  );

function functionOf(i: number): fc.Arbitrary<ControlFunction> {
  const earlier = Array.from({ length: i }, (_, k) => `f${k}`);
  return fc
    .record({
      when: whenOf(earlier),
      enabledBy: fc.option(conditionOf(earlier), { freq: 2 }),
      forgets: fc.boolean(),
      choiceId: fc.constantFrom(null, null, 'c'),
      mode: fc.constantFrom(null, null, 1 as const, 2 as const),
      kind: fc.constantFrom('warning' as const, 'light' as const, 'signal' as const),
    })
    .map(({ when, enabledBy, forgets, choiceId, mode, kind }) =>
      newFunction(`f${i}`, `F${i}`, kind, when, [], {
        enabledBy,
        forgets,
        mode,
        choiceId: when.way === 'while' ? null : choiceId,
        shows: when.way === 'cycle' ? [shown([]), shown([])] : [shown([])],
      }),
    );
}

/** A small programme of any shape: a few inputs and keys, functions of every way, follows and forbidden values. */
export const randomProgram: fc.Arbitrary<ControlProgram> = fc
  .record({
    functions: fc.tuple(...[0, 1, 2, 3, 4].map(functionOf)),
    enabledBy: fc.option(isCondition, { freq: 2 }),
    never: fc.array(
      fc.tuple(isCondition, isCondition).map(([when, then]): Implication => ({ when, then })),
      { maxLength: 1 },
    ),
    follows: fc.array(
      fc.constantFrom<InputLink>(
        { input: 'i0', values: ['b'], follower: 'i2', takes: 'b' },
        { input: 'i1', values: ['c'], follower: 'i0', takes: 'a' },
        { input: 'i2', values: ['a'], follower: 'i1', takes: 'b' },
      ),
      { maxLength: 2 },
    ),
  })
  .map(({ functions, enabledBy, never, follows }) => {
    const inputs = INPUTS.map(({ id, values }) => ({
      id,
      name: id,
      values,
      source: 'own' as const,
      byHand: id !== 'i2',
    }));
    const rest = new Map(INPUTS.map(({ id, values: [first = ''] }) => [id, first]));
    return new ControlProgram(inputs, {
      ...defaultControls(),
      panels: [],
      functions,
      enabledBy,
      never: never.filter((rule) => isAllowed(rule, rest)),
      follows,
    });
  });
