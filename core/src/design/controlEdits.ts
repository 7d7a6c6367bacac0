import { slotsLit } from './cues.ts';
import { functionAt, readOn, shownBy, type Controls, type On } from './controls.ts';
import {
  sameTarget,
  type ControlFunction,
  type Cue,
  type DarkCue,
  type Ink,
  type Shown,
  type Target,
} from './functions.ts';
import type { Build } from './schema.ts';

export const withControls = (build: Build, controls: Partial<Controls>): Build => ({
  ...build,
  controls: { ...build.controls, ...controls },
});

/** Changes what is shown, wherever it is. */
export const changeShows = (build: Build, change: (shown: Shown) => Shown): Build =>
  withControls(build, {
    functions: build.controls.functions.map((fn) => ({ ...fn, shows: fn.shows.map(change) })),
  });

/** What is shown without what speaks to some targets. */
export const withoutTarget = (shown: Shown, gone: (target: Target) => boolean): Shown => ({
  ...shown,
  cues: shown.cues.filter((cue) => !gone(cue.target)),
  dims: shown.dims.flatMap((dim) => {
    const targets = dim.targets.filter((target) => !gone(target));
    return targets.length === 0 ? [] : [{ ...dim, targets }];
  }),
});

export const changeFunction = (
  build: Build,
  id: string,
  patch: Partial<Omit<ControlFunction, 'id'>>,
): Build =>
  withControls(build, {
    functions: build.controls.functions.map((fn) => (fn.id === id ? { ...fn, ...patch } : fn)),
  });

/** Changes what a function shows while it is on. */
export function changeShown(build: Build, on: On, patch: Partial<Shown>): Build {
  const { id, number } = readOn(on);
  const { shows } = functionAt(build, id);
  return changeFunction(build, id, {
    shows: shows.map((shown, i) => (i === number - 1 ? { ...shown, ...patch } : shown)),
  });
}

/**
 * Sets what a target shows in a function; null lets it show nothing. One cue for a target and colour: cues whose
 * colours the new pattern lights itself give way to it.
 */
export function setCue(build: Build, on: On, target: Target, ink: Ink, cue: Cue | null): Build {
  const { cues } = shownBy(build, on);
  const taken = cue === null ? [] : slotsLit(build, cue);
  const others = cues.filter((c) => !(c.show === 'light' && sameTarget(c.target, target) && c.ink === ink));
  const kept =
    cue === null
      ? others
      : others.filter(
          (c) => !sameTarget(c.target, cue.target) || !slotsLit(build, c).some((s) => taken.includes(s)),
        );
  return changeShown(build, on, { cues: cue === null ? kept : [...kept, cue] });
}

/** Sets what a function takes away from a target, before all that it lights there; null takes nothing. */
export function withDark(build: Build, on: On, target: Target, dark: DarkCue | null): Build {
  const others = shownBy(build, on).cues.filter((c) => !(c.show === 'dark' && sameTarget(c.target, target)));
  return changeShown(build, on, { cues: dark === null ? others : [dark, ...others] });
}

/** The share of light that all of a function's cues keep at night; null when they differ or there are none. */
export function nightLevelOf(build: Build, on: On): number | null {
  const levels = new Set(
    shownBy(build, on).cues.flatMap((cue) => (cue.show === 'light' ? [cue.nightLevel] : [])),
  );
  const [only, more] = levels;
  return only === undefined || more !== undefined ? null : only;
}

/** Lets all that a function lights keep the same share at night. */
export const setNightLevel = (build: Build, on: On, nightLevel: number): Build =>
  changeShown(build, on, {
    cues: shownBy(build, on).cues.map((cue) => (cue.show === 'light' ? { ...cue, nightLevel } : cue)),
  });
