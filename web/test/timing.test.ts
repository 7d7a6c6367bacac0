import { channelsNear } from '@flarik/core/coverage/near';
import { lightSeen, piecesBetween } from '@flarik/core/coverage/seen';
import { drivenIn } from '@flarik/core/state/driven';
import { darkIn } from '@flarik/core/timing/signal';
import { describe, expect, test } from 'vitest';
import { loopMs } from '@flarik/core/timing/calm';
import { changeFrom } from '@flarik/core/timing/changes';
import { framesOf, LONGEST_FILM_MS, MOST_FRAMES } from '../src/lib/night/frames';
import { glowsAt } from '../src/lib/night/glow';
import { AIR, eyePoint } from '../src/lib/night/stage';
import { outlineOf } from '../src/lib/timing/plots';
import { thresholdIn } from '@flarik/core/rules/threshold';
import { TimeWindow } from '../src/lib/timing/window.svelte';
import { demoBuild } from './support';

const car = demoBuild('ks-13');
const drives = drivenIn(car, { stage: 2, ambient: 'day' });
const level = (timeMs: number): string =>
  drives
    .map((d) => {
      const t = timeMs % d.cycleMs;
      return d.spans.some((s) => s.fromMs <= t && t < s.toMs) ? 1 : 0;
    })
    .join('');

describe('stepping through the changes of light', () => {
  test('forward and back lead to the same times; between two of them nothing changes', () => {
    const first = changeFrom(drives, 0, 1);
    const second = changeFrom(drives, first, 1);
    expect(changeFrom(drives, second, -1)).toBe(first);
    expect(changeFrom(drives, first, -1)).toBe(0);
    for (let t = first; t < second; t++) expect(level(t)).toBe(level(first));
    expect(level(second)).not.toBe(level(first));
  });

  test('over the end of the loop it begins again; what does not flash stays', () => {
    expect(changeFrom(drives, 0, -1)).toBeGreaterThan(loopMs(drives) / 2);
    expect(changeFrom([], 250, 1)).toBe(250);
  });
});

describe('the calm loop', () => {
  test('has a picture for every change, each as long as it stands, in hundredths of a second', () => {
    const frames = framesOf(drives, 10);
    expect(frames[0]?.timeMs).toBe(0);
    expect(frames.length).toBeLessThanOrEqual(MOST_FRAMES);
    for (const [i, { timeMs, showMs }] of frames.entries()) {
      expect(showMs % 10).toBe(0);
      const next = frames[i + 1];
      if (next === undefined) continue;
      expect(showMs).toBe(Math.round(next.timeMs - timeMs) * 10);
      for (let t = timeMs; t < next.timeMs; t++) expect(level(t)).toBe(level(timeMs));
    }
    expect(frames.at(-1)?.timeMs).toBeLessThan(LONGEST_FILM_MS);
  });
});

describe('lights as an eye sees them', () => {
  const state = { stage: 2, open: [], ambient: 'night' } as const;
  const near = channelsNear(car, state, eyePoint({ bearingDeg: 0, distanceM: 20, heightM: 1.5 }));
  const sizes = (air: (typeof AIR)[keyof typeof AIR]) =>
    new Map(glowsAt(near, null, air).map((g) => [g.at.join(), g.decades]));

  test('ten times the illuminance over the threshold is one step more, and day and fog leave less', () => {
    const [night, day, fog] = [sizes(AIR.night), sizes(AIR.day), sizes(AIR.fog)];
    expect(night.size).toBeGreaterThan(5);
    expect(day.size).toBeLessThanOrEqual(night.size);
    for (const [at, decades] of day) expect(night.get(at) ?? 0).toBeGreaterThan(decades);
    for (const [at, decades] of fog) expect(night.get(at) ?? 0).toBeGreaterThan(decades);
    const [one] = near.filter(({ cd }) => cd > 100);
    if (one === undefined) throw new Error('a lamp is seen');
    const [a, b] = [one, { ...one, cd: one.cd * 10 }].map(
      (c) => glowsAt([c], null, AIR.night)[0]?.decades ?? 0,
    );
    expect((b ?? 0) - (a ?? 0)).toBeCloseTo(1, 9);
  });

  test('what is dark at a moment, or turned away, is not drawn', () => {
    const back = channelsNear(car, state, eyePoint({ bearingDeg: 180, distanceM: 20, heightM: 1.5 }));
    const grille = (list: typeof near) => list.filter(({ drive }) => drive.placementId === 'grille-1');
    expect(glowsAt(grille(back), null, AIR.night)).toEqual([]);
    const lit = glowsAt(near, 0, AIR.night).length;
    expect(lit).toBeLessThan(glowsAt(near, null, AIR.night).length);
  });
});

describe('the stretch of time on the screen', () => {
  test('zooms about a time, which stays where it is, from 10 ms to 10 s', () => {
    const time = new TimeWindow();
    time.fromMs = 1000;
    time.zoom(-1, 2250);
    expect([time.fromMs, time.widthMs]).toEqual([1750, 1000]);
    for (let i = 0; i < 20; i++) time.zoom(-1, 2250);
    expect(time.widthMs).toBe(10);
    expect(time.snapMs).toBe(1);
    for (let i = 0; i < 20; i++) time.zoom(1, 0);
    expect([time.fromMs, time.widthMs, time.snapMs]).toEqual([0, 10_000, 10]);
  });

  test('turns the page for a time that is not on it, and has round ticks', () => {
    const time = new TimeWindow();
    time.follow(2400);
    expect(time.fromMs).toBe(0);
    time.follow(2600);
    expect(time.fromMs).toBe(2500);
    expect(time.ticks[0]).toBe(2500);
    expect(time.ticks.length).toBeLessThanOrEqual(13);
  });
});

describe('what is drawn below the score', () => {
  test('pieces follow each other over the stretch, and the dark ones are those below the threshold', () => {
    const { whole } = lightSeen(
      car,
      { stage: 2, open: [], ambient: 'day' },
      { bearingDeg: 20, elevationDeg: 0 },
    );
    const pieces = piecesBetween(whole, 130, 1930);
    expect(pieces[0]?.fromMs).toBe(130);
    expect(pieces.at(-1)?.toMs).toBe(1930);
    for (const [i, p] of pieces.entries()) if (i > 0) expect(p.fromMs).toBe(pieces[i - 1]?.toMs);
    const threshold = thresholdIn(car, 2);
    const dark = darkIn(pieces, threshold).reduce((sum, gap) => sum + gap.ms, 0);
    const counted = pieces.filter((p) => p.start < threshold).reduce((sum, p) => sum + p.toMs - p.fromMs, 0);
    expect(dark).toBeCloseTo(counted, 9);
  });

  test('an outline goes along the pieces, and down to nothing when it is filled', () => {
    const pieces = [
      { fromMs: 0, toMs: 10, start: 1, end: 1 },
      { fromMs: 10, toMs: 20, start: 3, end: 2 },
    ];
    const same = (v: number): number => v;
    expect(outlineOf(pieces, same, same, false)).toBe('M0.0 1.0L10.0 1.0L10.0 3.0L20.0 2.0');
    expect(outlineOf(pieces, same, same, true)).toBe('M0.0 0.0L0.0 1.0L10.0 1.0L10.0 3.0L20.0 2.0L20.0 0.0Z');
    expect(outlineOf([], same, same, true)).toBe('');
  });
});
