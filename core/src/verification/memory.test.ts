import { expect, test } from 'vitest';
import { FUNCTION_TEMPLATES } from '../arrange/templates/functionTemplates.ts';
import { withControls } from '../design/controlEdits.ts';
import type { ControlFunction } from '../design/functions.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from '../rules/check.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { VerificationCache } from './memory.ts';
import { verify, type Verification } from './prove.ts';

const car = demoBuild('ks-13');
const van = demoBuild('ks-12');

/** The build with one function put otherwise. */
const changed = (build: Build, id: string, change: (fn: ControlFunction) => ControlFunction): Build =>
  withControls(build, {
    functions: build.controls.functions.map((fn) => (fn.id === id ? change(fn) : fn)),
  });

/** Its light at another level. */
const atLevel = (build: Build, id: string, level: number): Build =>
  changed(build, id, (fn) => ({
    ...fn,
    shows: fn.shows.map((shown) => ({
      ...shown,
      cues: shown.cues.map((cue) => (cue.show === 'light' ? { ...cue, level } : cue)),
    })),
  }));

const ready = (build: Build, id: string): Build =>
  FUNCTION_TEMPLATES.find((one) => one.id === id)?.applyTemplate(build) ?? build;

/** Edits as somebody makes them one after the other, each of the build before it. */
const EDITS: readonly (readonly [string, (build: Build) => Build])[] = [
  ['a name', (b) => changed(b, 'white', (fn) => ({ ...fn, name: 'White ahead' }))],
  ['a level', (b) => atLevel(b, 'stage-3', 0.4)],
  [
    'white at night alone',
    (b) =>
      changed(b, 'white', (fn) => ({
        ...fn,
        enabledBy: { kind: 'is', input: 'ambient', values: ['night'] },
      })),
  ],
  ['a mode', (b) => changed(b, 'stage-3', (fn) => ({ ...fn, mode: 2 }))],
  ['a function laid', (b) => ready(b, 'parade')],
  [
    'the weakest made the strongest',
    (b) =>
      withControls(b, {
        functions: [...b.controls.functions.slice(-1), ...b.controls.functions.slice(0, -1)],
      }),
  ],
  [
    'what stays on with the key off',
    (b) => changed(b, 'white', (fn) => ({ ...fn, when: { way: 'always' }, mayStay: false })),
  ],
  [
    'a function gone',
    (b) => withControls(b, { functions: b.controls.functions.filter(({ id }) => id !== 'parade') }),
  ],
  [
    'a lamp moved',
    (b) => ({
      ...b,
      placements: b.placements.map((p, i) => (i === 0 ? { ...p, panDeg: p.panDeg + 90 } : p)),
    }),
  ],
  [
    'a lamp that is only planned',
    (b) => ({
      ...b,
      placements: b.placements.map((p, i) => (i === 1 ? { ...p, status: 'planned' as const } : p)),
    }),
  ],
  [
    'a rule made harder',
    (b) => ({
      ...b,
      rulePacks: b.rulePacks.map((pack) => ({ ...pack, upperAboveM: pack.upperAboveM + 0.3 })),
    }),
  ],
];

/** What was proved, as it is told. */
const told = (proof: Verification): unknown => JSON.parse(JSON.stringify(proof));

test('edit after edit, on a van with planted mistakes: the proof is the one that remembers nothing', () => {
  const memory = new VerificationCache();
  verify(van, null, memory);
  let build = van;
  for (const [what, edit] of [...EDITS, ['all of it undone', () => van] as const]) {
    build = edit(build);
    const checked = checkBuild(build);
    expect(told(verify(build, checked, memory)), what).toEqual(told(verify(build, checked)));
  }
});

test('what an edit cannot have changed is not judged anew', () => {
  const memory = new VerificationCache();
  verify(car, null, memory);
  const after = memory.judged;
  verify(
    changed(car, 'white', (fn) => ({ ...fn, label: 'WHITE' })),
    null,
    memory,
  );
  expect(memory.judged).toBe(after);
  verify(atLevel(car, 'stage-3', 0.4), null, memory);
  const more = memory.judged;
  expect(more).toBeGreaterThan(after);
  // What is undone was judged before.
  verify(car, null, memory);
  expect(memory.judged).toBe(more);
});
