import { stageId } from '../../test/reference/places.ts';
import { describe, expect, test } from 'vitest';
import { drivenIn } from '../state/driven.ts';
import { calmSlowdown, loopMs } from './calm.ts';
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
});
