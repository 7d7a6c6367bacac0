import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { bruteReach } from '../../test/reference/bruteReach.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { randomProgramme } from '../../test/reference/randomProgramme.ts';
import { READY_FUNCTIONS } from '../arrange/ready/readyFunctions.ts';
import { programmeOf, type ControlState, type Programme } from '../controls/programme.ts';
import { withControls } from '../design/controlEdits.ts';
import { newFunction } from '../design/functions.ts';
import type { Build } from '../design/schema.ts';
import { aboutOf, type About } from './about.ts';
import { STAYING } from './parts.ts';
import { Machine } from './machine.ts';
import { Numbering } from './numbering.ts';
import { prove } from './prove.ts';
import { reach } from './reach.ts';
import { partsOf, Space } from './space.ts';

const PHASES = ['off', 'waiting', 'on', 'staying'] as const;

/** What is told apart there, by name. */
function variablesOf({ reach: walked, ranks }: About) {
  const { programme } = walked.machine;
  return partsOf(walked, ranks)
    .flatMap((at) => walked.parts[at]?.part.variables ?? [])
    .map((v) => ({
      kind: v.kind,
      id: (v.kind === 'input' ? programme.inputs[v.at]?.id : programme.ranked[v.at]?.id) ?? '',
      at: v.at,
    }));
}

/** Every state that was walked, in words, with how far it is from rest. */
function walkedIn(about: About): Map<string, number> {
  const { reach: walked, space } = about;
  const { inputs } = walked.machine.programme;
  const variables = variablesOf(about);
  const out = new Map<string, number>();
  for (let state = 0; state < space.size; state++) {
    const places = space.placesOf(state);
    const r = walked.machine.blank();
    let depth = 0;
    for (const [i, part] of walked.parts.entries()) {
      new Numbering(part.part).into(part.states[places[i] ?? 0] ?? 0, r);
      depth += part.depths[places[i] ?? 0] ?? 0;
    }
    const words = variables.map(({ kind, at }) =>
      kind === 'input'
        ? inputs[at]?.values[r.values[at] ?? 0]
        : kind === 'memory'
          ? r.memory[at]
          : PHASES[r.phases[at] ?? 0],
    );
    out.set(words.join(' '), depth);
  }
  return out;
}

/** The same of every state of the whole programme, by a plain search: the nearest of those alike. */
function plainIn(programme: Programme, about: About): Map<string, number> {
  const variables = variablesOf(about);
  const wordOf = ({ values, memory, phases }: ControlState, { kind, id }: (typeof variables)[number]) =>
    kind === 'input' ? values.get(id) : kind === 'memory' ? memory.get(id) : phases.get(id);
  const out = new Map<string, number>();
  for (const { state, depth } of bruteReach(programme)) {
    const words = variables.map((v) => wordOf(state, v)).join(' ');
    if (!out.has(words)) out.set(words, depth);
  }
  return out;
}

const sorted = (states: ReadonlyMap<string, number>) => [...states].toSorted(([a], [b]) => (a < b ? -1 : 1));

describe('what some functions depend on, walked without the others', () => {
  test('phases are told in the order of the walk', () => expect(PHASES[STAYING]).toBe('staying'));

  test('every state of it that the whole programme can be in, and no other, each as near', () => {
    fc.assert(
      fc.property(randomProgramme, fc.nat(), fc.nat(), (programme, one, other) => {
        const ids = programme.ranked.map(({ id }) => id);
        const asked = [
          ...new Set([one, other].flatMap((n) => ids.slice(n % ids.length, (n % ids.length) + 1))),
        ];
        const about = aboutOf(programme, asked);
        if (about === null) throw new Error('small programmes fit');
        expect(about.ranks.map((rank) => about.reach.machine.programme.ranked[rank]?.id)).toEqual(asked);
        expect(sorted(walkedIn(about))).toEqual(sorted(plainIn(programme, about)));
      }),
      { numRuns: 120, seed: 5 },
    );
  });

  test('is never larger than the parts of the whole that the same functions depend on', () => {
    fc.assert(
      fc.property(randomProgramme, fc.nat(), (programme, n) => {
        const whole = reach(new Machine(programme));
        const rank = n % programme.ranked.length;
        const about = aboutOf(programme, [programme.ranked[rank]?.id ?? '']);
        const parts = Space.of(whole, partsOf(whole, [rank]));
        expect(about?.space.size).toBeLessThanOrEqual(parts?.size ?? 0);
      }),
      { numRuns: 60, seed: 6 },
    );
  });

  test('a long chain of functions that ask for each other is given up where it is too long', () => {
    const [white] = demoBuild('ks-13').controls.functions.filter(({ id }) => id === 'white');
    const chain = Array.from({ length: 40 }, (_, i) =>
      newFunction(
        `link-${i}`,
        `Link ${i}`,
        'light',
        {
          way: 'latched',
          sets: [],
          clears: [],
          toggles: [{ kind: 'press', control: 'key-white', press: i % 2 === 0 ? 'short' : 'long' }],
          timeoutMs: 10 * i + 10,
        },
        white?.shows[0]?.cues ?? [],
        { enabledBy: i === 0 ? null : { kind: 'on', functionId: `link-${i - 1}` } },
      ),
    );
    const build = withControls(demoBuild('ks-13'), { functions: chain, trials: [] });
    // What is walked about some does not go by what was walked of the whole.
    const whole = reach(new Machine(programmeOf(build)), 10);
    expect(aboutOf(whole.machine.programme, ['link-3'])?.space.size).toBe(48);
    expect(aboutOf(whole.machine.programme, ['link-20'])).toBeNull();
  });

  test('a light by any door and eight keys hang together in 96 096 states; about one key there are few', () => {
    const courtesy = READY_FUNCTIONS.find(({ id }) => id === 'courtesy');
    const build: Build = courtesy?.lay(demoBuild('ks-12')) ?? demoBuild('ks-12');
    const whole = reach(new Machine(programmeOf(build)));
    expect(Math.max(...whole.parts.map(({ count }) => count))).toBe(96_096);
    expect(aboutOf(whole.machine.programme, ['white'])?.space.size).toBeLessThan(100);
    expect(aboutOf(whole.machine.programme, ['nobody'])?.space.size).toBe(1);
    const proof = prove(build);
    expect(proof.outcomes.filter(({ verdict }) => verdict === 'cannot tell')).toEqual([]);
  });
});
