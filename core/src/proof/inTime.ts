import { isTimed } from '../controls/programme.ts';
import type { ControlFunction } from '../design/functions.ts';
import type { Machine, Registers } from './machine.ts';
import { isResting, WAITING, type MachineEvent, type Part } from './parts.ts';
import type { Reach } from './reach.ts';

/** Whether something comes about by itself in time; what takes too long to look through is not known. */
export type Comes = 'in time' | 'late' | 'unknown';

/** No more steps are followed from one state, and from all. */
const MOST_FROM_ONE = 2_000;
const MOST_STEPS = 3_000_000;

interface Timer {
  readonly part: Part;
  readonly event: MachineEvent;
  readonly rank: number;
  readonly fn: ControlFunction;
}

/** When a timer that runs ends, counted from the state that was begun with: no sooner and no later, ms. */
interface Due {
  readonly soonestMs: number;
  readonly latestMs: number;
}

/**
 * Whether something is so, from a state on, within a time and with no other event than timers that end. A timer that runs in
 * that state may have any rest of its set time left; one that an end starts runs its whole time.
 *
 * @param limitMs - from the state on
 * @param isSo - of settled registers
 */
export function comesWithin(
  { machine, parts }: Reach,
  limitMs: number,
  isSo: (r: Registers) => boolean,
): (r: Registers) => Comes {
  const timers = parts.flatMap(({ part }) =>
    part.events.flatMap((event): Timer[] => {
      const fn = event.ends === null ? undefined : machine.programme.ranked[event.ends];
      return event.ends === null || fn === undefined ? [] : [{ part, event, rank: event.ends, fn }];
    }),
  );
  let allSteps = 0;
  return (from) => {
    let steps = 0;
    const follow = (r: Registers, dues: readonly (Due | null)[]): Comes => {
      if (isSo(r)) return 'in time';
      if (++steps > MOST_FROM_ONE || ++allSteps > MOST_STEPS) return 'unknown';
      // Whichever ends first, it does so before the one that must.
      const latestMs = Math.min(...dues.map((due) => due?.latestMs ?? Infinity));
      if (latestMs > limitMs) return 'late';
      let comes: Comes = 'in time';
      for (const [i, due] of dues.entries()) {
        if (due === null || due.soonestMs > latestMs) continue;
        const after = afterEnd(machine, timers, r, i);
        const dueAfter = (timer: Timer, t: number): Due | null => {
          const setMs = runsMs(timer, after);
          if (setMs === null) return null;
          return dues[t] ?? { soonestMs: due.soonestMs + setMs, latestMs: latestMs + setMs };
        };
        const then = follow(after, timers.map(dueAfter));
        if (then === 'late') return 'late';
        if (then === 'unknown') comes = 'unknown';
      }
      return comes;
    };
    return follow(
      from,
      timers.map((timer) => {
        const setMs = runsMs(timer, from);
        return setMs === null ? null : { soonestMs: 0, latestMs: setMs };
      }),
    );
  };
}

/** The set time of a timer that runs; null where it does not. */
function runsMs({ fn: { when }, rank }: Timer, { memory, phases }: Registers): number | null {
  if (isTimed(when)) {
    const phase = phases[rank] ?? 0;
    return isResting(phase) ? null : phase === WAITING ? when.afterMs : when.staysMs;
  }
  const remembers = when.way === 'latched' || when.way === 'cycle';
  return remembers && when.timeoutMs > 0 && memory[rank] !== 0 ? when.timeoutMs : null;
}

function afterEnd(machine: Machine, timers: readonly Timer[], r: Registers, i: number): Registers {
  const after = {
    values: r.values.slice(),
    memory: r.memory.slice(),
    phases: r.phases.slice(),
    on: r.on.slice(),
  };
  const timer = timers[i];
  if (timer === undefined) return after;
  machine.take(timer.part, after, timer.event);
  machine.judge(machine.wired.inOrder, after);
  return after;
}
