import { ControlProgram } from '../../src/controls/program.ts';
import type { Condition, InputEvent } from '../../src/design/condition.ts';
import { newFunction, shown, type ControlFunction, type When } from '../../src/design/functions.ts';
import { defaultControls } from '../../src/design/usualControls.ts';

const FUNCTIONS = 64;
const INPUTS = 40;

/** Numbers from 0 up to 1, the same for each seed (a linear congruential generator; Knuth). */
function numbersFrom(seed: number): () => number {
  let state = seed * 7919 + 1;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

const inputs = Array.from({ length: INPUTS }, (_, i) => ({
  id: i === 0 ? 'ignition' : `i${i}`,
  name: `i${i}`,
  values:
    i === 0 ? ['off', 'accessory', 'on'] : Array.from({ length: i % 5 === 0 ? 4 : 2 }, (_, v) => `v${v}`),
  source: 'own' as const,
  byHand: i % 2 === 0,
}));
const KEY_ON: Condition = { kind: 'is', input: 'ignition', values: ['on'] };
const isOn = (at: number): Condition => ({ kind: 'on', functionId: `f${at}` });
const press = (at: number): InputEvent => ({ kind: 'press', control: `k${at}`, press: 'short' });

function functionsOf(seed: number): ControlFunction[] {
  const next = numbersFrom(seed);
  const upTo = (n: number): number => Math.floor(next() * n);
  const anInput = (): Condition => {
    const input = inputs[1 + upTo(INPUTS - 1)];
    return {
      kind: 'is',
      input: input?.id ?? '',
      values: [input?.values[1 + upTo(input.values.length - 1)] ?? ''],
    };
  };
  return Array.from({ length: FUNCTIONS }, (_, at) => {
    const way = next();
    const condition: Condition =
      at > 2 && next() < 0.3
        ? { kind: next() < 0.5 ? 'all' : 'any', of: [isOn(upTo(at)), anInput()] }
        : anInput();
    const when: When =
      way < 0.35
        ? {
            way: 'latched',
            sets: [],
            clears: next() < 0.3 ? [{ kind: 'arrives', input: 'ignition', value: 'off' }] : [],
            toggles: [press(at)],
            timeoutMs: next() < 0.2 ? 1000 : 0,
          }
        : way < 0.5
          ? { way: 'cycle', sets: [], steps: [press(at)], clears: [], wraps: 'off', timeoutMs: 0 }
          : {
              way: 'while',
              condition,
              afterMs: next() < 0.15 ? 1000 : 0,
              staysMs: next() < 0.2 ? 1000 : 0,
            };
    return newFunction(`f${at}`, `F${at}`, 'warning', when, [], {
      enabledBy: at > 3 && next() < 0.3 ? isOn(upTo(at)) : null,
      forgets: next() < 0.4,
      mode: null,
      choiceId: when.way === 'latched' && next() < 0.2 ? `c${upTo(3)}` : null,
      shows: when.way === 'cycle' ? [shown([]), shown([]), shown([])] : [shown([])],
    });
  });
}

const programmeOf = (functions: ControlFunction[]): ControlProgram =>
  new ControlProgram(inputs, {
    ...defaultControls(),
    panels: [],
    functions,
    enabledBy: KEY_ON,
    never: [],
    follows: [],
  });

/** A program of 64 functions and 40 inputs as a full vehicle has: keys, cycles, choices, timers, what others enable. */
export const fullProgram = (seed: number): ControlProgram => programmeOf(functionsOf(seed));

/**
 * The same with a chain of keys, each of which needs the one before it, and a function that is on with the last: so many
 * events from rest, the key of the ignition among them.
 */
export function withFault(depth: number): { readonly programme: ControlProgram; readonly fault: string } {
  const chain = Array.from({ length: depth - 1 }, (_, i) =>
    newFunction(
      `chain${i}`,
      `Chain ${i}`,
      'cut',
      {
        way: 'latched',
        sets: [],
        clears: [],
        toggles: [{ kind: 'press', control: `chain-key${i}`, press: 'short' }],
        timeoutMs: 0,
      },
      [],
      { enabledBy: i === 0 ? null : { kind: 'on', functionId: `chain${i - 1}` } },
    ),
  );
  const last = newFunction(
    'fault',
    'Fault',
    'warning',
    {
      way: 'while',
      condition: { kind: 'on', functionId: chain.at(-1)?.id ?? '' },
      afterMs: 0,
      staysMs: 0,
    },
    [],
  );
  return { programme: programmeOf([...functionsOf(depth).slice(depth), ...chain, last]), fault: 'fault' };
}
