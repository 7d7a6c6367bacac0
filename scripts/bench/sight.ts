import { changePlacement } from '@flarik/core/arrange/lamps';
import { LampFields } from '@flarik/core/coverage/lampFields';
import { directionMap } from '@flarik/core/coverage/map';
import type { Build } from '@flarik/core/design/schema';
import { Lookup, lookupOf } from '@flarik/core/resolve/lookup';
import { Approaches } from '@flarik/core/sight/approach';
import { groundGrid, planeLx } from '@flarik/core/sight/ground';
import { lightsIn, sourcesOf } from '@flarik/core/sight/source';
import { driverOf, outlineOf, solidsIn } from '@flarik/core/sight/stations';
import { usualApproaches } from '@flarik/core/sight/usualApproaches';
import { veilOf } from '@flarik/core/sight/veil';
import type { State } from '@flarik/core/state/state';
import { demoBuild } from '@flarik/core/test/reference/demo';
import { plainSeenM } from '@flarik/core/test/reference/plainSight';
import { timed, medianMs } from './kit.ts';

/** What eyes, ground and air get of the light of the pumper, against plain sums; nothing known before. */
export function sightBench() {
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
    return usualApproaches('other').map((one) => approaches.result(one));
  };
  const tableMs = medianMs(3, (run) => table(fresh(run)));
  const [first] = usualApproaches('other').filter(({ id }) => id === 'behind-fog-day');
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
