import { bookOf } from '../timing/book.ts';
import { mayFollow } from '../timing/clock.ts';
import { slotsOf } from '../timing/pattern.ts';
import { OWN_CLOCK } from '../timing/step.ts';
import { changeModules } from './moduleEdits.ts';
import type { Build } from './schema.ts';
import { cueFailure, stageAt, type Cue, type Group, type Stage, type StageIndex } from './timing.ts';

const withTiming = (build: Build, timing: Partial<Build['timing']>): Build => ({
  ...build,
  timing: { ...build.timing, ...timing },
});

/** Adds a sync group with a clock of its own. */
export const addGroup = (build: Build, { id, name }: Pick<Group, 'id' | 'name'>): Build =>
  withTiming(build, { groups: [...build.timing.groups, { id, name, ...OWN_CLOCK }] });

/** Changes a group; a clock it cannot follow, or a speed at which its patterns do not run, changes nothing. */
export function changeGroup(build: Build, groupId: string, patch: Partial<Omit<Group, 'id'>>): Build {
  if (!build.timing.groups.some((g) => g.id === groupId)) return build;
  const changed = withTiming(build, {
    groups: build.timing.groups.map((g) => (g.id === groupId ? { ...g, ...patch } : g)),
  });
  return groupFailure(changed, groupId) === null ? changed : build;
}

/** Why a group cannot be as it is; null when it can. */
export function groupFailure(build: Build, groupId: string): string | null {
  const { groups, stages } = build.timing;
  const here = groups.find((g) => g.id === groupId);
  const followed = here?.followsId ?? null;
  if (followed !== null && !mayFollow(groups, groupId, followed)) return 'it would follow itself';
  for (const cue of stages.flatMap((stage) => stage.cues))
    for (const patternId of [cue.patternId, cue.nightPatternId]) {
      const failure = patternId === null ? null : cueFailure(build, cue, patternId);
      if (failure !== null) return failure;
    }
  return null;
}

/** Takes a sync group away: its modules free-run, its cues go, those that followed it run by themselves. */
export function removeGroup(build: Build, groupId: string): Build {
  const refs = build.placements.flatMap((p) =>
    p.modules.filter((m) => m.groupId === groupId).map((m) => ({ placementId: p.id, moduleId: m.id })),
  );
  const freed = changeModules(build, refs, { groupId: null });
  const stages = freed.timing.stages.map((stage) => ({
    ...stage,
    cues: stage.cues.filter((cue) => cue.groupId !== groupId),
  }));
  const left = freed.timing.groups
    .filter((g) => g.id !== groupId)
    .map((g) => (g.followsId === groupId ? { ...g, followsId: null } : g));
  const scene = freed.scene.map((v) => ({ ...v, inStep: v.inStep.filter((t) => t.here !== groupId) }));
  return withTiming({ ...freed, scene }, { groups: left, stages });
}

export const changeStage = (build: Build, index: StageIndex, patch: Partial<Stage>): Build =>
  withTiming(build, {
    stages: build.timing.stages.map((stage, i) => (i === index ? { ...stage, ...patch } : stage)),
  });

/**
 * Sets what a group shows in a stage; null lets it show nothing. One cue for a group and slot: cues whose colours the
 * new pattern lights itself give way to it.
 */
export function setCue(
  build: Build,
  index: StageIndex,
  groupId: string | null,
  slot: Cue['slot'],
  cue: Cue | null,
): Build {
  const stage = stageAt(build, index);
  const others = stage.cues.filter((c) => !(c.groupId === groupId && c.slot === slot));
  const book = bookOf(build);
  const lights = (c: Cue): readonly number[] =>
    book.find(c.patternId) === undefined ? [c.slot] : slotsOf(book.cycle(c.patternId), c.slot);
  const taken = cue === null ? [] : lights(cue);
  const kept =
    cue === null
      ? others
      : others.filter((c) => c.groupId !== cue.groupId || !lights(c).some((s) => taken.includes(s)));
  return changeStage(build, index, { cues: cue === null ? kept : [...kept, cue] });
}
