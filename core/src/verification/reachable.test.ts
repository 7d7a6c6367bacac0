import fc from 'fast-check';
import { expect, test } from 'vitest';
import { bruteReach, pictureOf } from '../../test/reference/bruteReach.ts';
import { checkProgramme } from '../../test/reference/checkProgramme.ts';
import { fullProgram, withFault } from '../../test/reference/fullProgramme.ts';
import { randomProgram } from '../../test/reference/randomProgramme.ts';
import { onsIn, ControlProgram, type ControlState } from '../controls/program.ts';
import { initialControlState, step } from '../controls/step.ts';
import { newFunction } from '../design/functions.ts';
import { defaultControls } from '../design/usualControls.ts';
import { NONE, type Diagram } from './diagrams.ts';
import { ReachableSet } from './reachable.ts';

/** How many different output states there are, each cycle with its number. */
function outputStatesOf({ program, states }: ReachableSet): bigint {
  const ons = [...program.order.ons.values()].toSorted((a, b) => a - b);
  return program.diagrams.countOver(program.outputStates(states, program.order.ons.keys()), ons);
}

/** The states in which just this is on. */
function justOn({ program }: ReachableSet, ons: readonly string[]): Diagram {
  const d = program.diagrams;
  return d.all(
    [...program.order.ons.keys()].map((on) =>
      ons.includes(on) ? program.isOn(on) : d.not(program.isOn(on)),
    ),
  );
}

/** The state that events lead to from rest, each of which must happen. */
const replayed = (programme: ControlProgram, events: readonly Parameters<typeof step>[2][]): ControlState =>
  events.reduce((state, event) => {
    const next = step(programme, state, event)?.state;
    if (next === undefined) throw new Error(`${JSON.stringify(event)} does not happen`);
    return next;
  }, initialControlState(programme));

test('the check programme: raw, reachable, output states, and the lengths of its shortest sequences', () => {
  const reached = new ReachableSet(checkProgramme().programme);
  expect(reached.raw).toBe(82_944n);
  expect(reached.count).toBe(7_680n);
  expect(reached.within).toBeNull();
  expect(outputStatesOf(reached)).toBe(2_304n);
});

test('random programmes: counts, output states, layers and shortest sequences are those of a plain search', () => {
  let sequences = 0;
  fc.assert(
    fc.property(randomProgram, (programme) => {
      const plain = bruteReach(programme);
      const reached = new ReachableSet(programme);
      const { program } = reached;
      expect(reached.count).toBe(BigInt(plain.length));
      const shortest = new Map<string, number>();
      const onsOf = new Map<string, readonly string[]>();
      for (const { state, depth } of plain) {
        const picture = pictureOf(programme, state);
        shortest.set(picture, Math.min(depth, shortest.get(picture) ?? Infinity));
        onsOf.set(picture, onsIn(programme, state));
      }
      expect(outputStatesOf(reached)).toBe(BigInt(shortest.size));
      const byDepth = new Map<number, number>();
      for (const { depth } of plain) byDepth.set(depth, (byDepth.get(depth) ?? 0) + 1);
      const levels = program.levelsOf(program.parts);
      for (let depth = 0; depth <= Math.max(...byDepth.keys()) + 1; depth++)
        expect(program.diagrams.countOver(reached.layerOf(reached.parts, depth) ?? NONE, levels)).toBe(
          BigInt(byDepth.get(depth) ?? 0),
        );
      for (const [picture, depth] of shortest) {
        const ons = onsOf.get(picture) ?? [];
        const nearest = reached.nearest(justOn(reached, ons));
        expect(nearest?.depth).toBe(depth);
        expect(nearest?.events.length).toBe(depth);
        expect(pictureOf(programme, replayed(programme, nearest?.events ?? []))).toBe(picture);
        sequences++;
      }
      expect(reached.nearest(NONE)).toBeNull();
    }),
    { numRuns: 200, seed: 13 },
  );
  expect(sequences).toBeGreaterThan(800);
});

test('a part that needs too many nodes is looked through layer by layer, and says how far', () => {
  const { programme } = checkProgramme();
  const whole = new ReachableSet(programme);
  const cut = new ReachableSet(programme, 4_000);
  expect(cut.within).toBeGreaterThanOrEqual(2);
  expect(cut.count).toBeLessThan(whole.count);
  const countAt = (reached: ReachableSet, depth: number): bigint => {
    const { program } = reached;
    const layer = reached.layerOf(reached.parts, depth) ?? NONE;
    return program.diagrams.countOver(layer, program.levelsOf(program.parts));
  };
  for (let depth = 0; depth <= (cut.within ?? 0); depth++)
    expect(countAt(cut, depth)).toBe(countAt(whole, depth));
});

test('64 functions and 40 inputs, each function enabled by others: whole, in little room', () => {
  for (const seed of [1, 2, 3]) {
    const reached = new ReachableSet(fullProgram(seed));
    expect(reached.within).toBeNull();
    // One part alone has more values than numbers can tell apart.
    expect(reached.raw).toBeGreaterThan(2n ** 53n);
    expect(reached.program.diagrams.size).toBeLessThan(1_000_000);
  }
});

test.each([2, 4, 6, 8])(
  'a fault planted %i events deep among 64 functions is found at that depth',
  (depth) => {
    const { programme, fault } = withFault(depth);
    const reached = new ReachableSet(programme);
    const isOn = reached.program.present.isOn(reached.program.wired.rankOf(fault) ?? -1);
    const nearest = reached.nearest(isOn);
    expect(nearest?.depth).toBe(depth);
    expect(replayed(programme, nearest?.events ?? []).on.has(fault)).toBe(true);
  },
);

test('a key that follows takes down counts as its short press', () => {
  const latched = newFunction(
    'lamp',
    'Lamp',
    'light',
    {
      way: 'latched',
      sets: [],
      clears: [],
      toggles: [{ kind: 'press', control: 'key', press: 'short' }],
      timeoutMs: 0,
    },
    [],
  );
  const programme = new ControlProgram(
    [
      { id: 'door', name: 'Door', values: ['shut', 'open'], source: 'vehicle', byHand: false },
      { id: 'key', name: 'Key', values: ['up', 'down'], source: 'panel', byHand: true },
    ],
    {
      ...defaultControls(),
      panels: [],
      functions: [latched],
      enabledBy: null,
      never: [],
      follows: [{ input: 'door', values: ['open'], follower: 'key', takes: 'down' }],
    },
  );
  const opened = step(programme, initialControlState(programme), {
    kind: 'arrives',
    input: 'door',
    value: 'open',
  });
  expect(opened?.state.on).toEqual(new Set(['lamp']));
  const reached = new ReachableSet(programme);
  expect(reached.count).toBe(BigInt(bruteReach(programme).length));
  const isOn = reached.program.present.isOn(0);
  const openAndOn = reached.program.diagrams.and(
    isOn,
    reached.program.holds({ kind: 'is', input: 'door', values: ['open'] }),
  );
  expect(reached.nearest(openAndOn)?.events).toEqual([{ kind: 'arrives', input: 'door', value: 'open' }]);
});
