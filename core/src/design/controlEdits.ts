import { slotsLit } from './cues.ts';
import {
  functionAt,
  readOn,
  effectsOf,
  Controls,
  type ActiveFunction,
  type ControlTest,
} from './controls.ts';
import { inputsOf } from './inputs.ts';
import type { LampSet } from './lampSets.ts';
import { invalidControlReferences } from './invalidControlReferences.ts';
import type { Panel } from './panel.ts';
import {
  sameTarget,
  type ControlFunction,
  type Cue,
  type DarkCue,
  type CueColour,
  type FunctionEffect,
  type Target,
} from './functions.ts';
import type { Build } from './schema.ts';

export const withControls = (build: Build, controls: Partial<Controls>): Build => ({
  ...build,
  controls: { ...build.controls, ...controls },
});

/** Changes what is shown, wherever it is. */
export const changeShows = (build: Build, change: (shown: FunctionEffect) => FunctionEffect): Build =>
  withControls(build, {
    functions: build.controls.functions.map((fn) => ({ ...fn, shows: fn.shows.map(change) })),
  });

/** What is shown without what speaks to some targets. */
export const withoutTarget = (shown: FunctionEffect, gone: (target: Target) => boolean): FunctionEffect => ({
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
export function changeEffect(build: Build, on: ActiveFunction, patch: Partial<FunctionEffect>): Build {
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
export function setCue(
  build: Build,
  on: ActiveFunction,
  target: Target,
  ink: CueColour,
  cue: Cue | null,
): Build {
  const { cues } = effectsOf(build, on);
  const taken = cue === null ? [] : slotsLit(build, cue);
  const others = cues.filter((c) => !(c.show === 'light' && sameTarget(c.target, target) && c.ink === ink));
  const kept =
    cue === null
      ? others
      : others.filter(
          (c) => !sameTarget(c.target, cue.target) || !slotsLit(build, c).some((s) => taken.includes(s)),
        );
  return changeEffect(build, on, { cues: cue === null ? kept : [...kept, cue] });
}

/** Sets what a function takes away from a target, before all that it lights there; null takes nothing. */
export function withDark(build: Build, on: ActiveFunction, target: Target, dark: DarkCue | null): Build {
  const others = effectsOf(build, on).cues.filter(
    (c) => !(c.show === 'dark' && sameTarget(c.target, target)),
  );
  return changeEffect(build, on, { cues: dark === null ? others : [dark, ...others] });
}

/** The share of light that all of a function's cues keep at night; null when they differ or there are none. */
export function nightLevelOf(build: Build, on: ActiveFunction): number | null {
  const levels = new Set(
    effectsOf(build, on).cues.flatMap((cue) => (cue.show === 'light' ? [cue.nightLevel] : [])),
  );
  const [only, more] = levels;
  return only === undefined || more !== undefined ? null : only;
}

/** Lets all that a function lights keep the same share at night. */
export const setNightLevel = (build: Build, on: ActiveFunction, nightLevel: number): Build =>
  changeEffect(build, on, {
    cues: effectsOf(build, on).cues.map((cue) => (cue.show === 'light' ? { ...cue, nightLevel } : cue)),
  });

/**
 * Why the controls of a build cannot be kept, or cannot run; null when they can. People read names, not ids.
 * @param before - has the names of what is gone
 */
export function controlsFailure(build: Build, before: Build = build): string | null {
  const [issue] = Controls.safeParse(build.controls).error?.issues ?? [];
  if (issue !== undefined) return `${String(issue.path.at(-1) ?? 'controls')} ${issue.message}`;
  for (const { path, reason } of invalidControlReferences(build)) {
    const names = new Map([...namesIn(before), ...namesIn(build)]);
    const said = reason.replace(/(function )?'([^']+)'/gu, (quoted, of: string | undefined, id: string) => {
      const name = names.get(`${of ?? ''}${id}`);
      return name === undefined ? quoted : `${of ?? ''}“${name}”`;
    });
    const whose = ownerOf(build, path);
    return whose === null ? said : `“${whose}”: ${said}`;
  }
  return null;
}

/** By id, a function's after that word: what people call the functions, sets, outputs, panels, controls and inputs of a build. */
function namesIn(build: Build): (readonly [string, string])[] {
  const { functions, sets, loads, panels } = build.controls;
  const labelled = panels.flatMap(({ controls }) => controls.filter(({ label }) => label !== ''));
  return [
    ...labelled.map(({ id, label }) => [id, label] as const),
    ...[...sets, ...loads, ...panels, ...inputsOf(build)].map(({ id, name }) => [id, name] as const),
    ...functions.map(({ id, name }) => [`function ${id}`, name] as const),
  ];
}

/** The name of the function, panel or trial that a path into a build leads to; null for another place. */
function ownerOf({ controls }: Build, [, list, at]: readonly PropertyKey[]): string | null {
  if (typeof at !== 'number') return null;
  switch (list) {
    case 'functions':
      return controls.functions[at]?.name ?? null;
    case 'panels':
      return controls.panels[at]?.name ?? null;
    case 'trials':
      return controls.trials[at]?.name ?? null;
    default:
      return null;
  }
}

/** Adds a function; without a rank as the weakest of all. */
export function addFunction(build: Build, fn: ControlFunction, rank?: number): Build {
  const { functions } = build.controls;
  return withControls(build, { functions: functions.toSpliced(rank ?? functions.length, 0, fn) });
}

/**
 * Where a function that is new belongs until somebody says otherwise: below the last signal and the last that takes light
 * away, above all else, so that it masks neither.
 */
export function rankOfNew({ controls: { functions } }: Build): number {
  return functions.findLastIndex(({ kind }) => kind === 'signal' || kind === 'cut') + 1;
}

/** A name that no function has: the one that is asked for, or with the first number that is free. */
export function freeFunctionName({ controls: { functions } }: Build, name: string): string {
  const taken = new Set(functions.map((fn) => fn.name));
  if (!taken.has(name)) return name;
  let number = 2;
  while (taken.has(`${name} ${number}`)) number++;
  return `${name} ${number}`;
}

/** Moves a function to another rank, 0 the strongest. */
export function rankFunction(build: Build, id: string, rank: number): Build {
  const { functions } = build.controls;
  const at = functions.findIndex((fn) => fn.id === id);
  const fn = functions[at];
  const to = Math.min(functions.length - 1, Math.max(0, rank));
  if (fn === undefined || to === at) return build;
  return withControls(build, { functions: functions.toSpliced(at, 1).toSpliced(to, 0, fn) });
}

/** Takes a function away, with the lamps of keys that show it, and out of trials. */
export function removeFunction(build: Build, id: string): Build {
  const { controls } = build;
  const placements = build.placements.map((p) =>
    p.stopsFor.includes(id) ? { ...p, stopsFor: p.stopsFor.filter((signal) => signal !== id) } : p,
  );
  return withControls(
    { ...build, placements },
    {
      functions: controls.functions.filter((fn) => fn.id !== id),
      panels: controls.panels.map((panel) => ({
        ...panel,
        controls: panel.controls.map((c) =>
          c.kind === 'button' && c.lamp?.functionId === id ? { ...c, lamp: null } : c,
        ),
      })),
      trials: controls.trials.map((t) => ({ ...t, on: t.on.filter((on) => readOn(on).id !== id) })),
      oldPanel: controls.oldPanel.map((old) => ({
        ...old,
        functionIds: old.functionIds.filter((fn) => fn !== id),
      })),
    },
  );
}

/** Puts a set in place of the one of its id, or adds it. */
export function putSet(build: Build, set: LampSet): Build {
  const { sets } = build.controls;
  const there = sets.some(({ id }) => id === set.id);
  return withControls(build, {
    sets: there ? sets.map((s) => (s.id === set.id ? set : s)) : [...sets, set],
  });
}

/** Takes a set away, with the cues and dims that speak to it. */
export const removeSet = (build: Build, id: string): Build =>
  changeShows(withControls(build, { sets: build.controls.sets.filter((set) => set.id !== id) }), (shown) =>
    withoutTarget(shown, (target) => target.kind === 'set' && target.setId === id),
  );

/** Puts a panel in place of the one of its id, or adds it. */
export function putPanel(build: Build, panel: Panel): Build {
  const { panels } = build.controls;
  const there = panels.some(({ id }) => id === panel.id);
  return withControls(build, {
    panels: there ? panels.map((p) => (p.id === panel.id ? panel : p)) : [...panels, panel],
  });
}

/** The controls speak only of modules and signals that are there: called after lamps or functions went. */
export function keepControls(build: Build): Build {
  const modules = new Set(build.placements.flatMap((p) => p.modules.map((m) => `${p.id}/${m.id}`)));
  const isThere = (m: { readonly placementId: string; readonly moduleId: string }) =>
    modules.has(`${m.placementId}/${m.moduleId}`);
  const { sets, functions } = build.controls;
  const whole =
    sets.every((set) => set.modules.every(isThere) && set.without.every(isThere)) &&
    functions.every((fn) =>
      fn.shows.every((s) => s.cues.every((c) => c.show === 'dark' || (c.phases ?? []).every(isThere))),
    );
  if (whole) return build;
  return changeShows(
    withControls(build, {
      sets: sets.map((set) => ({
        ...set,
        modules: set.modules.filter(isThere),
        without: set.without.filter(isThere),
      })),
    }),
    (shown) => ({
      ...shown,
      cues: shown.cues.map((cue) =>
        cue.show === 'dark' || cue.phases === null ? cue : { ...cue, phases: cue.phases.filter(isThere) },
      ),
    }),
  );
}

/** Puts a trial in place of the one of its id, or adds it. */
export function saveTest(build: Build, trial: ControlTest): Build {
  const { trials } = build.controls;
  const there = trials.some(({ id }) => id === trial.id);
  return withControls(build, {
    trials: there ? trials.map((t) => (t.id === trial.id ? trial : t)) : [...trials, trial],
  });
}

export const deleteTest = (build: Build, id: string): Build =>
  withControls(build, { trials: build.controls.trials.filter((t) => t.id !== id) });

export const removePanel = (build: Build, id: string): Build =>
  withControls(build, { panels: build.controls.panels.filter((p) => p.id !== id) });
