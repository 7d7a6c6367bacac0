import { litChannels, ringOf } from '@flarik/core/coverage/ring';
import { checkBuild } from '@flarik/core/rules/check';
import type { State } from '@flarik/core/state/state';
import { medianMs, build, options, nudged, elsewhere } from './kit.ts';

/** A head is moved: the findings of all states again, with what did not move remembered, against without. */
export function editBench() {
  checkBuild(build);
  const editMs = medianMs(15, (run) => checkBuild(nudged(build, run)));
  const coldMs = medianMs(5, (run) => checkBuild({ ...nudged(build, run), vehicle: elsewhere(100 + run) }));
  const state: State = { on: ['stage-2'], open: [], ambient: 'day' };
  const hereMs = medianMs(15, (run) => {
    const moved = nudged(build, 50 + run);
    return [checkBuild(moved, state), ringOf(litChannels(moved, state, options))];
  });
  return {
    what: 'one head moved: findings over all states; and ring and findings of the state looked at',
    allStatesMs: editMs,
    nothingRememberedMs: coldMs,
    timesFaster: coldMs / editMs,
    thisStateMs: hereMs,
  };
}
