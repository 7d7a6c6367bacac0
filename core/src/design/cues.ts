import { bookOf } from '../timing/book.ts';
import { timeOf } from '../timing/clock.ts';
import { PATTERNS } from '../timing/library.ts';
import { slotsOf } from '../timing/pattern.ts';
import { atSpeed, SAME_SPEED, type Speed } from '../timing/recipes/speed.ts';
import type { Slot } from '../timing/span.ts';
import type { BuildParts } from './parts.ts';
import type { Cue, LightCue, Target } from './functions.ts';
import { failureOf } from './timing.ts';

/** What cues are looked up in. */
type Cued = Pick<BuildParts, 'timing' | 'controls' | 'placements'>;

/** Every cue of a build that lights, whatever function it stands in. */
export const lightCuesOf = ({ controls }: Pick<Cued, 'controls'>): LightCue[] =>
  controls.functions
    .flatMap((fn) => fn.shows.flatMap(({ cues }) => cues))
    .filter((cue) => cue.show === 'light');

/** The groups that a target's modules may be in; null for modules in none. A set by rule may come to take any module. */
export function groupsOf(build: Cued, target: Target): (string | null)[] {
  switch (target.kind) {
    case 'group':
      return [target.groupId];
    case 'ungrouped':
      return [null];
    case 'set': {
      const set = build.controls.sets.find(({ id }) => id === target.setId);
      const names = new Set(set?.modules.map((m) => `${m.placementId}/${m.moduleId}`));
      const isByRule = set !== undefined && set.rule !== null;
      const groups = build.placements.flatMap((p) =>
        p.modules.filter((m) => isByRule || names.has(`${p.id}/${m.id}`)).map((m) => m.groupId),
      );
      return [...new Set(groups)];
    }
  }
}

/** The speed of a group's clock; of modules in no group, that of the patterns as they are made. */
export const speedOf = ({ timing }: Pick<Cued, 'timing'>, groupId: string | null): Speed =>
  groupId === null ? SAME_SPEED : timeOf(timing.groups, groupId).speed;

/** Why a cue cannot show a pattern; null when it can. */
export function cueFailure(build: Cued, target: Target, patternId: string): string | null {
  const book = bookOf(build);
  if (book.find(patternId) === undefined)
    return `no pattern '${patternId}'; known are ${[...PATTERNS, ...book.own].map((p) => p.id).join(', ')}`;
  const known = new Set(build.timing.groups.map((g) => g.id));
  for (const groupId of groupsOf(build, target)) {
    if (groupId !== null && !known.has(groupId)) continue;
    const failure = failureOf(() => atSpeed(book.cycle(patternId), speedOf(build, groupId)));
    if (failure !== null) return failure;
  }
  return null;
}

/** Why some cue of a build cannot be worked out; null when all can. */
export function cuesFailure(build: Cued): string | null {
  for (const cue of lightCuesOf(build))
    for (const patternId of [cue.patternId, cue.nightPatternId]) {
      const failure = patternId === null ? null : cueFailure(build, cue.target, patternId);
      if (failure !== null) return failure;
    }
  return null;
}

/** The colour slots a cue lights, where that does not depend on the module. */
export function slotsLit(build: Pick<Cued, 'timing'>, cue: Cue): readonly Slot[] {
  if (cue.show === 'dark' || typeof cue.ink === 'string') return [];
  const book = bookOf(build);
  return book.find(cue.patternId) === undefined ? [cue.ink] : slotsOf(book.cycle(cue.patternId), cue.ink);
}
