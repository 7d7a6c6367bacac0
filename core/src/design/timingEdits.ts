import { mayFollow } from '../timing/clock.ts';
import { OWN_CLOCK } from '../timing/step.ts';
import { changeModules } from './moduleEdits.ts';
import type { Build } from './schema.ts';
import { changeShows, withoutTarget } from './controlEdits.ts';
import { cuesFailure } from './cues.ts';
import type { Target } from './functions.ts';
import type { Group } from './timing.ts';

const withTiming = (build: Build, timing: Partial<Build['timing']>): Build => ({
  ...build,
  timing: { ...build.timing, ...timing },
});

/** Adds a sync group, with a clock of its own unless it is said which it follows. */
export const addGroup = (
  build: Build,
  { id, name, followsId = null }: Pick<Group, 'id' | 'name'> & Partial<Pick<Group, 'followsId'>>,
): Build => withTiming(build, { groups: [...build.timing.groups, { id, name, ...OWN_CLOCK, followsId }] });

/** Adds a sync group on the clock of those that are there: that of the first; the first of all has its own. */
export function addGroupInStep(build: Build, group: Pick<Group, 'id' | 'name'>): Build {
  const [first] = build.timing.groups;
  return addGroup(build, { ...group, followsId: first === undefined ? null : (first.followsId ?? first.id) });
}

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
  const { groups } = build.timing;
  const here = groups.find((g) => g.id === groupId);
  const followed = here?.followsId ?? null;
  if (followed !== null && !mayFollow(groups, groupId, followed)) return 'it would follow itself';
  return cuesFailure(build);
}

/** Takes a sync group away: its modules free-run, its cues go, those that followed it run by themselves. */
export function removeGroup(build: Build, groupId: string): Build {
  const refs = build.placements.flatMap((p) =>
    p.modules.filter((m) => m.groupId === groupId).map((m) => ({ placementId: p.id, moduleId: m.id })),
  );
  const freed = changeModules(build, refs, { groupId: null });
  const left = freed.timing.groups
    .filter((g) => g.id !== groupId)
    .map((g) => (g.followsId === groupId ? { ...g, followsId: null } : g));
  const scene = freed.scene.map((v) => ({ ...v, inStep: v.inStep.filter((t) => t.here !== groupId) }));
  const spoken = (target: Target) => target.kind === 'group' && target.groupId === groupId;
  return changeShows(withTiming({ ...freed, scene }, { groups: left }), (s) => withoutTarget(s, spoken));
}
