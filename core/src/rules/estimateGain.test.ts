import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { addOwn } from '../arrange/vehicleEdits.ts';
import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { footprint, placeFixture } from '../resolve/place.ts';
import { zoneOf } from '../vehicle/vehicle.ts';
import { readBuild } from './document.ts';
import { checkBuild } from './check.ts';
import { stateWith } from '../state/state.ts';
import { runToCompletion } from '../words/inSteps.ts';
import { Approaches } from '../sight/approach.ts';
import { usualApproaches } from '../sight/usualApproaches.ts';
import { LAYOUT_CHECKS } from './layout/layout.ts';
import { addMore, estimateGain } from './estimateGain.ts';

const stage2 = stateWith({ on: ['stage-2'] });
const fogFrom = (bearingDeg: number) => {
  const found = usualApproaches('other').find(
    (a) => a.weather === 'fog' && a.around === 'day' && a.bearingDeg === bearingDeg,
  );
  if (found === undefined) throw new Error(`nobody comes from ${bearingDeg}°`);
  return found;
};
const seenM = (build: Build, bearingDeg: number): number =>
  new Approaches(build, stage2).result(fogFrom(bearingDeg)).sightings[0].seenM;

/** What the layout's checks block or warn about. */
const toldOf = (build: Build): string[] =>
  checkBuild(build)
    .findings.filter(({ severity, kind }) => LAYOUT_KINDS.has(kind) && ['blocks', 'warns'].includes(severity))
    .map(({ sentence }) => sentence);
const placed = (build: Build): Placement => {
  const found = build.placements.find(({ id }) => id === 'more');
  if (found === undefined) throw new Error('nothing was put');
  return found;
};
const LAYOUT_KINDS = new Set(LAYOUT_CHECKS.map(({ kind }) => kind));

const truck = demoBuild('line-marking');

test('what one more pair would gain is what comes of adding it, clear of all else, as far out as there is room', () => {
  const tried = runToCompletion(estimateGain(truck, stage2, fogFrom(0)));
  expect(tried.length).toBeGreaterThan(1);
  const gains = tried.map(({ gainM }) => gainM);
  expect(gains).toEqual(gains.toSorted((a, b) => b - a));
  const lookup = lookupOf(truck);
  for (const more of tried) {
    const added = addMore(truck, more, 'more', stage2.on);
    expect(seenM(added, 0) - seenM(truck, 0)).toBeCloseTo(more.gainM, 9);
    // In the middle it is its own mirror image.
    const isInMiddle = Math.abs(placeFixture(lookup, placed(added), new Set()).base[1]) < 0.01;
    expect(more.pair).toBe(!isInMiddle);
    const count = isInMiddle ? 1 : 2;
    expect(added.placements.length - truck.placements.length).toBe(count);
    expect(more.priceMinor).toBe(lookup.fixture(more.fixtureId).priceMinor * count);
    expect(readBuild(JSON.parse(JSON.stringify(added)))).toEqual(added);
    expect(placed(added).modules.every(({ groupId }) => groupId !== null)).toBe(true);
    expect(toldOf(added)).toEqual(toldOf(truck));
  }
  const room = tried.map(({ fixtureId, zoneId, uM }) => {
    const { widthM } = zoneOf(lookup.vehicle, zoneId);
    return widthM / 2 - footprint(lookup.fixture(fixtureId)).halfU - uM;
  });
  expect(room.filter((m) => m < -1e-9)).toEqual([]);
  expect(room.some((m) => m < 1e-9)).toBe(true);

  // The outermost place gives way to one further in where something must stay clear.
  const [best] = tried;
  if (best === undefined) throw new Error('nothing is gained');
  const [x, y, z] = placeFixture(lookup, placed(addMore(truck, best, 'more', stage2.on)), new Set()).base;
  const kept = addOwn(truck, 'keepOuts', [
    {
      id: 'own-pod',
      name: 'Camera pod',
      kind: 'other',
      from: [x - 0.1, y - 0.03, z - 0.1],
      to: [x + 0.1, y + 0.03, z + 0.1],
    },
  ]);
  const again = runToCompletion(estimateGain(kept, stage2, fogFrom(0)));
  const further = again.find(({ zoneId }) => zoneId === best.zoneId)?.uM ?? NaN;
  expect(further).toBeLessThan(best.uM);
  expect(further).toBeGreaterThan(0);
  for (const more of again) expect(toldOf(addMore(kept, more, 'more', stage2.on))).toEqual(toldOf(kept));
});

test('from behind, where the board outshines all, no head is worth it', () => {
  expect(runToCompletion(estimateGain(truck, stage2, fogFrom(180)))).toEqual([]);
});
