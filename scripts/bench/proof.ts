import { FUNCTION_TEMPLATES } from '@flarik/core/arrange/templates/functionTemplates';
import { compileProgram } from '@flarik/core/controls/program';
import type { Condition } from '@flarik/core/design/condition';
import { withControls } from '@flarik/core/design/controlEdits';
import type { ControlFunction } from '@flarik/core/design/functions';
import type { Build } from '@flarik/core/design/schema';
import { VerificationCache } from '@flarik/core/verification/memory';
import { countsOf, verify } from '@flarik/core/verification/prove';
import { ReachableSet } from '@flarik/core/verification/reachable';
import { checkBuild } from '@flarik/core/rules/check';
import { bruteReach } from '@flarik/core/test/reference/bruteReach';
import { demoBuild, DEMO_BUILDS } from '@flarik/core/test/reference/demo';
import { fullProgram } from '@flarik/core/test/reference/fullProgramme';
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
    const memory = new VerificationCache();
    wholesMs.push(onceMs(() => verify(build, checked, memory)));
    for (const [i, edit] of edits.entries())
      bestMs[i] = Math.min(
        bestMs[i] ?? Infinity,
        onceMs(() => verify(edit, checked, memory)),
      );
  }
  const spread = (ms: readonly number[]) => ({ medianMs: median(ms), worstMs: Math.max(...ms) });
  return {
    build: name,
    ...verify(build, checked).counts,
    wholeMs: Math.min(...wholesMs),
    afterEditOfWhatAFunctionShows: spread(bestMs.slice(0, shows.length)),
    afterEditOfWhenItIsOn: spread(bestMs.slice(shows.length)),
  };
}

/** A demo build with every ready function laid on it that fits. */
const withAllReady = (name: 'ks-13' | 'line-marking'): Build =>
  FUNCTION_TEMPLATES.reduce(
    (build, ready) => (ready.misfit(build) === null ? ready.applyTemplate(build) : build),
    demoBuild(name),
  );

/** The whole proof of a vehicle that has far more functions than one is built with. */
function fullVehicle(name: 'ks-13' | 'line-marking') {
  const build = withAllReady(name);
  const checked = checkBuild(build);
  const { ms, result } = timed(() => verify(build, checked));
  const undecided = result.outcomes.filter(({ verdict }) => verdict === 'cannot tell').length;
  const { functions } = build.controls;
  return {
    build: name,
    lamps: build.placements.length,
    functions: functions.length,
    ms,
    undecided,
    ...result.counts,
  };
}

/** Counts, against a plain search over objects; full programs; demo builds; the whole proof, also after an edit. */
export function proofBench() {
  const small = latches(13);
  const fast = timed(() => new ReachableSet(small).count);
  const plain = timed(() => bruteReach(small).length);
  const demo = DEMO_BUILDS.map((name) => {
    const programme = compileProgram(demoBuild(name));
    return timed(() => countsOf(new ReachableSet(programme))).ms;
  });
  const full = Array.from({ length: 20 }, (_, seed) => {
    const programme = fullProgram(seed + 1);
    const { ms, result } = timed(() => new ReachableSet(programme));
    return { ms, nodes: result.program.diagrams.size, isWhole: result.within === null };
  });
  return {
    what: 'every reachable state of 14 variables that hang together, against a plain search over objects; counts and output states of the demo builds; 20 programs of 64 functions and 40 inputs; two vehicles with every ready function; the two largest demo builds, also after edits that remember them',
    fastMs: fast.ms,
    plainMs: plain.ms,
    timesFaster: plain.ms / fast.ms,
    equal: Number(fast.result) === plain.result,
    demoBuilds: { medianMs: median(demo), worstMs: Math.max(...demo) },
    fullPrograms: {
      medianMs: median(full.map(({ ms }) => ms)),
      worstMs: Math.max(...full.map(({ ms }) => ms)),
      mostNodes: Math.max(...full.map(({ nodes }) => nodes)),
      whole: full.filter(({ isWhole }) => isWhole).length,
    },
    fullVehicles: [fullVehicle('ks-13'), fullVehicle('line-marking')],
    largestBuilds: [afterEdits('incident-command'), afterEdits('shore-medic-7')],
  };
}
