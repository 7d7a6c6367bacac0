import { z } from 'zod';
import { bookOf } from '../timing/book.ts';
import { timeOf } from '../timing/clock.ts';
import { PATTERNS } from '../timing/library.ts';
import { Pattern } from '../timing/pattern.ts';
import { atSpeed, SAME_SPEED, SPEED_PERCENT } from '../timing/recipes/speed.ts';
import { Slot } from '../timing/span.ts';
import { Clock } from '../timing/step.ts';
import type { Ambient } from '../words/ambient.ts';
import { Id, Name } from '../words/names.ts';
import { within } from '../words/numbers.ts';

/** How much later something begins than what it belongs to, ms. */
export const OffsetMs = z
  .int('must be whole milliseconds')
  .min(0, 'must be at least 0')
  .max(60_000, 'must be at most 60000');

/** A build has no more sync groups, and a stage no more cues. */
export const MOST_GROUPS = 32;
export const MOST_CUES = 64;

/** Modules that share one clock. */
export const Group = z.strictObject({
  id: Id,
  name: Name,
  /** The group whose clock it runs on; null has one of its own. */
  followsId: Id.nullable(),
  /** Its speed against that group's, or against the patterns as they are made, %. */
  speedPercent: z
    .int('must be a whole percentage')
    .min(SPEED_PERCENT.min, `must be at least ${SPEED_PERCENT.min}`)
    .max(SPEED_PERCENT.max, `must be at most ${SPEED_PERCENT.max}`),
  /** It begins so much later, ms. */
  offsetMs: OffsetMs,
  /** What its clock reaches: heads that cannot follow it run free. */
  clock: Clock,
  /** A head that runs free in it is a fault, not a remark. */
  mustKeepStep: z.boolean(),
});
export type Group = z.infer<typeof Group>;

/** In a stage: what a group shows. `groupId` null speaks to all modules in no group. */
export const Cue = z.strictObject({
  groupId: Id.nullable(),
  patternId: Id,
  /** Shown instead at night; null shows the same. */
  nightPatternId: Id.nullable(),
  slot: Slot,
  level: within(0.05, 1),
});
export type Cue = z.infer<typeof Cue>;

export const Stage = z.strictObject({
  name: Name,
  cues: z.array(Cue).max(MOST_CUES),
  /** Everything is dimmed to this share when ambient is night. */
  nightLevel: within(0.05, 1),
});
export type Stage = z.infer<typeof Stage>;

/** A stage by its place in the list; 0 is Off. */
export const StageIndex = z.int('must be a whole number').min(0, 'must be at least 0');
export type StageIndex = z.infer<typeof StageIndex>;

export const Timing = z.strictObject({
  /** The build's own patterns, beside the library. */
  patterns: z.array(Pattern).max(100, 'must be at most 100 own patterns'),
  groups: z.array(Group).max(MOST_GROUPS),
  /** Off, then the stages in order of urgency. */
  stages: z.array(Stage).length(4, 'must hold Off and three stages'),
});
export type Timing = z.infer<typeof Timing>;

/** What holds timing, such as a build. */
interface Timed {
  readonly timing: Timing;
}

/** Every stage of a build, Off first. */
export const stagesOf = ({ timing }: Timed): readonly StageIndex[] => timing.stages.map((_, i) => i);

/**
 * A stage of a build.
 * @throws {RangeError} it has no such stage
 */
export function stageAt({ timing: { stages } }: Timed, index: StageIndex): Stage {
  const stage = stages[index];
  if (stage === undefined) throw new RangeError(`no stage ${index}; there are 0 to ${stages.length - 1}`);
  return stage;
}

/** The pattern a cue shows by day, or by night where it names another for it. */
export const patternShown = (cue: Cue, ambient: Ambient): string =>
  ambient === 'night' ? (cue.nightPatternId ?? cue.patternId) : cue.patternId;

/** Why a cue cannot show a pattern; null when it can. */
export function cueFailure(build: Timed, cue: Pick<Cue, 'groupId'>, patternId: string): string | null {
  const book = bookOf(build);
  if (book.find(patternId) === undefined)
    return `no pattern '${patternId}'; known are ${[...PATTERNS, ...book.own].map((p) => p.id).join(', ')}`;
  const speed = cue.groupId === null ? SAME_SPEED : timeOf(build.timing.groups, cue.groupId).speed;
  return failureOf(() => atSpeed(book.cycle(patternId), speed));
}

/** What work that may leave its limits complains of; null when it does not. */
export function failureOf(work: () => unknown): string | null {
  try {
    work();
    return null;
  } catch (error) {
    if (error instanceof RangeError) return error.message;
    throw error;
  }
}
