import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import type { Build } from '../design/schema.ts';
import { readBuild } from '../rules/document.ts';
import { checkBuild } from '../rules/check.ts';
import { stateWith } from '../state/state.ts';
import { toTheEnd } from '../words/inSteps.ts';
import { Approaches } from './approach.ts';
import { USUAL_APPROACHES } from './usualApproaches.ts';
import { addMore, wouldGain } from './wouldGain.ts';

const stage2 = stateWith({ on: ['stage-2'] });
const fogFrom = (bearingDeg: number) => {
  const found = USUAL_APPROACHES.find(
    (a) => a.weather === 'fog' && a.around === 'day' && a.bearingDeg === bearingDeg,
  );
  if (found === undefined) throw new Error(`nobody comes from ${bearingDeg}°`);
  return found;
};
const seenM = (build: Build, bearingDeg: number): number =>
  new Approaches(build, stage2).result(fogFrom(bearingDeg)).sightings[0].seenM;

describe('what one more pair would gain', () => {
  const truck = demoBuild('line-marking');
  const tried = toTheEnd(wouldGain(truck, stage2, fogFrom(0)));

  test('is what comes of adding it, the most first', () => {
    expect(tried.length).toBeGreaterThan(1);
    const gains = tried.map(({ gainM }) => gainM);
    expect(gains).toEqual(gains.toSorted((a, b) => b - a));
    for (const more of tried) {
      const added = addMore(truck, more, 'more', stage2.on);
      expect(seenM(added, 0) - seenM(truck, 0)).toBeCloseTo(more.gainM, 9);
      expect(added.placements.length - truck.placements.length).toBe(more.pair ? 2 : 1);
    }
  });

  test('stands clear, can be kept, and lights with its neighbours', () => {
    for (const more of tried) {
      const added = addMore(truck, more, 'more', stage2.on);
      expect(readBuild(JSON.parse(JSON.stringify(added)))).toEqual(added);
      const lamp = added.placements.find(({ id }) => id === 'more');
      expect(lamp?.modules.every(({ groupId }) => groupId !== null)).toBe(true);
      const kinds = new Set(checkBuild(added).findings.map(({ kind }) => kind));
      for (const kind of ['overlap', 'misfit', 'off-zone', 'inside']) expect(kinds).not.toContain(kind);
    }
  });

  test('from behind, where the board outshines all, no head is worth it', () => {
    expect(toTheEnd(wouldGain(truck, stage2, fogFrom(180)))).toEqual([]);
  });
});
