import { stagesOf } from '../design/controls.ts';
import { stageId } from '../../test/reference/places.ts';
import { describe, expect, test } from 'vitest';
import type { Drive } from '../resolve/channels.ts';
import { drivenIn } from '../state/driven.ts';
import { stateWith } from '../state/state.ts';
import { commonCycleMs, levelAt } from '../timing/timeline.ts';
import { DEMO_BUILDS, demoBuild } from '../../test/reference/demo.ts';
import { litChannels } from './ring.ts';
import { lightSeen, piecesBetween, seenFrom } from './seen.ts';

const day = (stage: number) => stateWith({ on: [stageId(stage)] });

/** Every clock's highest together, millisecond by millisecond. */
function highestOf(seen: readonly { drive: Drive; cd: number }[]): number {
  const steady = seen.filter((s) => s.drive.steady).reduce((sum, s) => sum + s.cd, 0);
  const flashing = seen.filter((s) => !s.drive.steady);
  return [...new Set(flashing.map((s) => s.drive.clockId))].reduce((sum, clockId) => {
    const mine = flashing.filter((s) => s.drive.clockId === clockId);
    const cycle = commonCycleMs(mine.map((s) => s.drive.cycleMs));
    let most = 0;
    for (let ms = 0; ms < cycle; ms++)
      most = Math.max(
        most,
        mine.reduce((cd, s) => cd + s.cd * levelAt(s.drive, ms), 0),
      );
    return sum + most;
  }, steady);
}

describe('what is seen from a direction', () => {
  test('agrees with the ring’s shares at every thirtieth bearing', () => {
    const build = demoBuild('ks-12');
    const lit = litChannels(build, day(3), {
      elevationDeg: 0,
      colour: null,
      level: 'any',
      upperAboveM: 1.5,
    });
    for (let b = 0; b < 360; b += 30) {
      const seen = seenFrom(build, day(3), { bearingDeg: b, elevationDeg: 0 }, 40);
      const clocks = new Set(
        lit
          .filter(({ drive, share }) => !drive.steady && (share[b] ?? 0) > 0)
          .map(({ drive }) => drive.clockId),
      );
      expect(seen.clocks.map((c) => c.clockId).toSorted()).toEqual([...clocks].toSorted());
      expect(seen.worst.highestCd.value).toBeCloseTo(
        highestOf(lit.map(({ drive, share }) => ({ drive, cd: drive.peakCd * (share[b] ?? 0) }))),
        6,
      );
    }
  });

  test('colours add up to the whole, piece by piece', () => {
    const { whole, colours } = lightSeen(demoBuild('ks-13'), day(3), { bearingDeg: 30, elevationDeg: 0 });
    const at = (light: typeof whole, ms: number): number =>
      piecesBetween(light, ms, ms + 1).reduce((sum, p) => sum + p.start, 0);
    for (let ms = 0; ms < 2000; ms += 37)
      expect(colours.reduce((sum, c) => sum + at(c.light, ms), 0)).toBeCloseTo(at(whole, ms), 6);
  });

  test('every demo build has light in each of its stages, and its figures are finite', () => {
    for (const name of DEMO_BUILDS)
      for (const { id } of stagesOf(demoBuild(name)).filter(({ mode }) => mode !== 0)) {
        const build = demoBuild(name);
        const drives = drivenIn(build, { on: [id], ambient: 'day' });
        expect(drives.filter((d) => d.spans.length > 0).length, `${name} ${id}`).toBeGreaterThan(0);
        const seen = seenFrom(build, stateWith({ on: [id] }), { bearingDeg: 200, elevationDeg: 0 }, 40);
        expect(seen.powerCdsPerMin, `${name} ${id}`).toBeGreaterThan(0);
        expect(seen.worst.effective.value).toBeLessThanOrEqual(seen.worst.highestCd.value + 1e-9);
      }
  });
});
