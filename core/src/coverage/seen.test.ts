import { stagesOf } from '../design/controls.ts';
import { changeEffect } from '../design/controlEdits.ts';
import { lightCue, shown } from '../design/functions.ts';
import { emptyBuild, put, stageId } from '../../test/reference/places.ts';
import { describe, expect, test } from 'vitest';
import type { Drive } from '../resolve/channels.ts';
import { drivenIn } from '../state/driven.ts';
import { stateWith } from '../state/state.ts';
import { commonCycleMs, levelAt } from '../timing/timeline.ts';
import { DEMO_BUILDS, demoBuild } from '../../test/reference/demo.ts';
import { litChannels } from './ring.ts';
import type { Signal } from '../timing/signal.ts';
import { allTogether, lightSeen, piecesBetween, seenFrom } from './seen.ts';

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

describe('a stretch of time in pieces', () => {
  /** Two flashes and a ramp, on clocks that do not meet. */
  const steps: Signal = { cycleMs: 500, durationsMs: [100, 150, 250], start: [8, 0, 3], end: [8, 0, 3] };
  const ramp: Signal = { cycleMs: 700, durationsMs: [300, 400], start: [0, 5], end: [6, 5] };
  const light = { background: 2, clocks: [steps, ramp] };
  /** Read off by itself: which piece of its cycle a time lies in, and how far. */
  const at = ({ cycleMs, durationsMs, start, end }: Signal, ms: number): number => {
    let rest = ms % cycleMs;
    for (const [i, long] of durationsMs.entries()) {
      if (rest < long) return (start[i] ?? 0) + ((end[i] ?? 0) - (start[i] ?? 0)) * (rest / long);
      rest -= long;
    }
    return NaN;
  };

  test.each([
    [0, 1000],
    [130, 1470],
    [499, 501],
    [701, 702],
    [3333, 8000],
  ])('from %d to %d ms: one after the other, and at every moment what the clocks give', (from, to) => {
    const pieces = piecesBetween(light, from, to);
    expect(pieces[0]?.fromMs).toBe(from);
    expect(pieces.at(-1)?.toMs).toBe(to);
    for (const [i, piece] of pieces.entries()) {
      expect(piece.toMs).toBeGreaterThan(piece.fromMs);
      expect(pieces[i + 1]?.fromMs ?? to).toBe(piece.toMs);
      for (let ms = piece.fromMs; ms < piece.toMs; ms += 7) {
        const share = (ms - piece.fromMs) / (piece.toMs - piece.fromMs);
        expect(piece.start + (piece.end - piece.start) * share).toBeCloseTo(
          2 + at(steps, ms) + at(ramp, ms),
          9,
        );
      }
    }
    // It is cut where some clock changes, and nowhere else.
    const changes = [0, 100, 250].flatMap((edge) => cutsOf(edge, 500, from, to));
    const all = new Set([...changes, ...[0, 300].flatMap((edge) => cutsOf(edge, 700, from, to))]);
    expect(pieces).toHaveLength(all.size + 1);
  });
  const cutsOf = (edge: number, cycleMs: number, from: number, to: number): number[] =>
    Array.from({ length: Math.ceil(to / cycleMs) + 1 }, (_, k) => edge + k * cycleMs).filter(
      (ms) => ms > from && ms < to,
    );

  test('light without a clock is the same all the time', () => {
    const steady = allTogether({ background: 4, clocks: [] });
    expect([...Array.from(steady.start), ...Array.from(steady.end)]).toEqual([4, 4]);
    expect(steady.durationsMs).toEqual([steady.cycleMs]);
    expect(piecesBetween({ background: 4, clocks: [] }, 5, 25)).toEqual([
      { fromMs: 5, toMs: 25, start: 4, end: 4 },
    ]);
    const one = allTogether({ background: 2, clocks: [steps] });
    expect(one.cycleMs).toBe(500);
    expect([0, 100, 250].map((ms) => at(one, ms))).toEqual([10, 2, 5]);
  });
});

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

test('light that burns steadily gives 60 s of its intensity a minute', () => {
  const lamp = put(emptyBuild(), 'a', { zone: 'grille' });
  const steady = changeEffect(lamp, stageId(2), shown([lightCue({ kind: 'ungrouped' }, 1, 'steady')]));
  const seen = seenFrom(steady, day(2), { bearingDeg: 0, elevationDeg: 0 }, 40);
  expect(seen.steadyCd).toBeGreaterThan(100);
  expect(seen.powerCdsPerMin).toBeCloseTo(60 * seen.steadyCd, 6);
});
