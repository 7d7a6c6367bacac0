/** npm run bench: each figure beside a plain reference in the same run, as JSON. Nothing is asserted but equality. */
import { bruteShown } from '@flarik/core/test/reference/bruteShown';
import { Programme, programmeOf } from '@flarik/core/controls/programme';
import { withControls } from '@flarik/core/design/controlEdits';
import { newFunction, type ControlFunction } from '@flarik/core/design/functions';
import { usualControls } from '@flarik/core/design/usualControls';
import { Machine } from '@flarik/core/proof/machine';
import { ProofMemory } from '@flarik/core/proof/memory';
import { prove } from '@flarik/core/proof/prove';
import { reach } from '@flarik/core/proof/reach';
import { bruteReach } from '@flarik/core/test/reference/bruteReach';
import { atRest, step } from '@flarik/core/controls/step';
import type { Condition, InputEvent } from '@flarik/core/design/condition';
import { drivenIn } from '@flarik/core/state/driven';
import { changePlacement } from '@flarik/core/arrange/lamps';
import { Lookup, lookupOf } from '@flarik/core/resolve/lookup';
import { placeModules } from '@flarik/core/resolve/place';
import type { Build } from '@flarik/core/design/schema';
import type { State } from '@flarik/core/state/state';
import { LampFields } from '@flarik/core/coverage/lampFields';
import { lightToward, litChannels, ringOf, type RingOptions } from '@flarik/core/coverage/ring';
import { relativeIntensity } from '@flarik/core/fixture/distribution';
import { directionOf } from '@flarik/core/geometry/direction';
import { anglesInFrame } from '@flarik/core/geometry/frame';
import { transmissionAlong } from '@flarik/core/geometry/ray';
import { checkBuild } from '@flarik/core/rules/check';
import { bruteRing } from '@flarik/core/test/reference/bruteRing';
import { demoBuild } from '@flarik/core/test/reference/demo';
import { bruteWorstDarkMs, perMs } from '@flarik/core/test/reference/bruteTiming';
import { timelinesOf } from '@flarik/core/timing/timeline';
import type { Signal } from '@flarik/core/timing/signal';
import { worstDarkMs } from '@flarik/core/timing/worst';
import { posedSolids } from '@flarik/core/vehicle/vehicle';
import { directionMap } from '@flarik/core/coverage/map';
import { Approaches } from '@flarik/core/sight/approach';
import { groundGrid, planeLx } from '@flarik/core/sight/ground';
import { lightsIn, sourcesOf } from '@flarik/core/sight/source';
import { driverOf, outlineOf, solidsIn } from '@flarik/core/sight/stations';
import { USUAL_APPROACHES } from '@flarik/core/sight/usualApproaches';
import { veilOf } from '@flarik/core/sight/veil';
import { outsideShares } from './benchOutside.ts';
import { plainHousings } from '@flarik/core/test/reference/plainHousings';
import { plainSeenM } from '@flarik/core/test/reference/plainSight';

const SHUT: ReadonlySet<string> = new Set();
const build = demoBuild('ks-12');
const lookup = lookupOf(build);
const { vehicle } = lookup;
const options: RingOptions = { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 };

function median(values: readonly number[]): number {
  return values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}

function timed<T>(work: () => T): { ms: number; result: T } {
  const start = performance.now();
  const result = work();
  return { ms: performance.now() - start, result };
}

/** The median of several runs, after two that warm up. */
function medianMs(runs: number, work: (run: number) => unknown): number {
  work(-1);
  work(-2);
  return median(Array.from({ length: runs }, (_, run) => timed(() => work(run)).ms));
}

const largest = (a: Float64Array, b: Float64Array): number =>
  a.reduce((worst, value, i) => Math.max(worst, Math.abs(value - (b[i] ?? 0)) / (1 + Math.abs(value))), 0);

/** The build with one head moved, so that nothing of it is known from before. */
const nudged = (b: Build, run: number): Build => changePlacement(b, 'grille', { uM: 0.3 + (run + 3) * 1e-4 });

/** One ring, everything worked out afresh, against counting it all out. */
function ringBench() {
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

/** The same vehicle but for a micrometre, so that its fields are not known. */
function elsewhere(run: number): Build['vehicle'] {
  const { dimensions } = build.vehicle;
  return {
    ...build.vehicle,
    dimensions: { ...dimensions, lengthM: (dimensions.lengthM ?? 0) + (run + 3) * 1e-6 },
  };
}

/** Every module at 360 bearings × 31 elevations with occlusion, against clipping every ray at every solid. */
function coverageBench() {
  const elevations = Array.from({ length: 31 }, (_, i) => i * 2 - 30);
  const fast = () => {
    const fields = new LampFields(new Lookup(build), build.placements);
    for (const p of build.placements) fields.prepare(p, [], elevations);
    return build.placements.map((p) => elevations.map((e) => fields.of(p, [], e)));
  };
  const fastMs = medianMs(3, fast);
  const solids = posedSolids(vehicle, SHUT);
  const behind = plainHousings(lookup, build.placements, SHUT);
  const slow = timed(() =>
    build.placements.map((p) =>
      elevations.map((e) =>
        placeModules(lookup, p, SHUT).map(({ module, centre, frame }) =>
          Float64Array.from({ length: 360 }, (_, b) => {
            const direction = directionOf(b, e);
            const { hDeg, vDeg } = anglesInFrame(frame, direction);
            if (behind(p.id, centre, direction)) return 0;
            return (
              relativeIntensity(module.distribution, hDeg, vDeg) *
              p.lensTransmission *
              transmissionAlong(solids, centre, direction)
            );
          }),
        ),
      ),
    ),
  );
  const found = fast();
  const apart = (other: readonly (readonly (readonly Float64Array[])[])[]): Float64Array[] =>
    found.flatMap((byElevation, p) =>
      byElevation.flatMap((modules, e) =>
        modules.map((m, i) => m.share.map((share, b) => Math.abs(share - (other[p]?.[e]?.[i]?.[b] ?? 0)))),
      ),
    );
  const most = (of: readonly Float64Array[]): number =>
    of.reduce((worst, values) => values.reduce((a, b) => Math.max(a, b), worst), 0);
  const outside = timed(() => outsideShares(build, elevations));
  const { rays, shares } = outside.result;
  const unlike = apart(shares).reduce((sum, values) => sum + values.filter((v) => v > 1e-9).length, 0);
  return {
    what: `all ${build.placements.flatMap((p) => p.modules).length} modules, body and housings, 360 × 31 directions, ${vehicle.solids.length} solids`,
    fastMs,
    bruteMs: slow.ms,
    timesFaster: slow.ms / fastMs,
    largestDifference: most(apart(slow.result)),
    outside: {
      by: 'three-mesh-bvh, everything shut',
      ms: outside.ms,
      rays,
      timesFaster: outside.ms / fastMs,
      raysUnlike: unlike,
    },
  };
}

/** A head is moved: the findings of all states again, with what did not move remembered, against without. */
function editBench() {
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

/** The longest dark time over every alignment: three clocks against trying them all; the largest demo build. */
function alignmentBench() {
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

/** Controls of the largest demo build: one event, and what then shows, against walking the functions module by module. */
function controlsBench() {
  const pumper = demoBuild('tunnel-pumper-3');
  const programme = programmeOf(pumper);
  const events = programme.inputs.flatMap(({ id, values }) =>
    values.map((value): InputEvent => ({ kind: 'arrives', input: id, value })),
  );
  const start = atRest(programme);
  const rounds = 40;
  const steps = timed(() => {
    let state = start;
    for (let i = 0; i < rounds * events.length; i++) {
      const event = events[(i * 7) % events.length];
      if (event !== undefined) state = step(programme, state, event)?.state ?? state;
    }
    return state;
  });
  const ids = pumper.controls.functions.map((fn) => fn.id);
  const pictures = Array.from({ length: 400 }, (_, n) =>
    ids.filter((_id, i) => ((n * 2654435761) >>> (i + 3)) % 2 === 1),
  );
  const cold = timed(() => drivenIn(pumper, { on: ids, ambient: 'day' }));
  const shown = timed(() => pictures.map((on) => drivenIn(pumper, { on, ambient: 'day' }).length));
  const plain = timed(() =>
    pictures
      .slice(0, 20)
      .map((on) =>
        pumper.placements.map((p) => p.modules.map((m) => bruteShown(pumper, p, m, on, 'day', 0).size)),
      ),
  );
  const shownMs = shown.ms / pictures.length;
  return {
    what: 'one event of the pumper’s controls; what its modules show then; the same walked module by module, at one instant',
    stepMs: steps.ms / (rounds * events.length),
    everyFunctionFirstMs: cold.ms,
    shownMs,
    plainMs: plain.ms / 20,
    timesFaster: plain.ms / 20 / shownMs,
  };
}

/** Latched functions under one key, each with a button of its own: `2 ** (count + 1)` raw states that hang together. */
function latches(count: number): Programme {
  const functions = Array.from({ length: count }, (_, i) =>
    newFunction(
      `f${i}`,
      `F${i}`,
      'warning',
      {
        way: 'latched',
        sets: [],
        clears: [],
        toggles: [{ kind: 'press', control: `k${i}`, press: 'short' }],
        timeoutMs: 0,
      },
      [],
    ),
  );
  const ignition = {
    id: 'ignition',
    name: 'Ignition',
    values: ['off', 'on'],
    source: 'vehicle',
    byHand: true,
  } as const;
  return new Programme([ignition], {
    ...usualControls(),
    panels: [],
    functions,
    enabledBy: { kind: 'is', input: 'ignition', values: ['on'] },
  });
}

/** Every reachable state, against a plain search over objects; how the time grows; the whole proof of the largest demo build. */
function proofBench() {
  const small = latches(9);
  const fast = timed(() => reach(new Machine(small)).count);
  const plain = timed(() => bruteReach(small).length);
  const growth = [12, 14, 16, 18, 20, 22].map((bits) => {
    const { ms, result } = timed(() => reach(new Machine(latches(bits - 1)), 2 ** 22 + 1));
    return { raw: `2^${bits}`, reachable: String(result.count), ms };
  });
  return {
    what: 'every reachable state of ten variables that hang together, against a plain search over objects; growth; the whole proof of Incident command',
    fastMs: fast.ms,
    plainMs: plain.ms,
    timesFaster: plain.ms / fast.ms,
    equal: Number(fast.result) === plain.result,
    growth,
    largestBuilds: [afterEdits('incident-command'), afterEdits('shore-medic-7')],
  };
}

/** The whole proof of a build, and the proof after an edit of one function that remembers it: function by function. */
function afterEdits(name: 'incident-command' | 'shore-medic-7') {
  const build = demoBuild(name);
  const { functions } = build.controls;
  const checked = checkBuild(build);
  const memory = new ProofMemory();
  const first = onceMs(() => prove(build, checked, memory));
  const edited = (one: ControlFunction, change: Partial<ControlFunction>): number => {
    const edit = withControls(build, {
      functions: functions.map((fn) => (fn === one ? { ...fn, ...change } : fn)),
    });
    return onceMs(() => prove(edit, checked, memory));
  };
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
  const again = onceMs(() => prove(build, checked));
  const spread = (ms: readonly number[]) => ({
    medianMs: ms.toSorted((a, b) => a - b)[Math.floor(ms.length / 2)] ?? 0,
    worstMs: Math.max(...ms),
  });
  return {
    build: name,
    ...prove(build, checked, memory).counts,
    wholeMs: first,
    wholeOnceMoreMs: again,
    afterEditOfWhatAFunctionShows: spread(shows),
    afterEditOfWhenItIsOn: spread(comesOn),
  };
}

function onceMs(run: () => unknown): number {
  const from = performance.now();
  run();
  return performance.now() - from;
}

/** What eyes, ground and air get of the light of the pumper, against plain sums; nothing known before. */
function sightBench() {
  const pumper = demoBuild('tunnel-pumper-3');
  const fresh = (run: number): Build => changePlacement(pumper, 'brow-1', { uM: 0.1 + (run + 3) * 1e-4 });
  const on = ['scene-light', 'stage-2'];
  const state: State = { on, open: [], ambient: 'day' };
  const all = <R>(run: Generator<unknown, R>): R => {
    for (;;) {
      const step = run.next();
      if (step.done === true) return step.value;
    }
  };
  const table = (b: Build) => {
    const approaches = new Approaches(b, state);
    return USUAL_APPROACHES.map((one) => approaches.result(one));
  };
  const tableMs = medianMs(3, (run) => table(fresh(run)));
  const [first] = USUAL_APPROACHES.filter(({ id }) => id === 'behind-fog-day');
  if (first === undefined) throw new Error('fog by day from behind is usual');
  const plain = timed(() => plainSeenM(pumper, state, first, 'normal'));
  const one = timed(() => new Approaches(fresh(99), state).result(first).sightings[0].seenM);
  const { vehicle: body } = lookupOf(pumper);
  const outline = outlineOf(body);
  const workLights = (b: Build) => sourcesOf(lightsIn(b, state), 'steady');
  const ground = (b: Build) => all(groundGrid(workLights(b), outline, { stepM: 0.25, beyondM: 15 }));
  const groundMs = medianMs(7, (run) => ground(fresh(run)));
  const lamps = workLights(pumper);
  const { fromX, fromY, stepM, columns, rows, lx } = ground(pumper);
  const plainGrid = timed(() =>
    Float64Array.from(lx, (_, i) =>
      planeLx(lamps, [fromX + (i % columns) * stepM, fromY + Math.floor(i / columns) * stepM, 0]),
    ),
  );
  const driver = driverOf(body, pumper.traffic);
  if (driver === null) throw new Error('the pumper has a seat');
  const veilMs = medianMs(7, (run) =>
    veilOf(lightsIn(fresh(run), state), solidsIn(body, []), driver.eye, 80),
  );
  const options = { colour: null, level: 'any', upperAboveM: 1.5 } as const;
  const mapMs = medianMs(7, (run) => all(directionMap(fresh(run), state, options, 'power')));
  const everywhere = Array.from({ length: 91 }, (_, i) => i * 2 - 90);
  const sphereMs = medianMs(7, (run) => {
    const b = fresh(run);
    const fields = new LampFields(new Lookup(b), b.placements);
    for (const p of b.placements) fields.prepare(p, [], everywhere);
  });
  return {
    what: 'the pumper in stage 2 with scene light, one lamp moved each time, nothing of it known before: the map; the whole sphere of all its modules, 1° × 2°; 60 approaches for 3 observers; one approach against a plain walk; ground against plain sums; fog',
    mapMs,
    sphereMs,
    approachTableMs: tableMs,
    oneApproachMs: one.ms,
    plainApproachMs: plain.ms,
    apartM: Math.abs(one.result - plain.result),
    groundMs,
    plainGroundMs: plainGrid.ms,
    groundPoints: columns * rows,
    largestGroundDifferenceLx: plainGrid.result.reduce(
      (worst, v, i) => Math.max(worst, Math.abs(v - (lx[i] ?? 0))),
      0,
    ),
    veilMs,
  };
}

const report = {
  node: process.version,
  build: build.name,
  ring: ringBench(),
  coverage: coverageBench(),
  edit: editBench(),
  alignment: alignmentBench(),
  controls: controlsBench(),
  proof: proofBench(),
  sight: sightBench(),
};
process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
