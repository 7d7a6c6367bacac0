import type { Condition } from '@flarik/core/design/condition';
import { withControls } from '@flarik/core/design/controlEdits';
import type { ControlFunction } from '@flarik/core/design/functions';
import type { Build } from '@flarik/core/design/schema';
import { ProofMemory } from '@flarik/core/proof/memory';
import { prove } from '@flarik/core/proof/prove';
import { ReachableSet } from '@flarik/core/proof/reachable';
import { checkBuild } from '@flarik/core/rules/check';
import { bruteReach } from '@flarik/core/test/reference/bruteReach';
import { demoBuild } from '@flarik/core/test/reference/demo';
import { latches } from '@flarik/core/test/reference/latches';
import { median, onceMs, timed } from './kit.ts';

/** Each edit is made so often; its best time counts, as the machine does other work, too. */
const ROUNDS = 3;

/** The whole proof of a build, and the proof after an edit of one function that remembers it: function by function. */
function afterEdits(name: 'incident-command' | 'shore-medic-7') {
  const build = demoBuild(name);
  const { functions } = build.controls;
  const checked = checkBuild(build);
  const edited = (one: ControlFunction, change: Partial<ControlFunction>): Build =>
    withControls(build, { functions: functions.map((fn) => (fn === one ? { ...fn, ...change } : fn)) });
  const shows = functions.map((fn) =>
    edited(fn, {
      shows: fn.shows.map((shown) => ({
        ...shown,
        cues: shown.cues.map((cue) => (cue.show === 'light' ? { ...cue, level: 0.9 * cue.level } : cue)),
      })),
    }),
  );
  const keyOn: Condition = { kind: 'is', input: 'ignition', values: ['on'] };
  const comesOn = functions.map((fn) => edited(fn, { enabledBy: fn.enabledBy === null ? keyOn : null }));
  const edits = [...shows, ...comesOn];
  const bestMs = edits.map(() => Infinity);
  const wholesMs: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const memory = new ProofMemory();
    wholesMs.push(onceMs(() => prove(build, checked, memory)));
    for (const [i, edit] of edits.entries())
      bestMs[i] = Math.min(
        bestMs[i] ?? Infinity,
        onceMs(() => prove(edit, checked, memory)),
      );
  }
  const spread = (ms: readonly number[]) => ({ medianMs: median(ms), worstMs: Math.max(...ms) });
  return {
    build: name,
    ...prove(build, checked).counts,
    wholeMs: Math.min(...wholesMs),
    afterEditOfWhatAFunctionShows: spread(bestMs.slice(0, shows.length)),
    afterEditOfWhenItIsOn: spread(bestMs.slice(shows.length)),
  };
}

/** Every reachable state, against a plain search over objects; how the time grows; the whole proof of the largest demo build. */
export function proofBench() {
  const small = latches(9);
  const fast = timed(() => new ReachableSet(small).count);
  const plain = timed(() => bruteReach(small).length);
  const growth = [12, 14, 16, 18, 20, 22].map((bits) => {
    const { ms, result } = timed(() => new ReachableSet(latches(bits - 1)));
    return { raw: `2^${bits}`, reachable: String(result.count), ms };
  });
  return {
    what: 'every reachable state of ten variables that hang together, against a plain search over objects; growth; the two largest demo builds: the whole proof, and after edits that remember it',
    fastMs: fast.ms,
    plainMs: plain.ms,
    timesFaster: plain.ms / fast.ms,
    equal: Number(fast.result) === plain.result,
    growth,
    largestBuilds: [afterEdits('incident-command'), afterEdits('shore-medic-7')],
  };
}
