import { stageId } from '../../test/reference/places.ts';
import { describe, expect, test } from 'vitest';
import { drivenIn } from '../state/driven.ts';
import { calmSlowdown, loopMs } from './calm.ts';
import type { ScheduledPattern } from './timeline.ts';
import { demoBuild } from '../../test/reference/demo.ts';

describe('the calm preview', () => {
  test.each([1, 2, 3] as const)('in stage %i no more than two flashes begin in any second', (stage) => {
    const drives = drivenIn(demoBuild('ks-12'), { on: [stageId(stage)], ambient: 'day' });
    const slower = calmSlowdown(drives);
    const onsets = new Set(
      drives
        .filter((d) => !d.steady)
        .flatMap((d) =>
          Array.from({ length: (2 * loopMs(drives)) / d.cycleMs }, (_, i) => i * d.cycleMs).flatMap((start) =>
            d.spans.map((s) => (start + s.fromMs) * slower),
          ),
        ),
    );
    const times = [...onsets].toSorted((a, b) => a - b);
    for (const t of times)
      expect(times.filter((u) => u >= t && u < t + 999.999).length).toBeLessThanOrEqual(2);
  });

  test('what does not flash is not slowed', () => {
    expect(calmSlowdown([])).toBe(1);
    expect(calmSlowdown(drivenIn(demoBuild('ks-12'), { on: ['off'], ambient: 'day' }))).toBe(1);
  });

  const played = (cycleMs: number, from: readonly number[], steady = false): ScheduledPattern => ({
    channelId: `${cycleMs} ${from.join()}`,
    clockId: String(cycleMs),
    cycleMs,
    spans: from.map((fromMs) => ({ fromMs, toMs: fromMs + 50, level: 1 })),
    steady,
  });

  test('it begins again when all do, without what is steady, and after two minutes at most', () => {
    expect(loopMs([])).toBe(1000);
    expect(loopMs([played(900, [0]), played(600, [0])])).toBe(1800);
    expect(loopMs([played(900, [0]), played(700, [0], true)])).toBe(900);
    expect(loopMs([played(799, [0]), played(797, [0])])).toBe(120_000);
  });

  test('by hand: the three flashes that follow each other quickest are spread over a second', () => {
    // One flash each 800 ms is two in 1600: calm as it is. Each 400 ms, the third begins 800 after the first.
    expect(calmSlowdown([played(800, [0])])).toBe(1);
    expect(calmSlowdown([played(400, [0])])).toBeCloseTo(1000 / 800, 12);
    expect(calmSlowdown([played(1000, [0, 100, 300])])).toBeCloseTo(1000 / 300, 12);
    // Over the end of the loop: 900, 1000 and 1050.
    expect(calmSlowdown([played(1000, [0, 50, 900])])).toBeCloseTo(1000 / 150, 12);
    // Two at the same moment are one flash of the picture; what is steady begins none.
    expect(calmSlowdown([played(800, [0]), played(1600, [800]), played(400, [100], true)])).toBe(1);
    expect(calmSlowdown([played(800, [0]), played(800, [200])])).toBeCloseTo(1000 / 800, 12);
  });
});
