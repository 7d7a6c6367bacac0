import { describe, expect, test } from 'vitest';
import { checkProgramme } from '../../test/reference/checkProgramme.ts';
import { isTimed, mostRemembered, onsIn, type ControlState, type ProgramEvent } from './program.ts';
import { initialControlState, isTiming, step } from './step.ts';

const { programme, presses } = checkProgramme();

/** Everything that can happen in a state, timers included. */
function eventsIn(state: ControlState): ProgramEvent[] {
  return [
    ...programme.inputs.flatMap(({ id, values }) =>
      values
        .filter((value) => value !== state.values.get(id))
        .map((value): ProgramEvent => ({ kind: 'arrives', input: id, value })),
    ),
    ...presses.flatMap((control): ProgramEvent[] => [
      { kind: 'press', control, press: 'short' },
      { kind: 'press', control, press: 'long' },
    ]),
    ...programme.ranked
      .filter((fn) => isTiming(state, fn))
      .map((fn): ProgramEvent => ({ kind: 'ends', functionId: fn.id })),
  ];
}

const keyOf = ({ values, memory, phases }: ControlState): string =>
  [...values.values(), ...memory.values(), ...phases.values()].join('|');

/** Every state that can be reached, with the fewest events it takes. */
function reachable(): Map<string, { readonly state: ControlState; readonly events: number }> {
  const first = initialControlState(programme);
  const found = new Map([[keyOf(first), { state: first, events: 0 }]]);
  for (const { state, events } of found.values())
    for (const event of eventsIn(state)) {
      const next = step(programme, state, event)?.state;
      if (next === undefined) continue;
      const key = keyOf(next);
      if (!found.has(key)) found.set(key, { state: next, events: events + 1 });
    }
  return found;
}

describe('the small programme of check figures', () => {
  const found = reachable();
  const fewest = (is: (state: ControlState) => boolean): number =>
    Math.min(...[...found.values()].filter(({ state }) => is(state)).map(({ events }) => events));

  test('82 944 states raw, 7 680 reachable', () => {
    const raw =
      programme.inputs.reduce((n, { values }) => n * values.length, 1) *
      programme.ranked.reduce((n, fn) => n * (mostRemembered(fn) + 1), 1) *
      programme.ranked
        .filter((fn) => isTimed(fn.when))
        .reduce(
          (n, { when }) =>
            n * (when.way === 'while' ? 2 + Number(when.afterMs > 0) + Number(when.staysMs > 0) : 1),
          1,
        );
    expect(raw).toBe(82_944);
    expect(found.size).toBe(7_680);
  });

  test('1 536 sets of functions on; 2 304 with the number of each cycle', () => {
    const states = [...found.values()].map(({ state }) => state);
    expect(new Set(states.map(({ on }) => [...on].toSorted().join())).size).toBe(1_536);
    expect(new Set(states.map((state) => onsIn(programme, state).join())).size).toBe(2_304);
  });

  test.each<[string, number, (state: ControlState) => boolean]>([
    ['siren on', 4, (s) => s.on.has('siren')],
    ['hatch staying with stage 1 on', 4, (s) => s.phases.get('hatch') === 'staying' && s.on.has('stage1')],
    ['white set while fog is on', 3, (s) => s.memory.get('whiteAll') === 1 && s.on.has('fog')],
    ['siren sounding with the hatch open', 5, (s) => s.on.has('siren') && s.values.get('hatch') === 'open'],
    [
      'courtesy on with the hatch shut and the ignition on',
      3,
      (s) => s.on.has('courtesy') && s.values.get('hatch') === 'shut' && s.values.get('ignition') === 'on',
    ],
    ['emergency at 2 with stage 3 on', 4, (s) => s.memory.get('emergency') === 2 && s.on.has('stage3')],
  ])('%s: %i events', (_, events, is) => expect(fewest(is)).toBe(events));
});
