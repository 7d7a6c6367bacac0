import { isTimed, type ControlState, type ControlProgram } from '../controls/program.ts';
import { isTiming, step } from '../controls/step.ts';
import type { ControlFunction } from '../design/functions.ts';

/** Whether something comes about by itself in time; what takes too long to look through is not known. */
export type Comes = 'in time' | 'late' | 'unknown';

/** No more steps are followed from one state, and from all. */
const MOST_FROM_ONE = 2_000;
const MOST_STEPS = 300_000;

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
 * @param isSo - of a state
 */
export function comesWithin(
  programme: ControlProgram,
  limitMs: number,
  isSo: (state: ControlState) => boolean,
): (from: ControlState) => Comes {
  const timers = programme.ranked.filter(
    ({ when }) => isTimed(when) || ((when.way === 'latched' || when.way === 'cycle') && when.timeoutMs > 0),
  );
  let allSteps = 0;
  return (from) => {
    let steps = 0;
    const follow = (state: ControlState, dues: readonly (Due | null)[]): Comes => {
      if (isSo(state)) return 'in time';
      if (++steps > MOST_FROM_ONE || ++allSteps > MOST_STEPS) return 'unknown';
      // Whichever ends first, it does so before the one that must.
      const latestMs = Math.min(...dues.map((due) => due?.latestMs ?? Infinity));
      if (latestMs > limitMs) return 'late';
      let comes: Comes = 'in time';
      for (const [i, due] of dues.entries()) {
        const timer = timers[i];
        if (due === null || timer === undefined || due.soonestMs > latestMs) continue;
        const after = step(programme, state, { kind: 'ends', functionId: timer.id })?.state ?? state;
        const dueAfter = (fn: ControlFunction, t: number): Due | null => {
          const setMs = runsMs(fn, after);
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
      timers.map((fn) => {
        const setMs = runsMs(fn, from);
        return setMs === null ? null : { soonestMs: 0, latestMs: setMs };
      }),
    );
  };
}

/** The set time of a timer that runs; null where it does not. */
function runsMs(fn: ControlFunction, state: ControlState): number | null {
  if (!isTiming(state, fn)) return null;
  const { when } = fn;
  switch (when.way) {
    case 'always':
      return null;
    case 'while':
      return state.phases.get(fn.id) === 'waiting' ? when.afterMs : when.staysMs;
    case 'latched':
    case 'cycle':
      return when.timeoutMs;
  }
}
