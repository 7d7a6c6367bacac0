import { litChannels, ringOf } from '@flarik/core/coverage/ring';
import type { State } from '@flarik/core/state/state';
import { bruteRing } from '@flarik/core/test/reference/bruteRing';
import { timed, medianMs, largest, build, options, elsewhere } from './kit.ts';

/** One ring, everything worked out afresh, against counting it all out. */
export function ringBench() {
  const state: State = { on: ['stage-3'], open: ['hatch'], ambient: 'day' };
  const fresh = (run: number) => ringOf(litChannels({ ...build, vehicle: elsewhere(run) }, state, options));
  const fastMs = medianMs(9, fresh);
  const slow = timed(() => bruteRing(build, state, 0));
  const fast = ringOf(litChannels(build, state, options));
  return {
    what: 'ring of stage 3, hatch open, 360 bearings, nothing known before',
    fastMs,
    bruteMs: slow.ms,
    timesFaster: slow.ms / fastMs,
    largestRelativeDifference: Math.max(
      largest(fast.effectiveCd, slow.result.effectiveCd),
      largest(fast.powerCdsPerMin, slow.result.powerCdsPerMin),
    ),
  };
}
