import { SAME_SPEED, timesPercent, type Speed } from './recipes/speed.ts';

/** A clock that may follow another, by its id. */
export interface Follower {
  readonly id: string;
  /** The one it follows; null runs by itself. */
  readonly followsId: string | null;
  readonly speedPercent: number;
  readonly offsetMs: number;
}

/** A group's own time, as its root clock has it. */
export interface GroupTime {
  /** The group at the end of the chain: those with the same one keep step. */
  readonly rootId: string;
  /** Its speed against the root's patterns, an exact fraction. */
  readonly speed: Speed;
  /** It begins so much later than the root, ms. */
  readonly offsetMs: number;
}

/** Follows a group up to the clock it runs on: speeds multiply, offsets add. A chain that bites its tail ends there. */
export function timeOf(groups: readonly Follower[], groupId: string): GroupTime {
  let speed = SAME_SPEED;
  let offsetMs = 0;
  let id = groupId;
  const seen = new Set<string>();
  for (;;) {
    const here = groups.find((g) => g.id === id);
    if (here === undefined || seen.has(id)) return { rootId: id, speed, offsetMs };
    seen.add(id);
    speed = timesPercent(speed, here.speedPercent);
    offsetMs += here.offsetMs;
    if (here.followsId === null) return { rootId: id, speed, offsetMs };
    id = here.followsId;
  }
}

/** Whether a group could follow another without following itself. */
export const mayFollow = (groups: readonly Follower[], groupId: string, followsId: string): boolean => {
  let id: string | null = followsId;
  for (let steps = 0; id !== null && steps <= groups.length; steps++) {
    if (id === groupId) return false;
    const here: Follower | undefined = groups.find((g) => g.id === id);
    id = here?.followsId ?? null;
  }
  return id === null;
};
