import { drivenIn } from '../state/driven.ts';
import { describe, expect, test } from 'vitest';
import { loopMs } from './calm.ts';
import { changeFrom } from './changes.ts';
import { demoBuild } from '../../test/reference/demo.ts';

const car = demoBuild('ks-13');

const drives = drivenIn(car, { on: ['stage-2'], ambient: 'day' });

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
