import { drivenIn } from '@flarik/core/state/driven';
import { describe, expect, test } from 'vitest';
import { framesOf, LONGEST_FILM_MS, MOST_FRAMES } from './frames';
import { demoBuild } from '@flarik/core/test/reference/demo';

const car = demoBuild('ks-13');

const drives = drivenIn(car, { on: ['stage-2'], ambient: 'day' });

const level = (timeMs: number): string =>
  drives
    .map((d) => {
      const t = timeMs % d.cycleMs;
      return d.spans.some((s) => s.fromMs <= t && t < s.toMs) ? 1 : 0;
    })
    .join('');

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
