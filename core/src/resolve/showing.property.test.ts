import { fixedSet } from '../design/lampSets.ts';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { bruteShown } from '../../test/reference/bruteShown.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { setColour } from '../arrange/lamps.ts';
import {
  FUNCTION_KINDS,
  groupTarget,
  lightCue,
  newFunction,
  shown,
  type Cue,
  type Dim,
  type CueColour,
  type Target,
} from '../design/functions.ts';
import { putSet, withControls } from '../design/controlEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Build } from '../design/schema.ts';
import { addGroup } from '../design/timingEdits.ts';
import { drivenIn } from '../state/driven.ts';
import { levelAt } from '../timing/timeline.ts';
import { lookupOf } from './lookup.ts';

/** Three heads of several colours, two of them in a group, with two sets that overlap. */
function heads(atOnce: 1 | 2, sharedPower: boolean): Build {
  const zones = { a: 'grille', b: 'rear-bumper', c: 'sill-left' } as const;
  const placed = Object.entries(zones).reduce(
    (b, [id, zone]) => put(b, id, { zone, fixture: 'perimeter-head-3' }),
    emptyBuild(),
  );
  const colours = { a: ['red', 'white'], b: ['red', 'blue', 'white'], c: ['amber'] } as const;
  const painted = Object.entries(colours).reduce(
    (b, [placementId, list]) =>
      list.reduce<Build>((c, colour, i) => setColour(c, [{ placementId, moduleId: 'm1' }], i + 1, colour), b),
    placed,
  );
  const refs = (...ids: string[]) => ids.map((placementId) => ({ placementId, moduleId: 'm1' }));
  const grouped = changeModules(addGroup(painted, { id: 'g', name: 'G' }), refs('a', 'b'), { groupId: 'g' });
  const phased = changeModules(grouped, refs('b'), { phase: 'B', disabled: ['blue'] });
  const sets = putSet(putSet(phased, fixedSet('s', 'S', refs('a', 'c'))), fixedSet('t', 'T', refs('b', 'c')));
  return atOnce === 1 && !sharedPower ? sets : withHead(sets, atOnce, sharedPower);
}

/** The heads as a fixture of the build's own, which may burn several colours. */
function withHead(build: Build, coloursAtOnce: 1 | 2, sharedPower: boolean): Build {
  const own = { ...lookupOf(build).fixture('perimeter-head-3'), id: 'own-head', coloursAtOnce, sharedPower };
  return {
    ...build,
    fixtures: [own],
    placements: build.placements.map((p) => ({ ...p, fixtureId: 'own-head' })),
  };
}

const TARGETS: readonly Target[] = [
  groupTarget('g'),
  groupTarget(null),
  { kind: 'set', setId: 's' },
  { kind: 'set', setId: 't' },
];
const target = fc.constantFrom(...TARGETS);
const PATTERNS = ['steady', 'single', 'double', 'slow-alternate', 'colour-change', 'burn-single'];
const cue: fc.Arbitrary<Cue> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc
      .record({
        target,
        ink: fc.constantFrom<CueColour>(1, 2, 3, 'red', 'white', 'amber', 'blue'),
        patternId: fc.constantFrom(...PATTERNS),
        nightPatternId: fc.option(fc.constantFrom(...PATTERNS)),
        level: fc.constantFrom(0.3, 1),
        nightLevel: fc.constantFrom(0.5, 1),
        adds: fc.boolean(),
        dimmed: fc.option(fc.boolean()),
      })
      .map(({ target: t, ink, patternId, ...more }) => lightCue(t, ink, patternId, more)),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      show: fc.constant('dark' as const),
      target,
      colours: fc.constantFrom<('red' | 'white')[]>([], ['white'], ['red', 'white']),
      adds: fc.boolean(),
    }),
  },
);
const dim: fc.Arbitrary<Dim> = fc.record({
  targets: fc.array(target, { minLength: 1, maxLength: 2 }),
  factor: fc.constantFrom(0.25, 0.5),
  kinds: fc.constantFrom<Dim['kinds']>(['stage', 'warning'], ['light', 'signal']),
});
const functions = fc.array(
  fc.record({
    kind: fc.constantFrom(...FUNCTION_KINDS),
    cues: fc.array(cue, { maxLength: 4 }),
    dims: fc.array(dim, { maxLength: 1 }),
    on: fc.boolean(),
  }),
  { minLength: 1, maxLength: 5 },
);

test('random programmes show what walking the functions one by one says, at any instant', () => {
  fc.assert(
    fc.property(
      functions,
      fc.constantFrom('day' as const, 'night' as const),
      fc.constantFrom<readonly [1 | 2, boolean]>([1, false], [2, false], [2, true]),
      fc.array(fc.integer({ min: 0, max: 4999 }), { minLength: 12, maxLength: 12 }),
      (list, ambient, [atOnce, sharedPower], times) => {
        const build = withControls(heads(atOnce, sharedPower), {
          functions: list.map(({ kind, cues, dims }, i) =>
            newFunction(`f${i}`, `F${i}`, kind, { way: 'always' }, [], { shows: [shown(cues, { dims })] }),
          ),
        });
        const ons = list.flatMap(({ on }, i) => (on ? [`f${i}`] : []));
        const drives = drivenIn(build, { on: ons, ambient });
        for (const p of build.placements)
          for (const m of p.modules)
            for (const timeMs of times) {
              const mine = drives.filter((d) => d.placementId === p.id && d.moduleId === m.id);
              const fast = mine
                .map((d): [number, number] => [d.slot, levelAt(d, timeMs) * d.peakCd])
                .filter(([, cd]) => cd > 0);
              const slow = bruteShown(build, p, m, ons, ambient, timeMs);
              expect(fast.length, `${p.id} at ${timeMs}`).toBe(slow.size);
              for (const [slot, cd] of fast) expect(cd).toBeCloseTo(slow.get(slot) ?? -1, 6);
            }
      },
    ),
    { numRuns: 300, seed: 53 },
  );
});
