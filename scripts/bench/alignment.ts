import { lightToward, litChannels } from '@flarik/core/coverage/ring';
import type { State } from '@flarik/core/state/state';
import { bruteWorstDarkMs, perMs } from '@flarik/core/test/reference/bruteTiming';
import { demoBuild } from '@flarik/core/test/reference/demo';
import type { Signal } from '@flarik/core/timing/signal';
import { timelinesOf } from '@flarik/core/timing/timeline';
import { worstDarkMs } from '@flarik/core/timing/worst';
import { timed, medianMs, options } from './kit.ts';

/** The longest dark time over every alignment: three clocks against trying them all; the largest demo build. */
export function alignmentBench() {
  const clock = (onMs: number, restMs: number, cd: number): Signal => ({
    cycleMs: onMs + restMs,
    durationsMs: [onMs, restMs],
    start: [cd, 0],
    end: [cd, 0],
  });
  const light = { background: 5, clocks: [clock(14, 46, 30), clock(12, 52, 35), clock(18, 50, 60)] };
  const fastMs = medianMs(9, () => worstDarkMs(light, 60));
  const slow = timed(() => bruteWorstDarkMs(light.clocks.map(perMs), 5, 60, 400));
  const pumper = demoBuild('tunnel-pumper-3');
  const state: State = { on: ['stage-3'], open: [], ambient: 'day' };
  const lit = litChannels(pumper, state, options);
  const timelines = timelinesOf(lit.map((l) => l.drive));
  const seen = Array.from({ length: 72 }, (_, i) => lightToward(lit, timelines, 5 * i));
  const times = seen.map((toward) => timed(() => worstDarkMs(toward, 40)));
  return {
    what: 'longest dark time over every alignment of three clocks of 60 to 68 ms, against trying them all',
    fastMs,
    bruteMs: slow.ms,
    timesFaster: slow.ms / fastMs,
    equal: worstDarkMs(light, 60).value === slow.result,
    largestBuild: {
      clocks: Math.max(...seen.map((s) => s.clocks.length)),
      slowestDirectionMs: Math.max(...times.map((t) => t.ms)),
      exact: times.every((t) => t.result.exact),
    },
  };
}
