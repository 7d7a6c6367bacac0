import { fixedSet } from '../design/lampSets.ts';
import { describe, expect, test } from 'vitest';
import { emptyBuild, put } from '../../test/reference/places.ts';
import {
  darkCue,
  lightCue,
  newFunction,
  shown,
  type ControlFunction,
  type Cue,
  type FunctionKind,
  type Target,
} from '../design/functions.ts';
import { setColour } from '../arrange/lamps.ts';
import { addFunction, putSet } from '../design/controlEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Build } from '../design/schema.ts';
import { drivenIn } from '../state/driven.ts';
import type { Colour } from '../words/colour.ts';
import { showingOf } from './showing.ts';

const HEAD: Target = { kind: 'set', setId: 'head' };
const ref = [{ placementId: 'a', moduleId: 'm1' }];

/** One head of these colours in a set of its own, in no group. */
function head(...colours: Colour[]): Build {
  const placed = put(emptyBuild(), 'a', { zone: 'grille', fixture: 'perimeter-head-3' });
  const painted = colours.reduce((b, colour, i) => setColour(b, ref, i + 1, colour), placed);
  return putSet(painted, fixedSet('head', 'Head', ref));
}

const fn = (
  id: string,
  kind: FunctionKind,
  cues: Cue[],
  more: Partial<ControlFunction> = {},
): ControlFunction => newFunction(id, id, kind, { way: 'always' }, cues, more);

/** A build with these functions, strongest first. */
const withFunctions = (build: Build, ...functions: ControlFunction[]): Build =>
  functions.reduceRight((b, f) => addFunction(b, f, 0), build);

const light = (ink: Colour | 1 | 2, patternId = 'steady', more = {}): Cue =>
  lightCue(HEAD, ink, patternId, more);

/** What burns: colour and the function that drives it. */
const lit = (build: Build, on: string[], ambient: 'day' | 'night' = 'day'): string[] =>
  drivenIn(build, { on, ambient })
    .filter((d) => d.spans.length > 0)
    .map((d) => `${d.colour} by ${d.on}`)
    .toSorted();

describe('who wins on one head', () => {
  const car = head('red', 'white');

  test('the stronger function takes the whole head, in whatever colour', () => {
    const build = withFunctions(
      car,
      fn('hi', 'light', [light('white')]),
      fn('lo', 'warning', [light('red')]),
    );
    expect(lit(build, ['lo'])).toEqual(['red by lo']);
    expect(lit(build, ['lo', 'hi'])).toEqual(['white by hi']);
  });
  test('one that adds leaves the rest to others, and one at a time burns', () => {
    const build = withFunctions(
      car,
      fn('hi', 'warning', [light('white', 'single', { adds: true })]),
      fn('lo', 'warning', [light('red', 'steady')]),
    );
    expect(lit(build, ['lo', 'hi'])).toEqual(['red by lo', 'white by hi']);
    const times = (on: string) =>
      drivenIn(build, { on: ['hi', 'lo'], ambient: 'day' }).find((d) => d.on === on)?.spans ?? [];
    const white = times('hi');
    for (const r of times('lo'))
      for (const w of white) expect(r.toMs <= w.fromMs || r.fromMs >= w.toMs).toBe(true);
  });
  test('white on a head without white leaves it alone', () => {
    const build = withFunctions(
      head('red'),
      fn('hi', 'light', [light('white')]),
      fn('lo', 'warning', [light('red')]),
    );
    expect(lit(build, ['lo', 'hi'])).toEqual(['red by lo']);
  });
  test('dark takes the head; dark by colour takes that colour and leaves the others', () => {
    const both = [light('red', 'single'), light('white', 'single')];
    const all = withFunctions(car, fn('cut', 'cut', [darkCue(HEAD)]), fn('lo', 'warning', both));
    expect(lit(all, ['lo', 'cut'])).toEqual([]);
    const fog = withFunctions(car, fn('cut', 'cut', [darkCue(HEAD, ['white'])]), fn('lo', 'warning', both));
    expect(lit(fog, ['lo', 'cut'])).toEqual(['red by lo']);
    // What is forbidden stays claimed: a weaker function does not come up in its place.
    const weaker = withFunctions(
      car,
      fn('cut', 'cut', [darkCue(HEAD, ['white'])]),
      fn('hi', 'light', [light('white')]),
      fn('lo', 'warning', [light('red')]),
    );
    expect(lit(weaker, ['lo', 'hi', 'cut'])).toEqual([]);
  });
  test('dark acts on the cues before it in its function, not on those after', () => {
    const before = withFunctions(car, fn('f', 'warning', [light('red'), darkCue(HEAD)]));
    expect(lit(before, ['f'])).toEqual([]);
    const after = withFunctions(car, fn('f', 'warning', [darkCue(HEAD), light('red')]));
    expect(lit(after, ['f'])).toEqual(['red by f']);
  });
  test('of two cues on one colour the last wins', () => {
    const build = withFunctions(car, fn('f', 'warning', [light('red', 'single'), light('red', 'quad')]));
    expect(drivenIn(build, { on: ['f'], ambient: 'day' }).map((d) => d.patternId)).toEqual(['quad']);
  });
  test('a signal ranks above all, wherever it stands in the list', () => {
    const build = withFunctions(
      car,
      fn('hi', 'light', [light('white')]),
      fn('brake', 'signal', [light('red')]),
    );
    expect(lit(build, ['hi', 'brake'])).toEqual(['red by brake']);
  });
  test('a colour that is disabled is claimed by nobody', () => {
    const off = changeModules(car, ref, { disabled: ['white'] });
    const build = withFunctions(
      off,
      fn('hi', 'light', [light('white')]),
      fn('lo', 'warning', [light('red')]),
    );
    expect(lit(build, ['hi', 'lo'])).toEqual(['red by lo']);
  });
  test('why a claim does not light is told', () => {
    const build = withFunctions(
      car,
      fn('hi', 'light', [light('white')]),
      fn('lo', 'warning', [light('red')]),
    );
    const settled = showingOf(build).onModule('a', 'm1', ['hi', 'lo'], 'day');
    expect(settled.map(({ on, lost }) => [on, lost?.because ?? 'lights', lost?.by ?? ''])).toEqual([
      ['hi', 'lights', ''],
      ['lo', 'taken', 'hi'],
    ]);
  });
});

describe('levels', () => {
  const car = head('red', 'white');
  const peak = (build: Build, on: string[], ambient: 'day' | 'night' = 'day') =>
    drivenIn(build, { on, ambient })[0]?.peakCd ?? 0;
  const dimmer = (factor: number, kinds: FunctionKind[] = ['stage', 'warning']) =>
    fn('dim', 'dim', [], { shows: [shown([], { dims: [{ targets: [HEAD, HEAD], factor, kinds }] })] });

  test('a dim reaches a head once, and only the kinds it acts on', () => {
    const build = withFunctions(
      car,
      dimmer(0.4),
      fn('warn', 'warning', [light('red')]),
      fn('see', 'light', [light('white')]),
    );
    expect(peak(build, ['warn', 'dim'])).toBeCloseTo(0.4 * peak(build, ['warn']), 9);
    expect(peak(build, ['see', 'dim'])).toBe(peak(build, ['see']));
  });
  test('a cue may be dimmed whatever its kind, or never', () => {
    const always = withFunctions(
      car,
      dimmer(0.5),
      fn('see', 'light', [light('white', 'steady', { dimmed: true })]),
    );
    expect(peak(always, ['see', 'dim'])).toBeCloseTo(0.5 * peak(always, ['see']), 9);
    const never = withFunctions(
      car,
      dimmer(0.5),
      fn('warn', 'warning', [light('red', 'steady', { dimmed: false })]),
    );
    expect(peak(never, ['warn', 'dim'])).toBe(peak(never, ['warn']));
  });
  test('night levels act on all but signals', () => {
    const cue = light('red', 'steady', { nightLevel: 0.3 });
    const build = withFunctions(car, fn('warn', 'warning', [cue]), fn('brake', 'signal', [cue]));
    expect(peak(build, ['warn'], 'night')).toBeCloseTo(0.3 * peak(build, ['warn']), 9);
    expect(peak(build, ['brake'], 'night')).toBe(peak(build, ['brake']));
  });
});

test('a lamp of the maker’s shows a signal its flasher stops for, and hides one it does not', () => {
  const placed = put(emptyBuild(), 't', { zone: 'tie-tail-left', fixture: 'factory-tail' });
  const set = putSet(
    placed,
    fixedSet('head', 'Tail', [{ placementId: 't', moduleId: placed.placements[0]?.modules[0]?.id ?? '' }]),
  );
  const build = withFunctions(
    set,
    fn('brake', 'signal', [light(1)]),
    fn('flash', 'warning', [light(1, 'single')]),
  );
  const by = (b: Build) => drivenIn(b, { on: ['brake', 'flash'], ambient: 'day' }).map((d) => d.on);
  const stops = (ids: string[]): Build => ({
    ...build,
    placements: build.placements.map((p) => ({ ...p, stopsFor: ids })),
  });
  expect(by(stops(['brake']))).toEqual(['brake']);
  expect(by(stops([]))).toEqual(['flash']);
});
