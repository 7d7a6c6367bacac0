import { CYCLE_MS, type Cycle } from '../pattern.ts';

export const SPEED_PERCENT = { min: 10, max: 400 } as const;
/** No span or cycle is made shorter than this, ms. */
const SHORTEST_MS = 10;

/**
 * A cycle at another speed, its edges rounded to whole milliseconds.
 * @param speed - 1 as it is, 0.5 half as fast
 * @throws {RangeError} the cycle or a span would leave its limits
 */
export function atSpeed(cycle: Cycle, speed: number): Cycle {
  if (speed === 1) return cycle;
  const ms = (before: number): number => Math.round(before / speed);
  const cycleMs = ms(cycle.cycleMs);
  const percent = Math.round(speed * 100);
  if (cycleMs < CYCLE_MS.min || cycleMs > CYCLE_MS.max)
    throw new RangeError(
      `at ${percent} % speed a cycle of ${cycle.cycleMs} ms becomes ${cycleMs} ms; ${CYCLE_MS.min} to ${CYCLE_MS.max} ms are allowed`,
    );
  const lines = cycle.lines.map((spans) =>
    spans.map((s) => ({ ...s, fromMs: ms(s.fromMs), toMs: ms(s.toMs) })),
  );
  const shortest = lines.flat().find((s) => s.toMs - s.fromMs < SHORTEST_MS);
  if (shortest !== undefined && speed > 1)
    throw new RangeError(`at ${percent} % speed a flash becomes shorter than ${SHORTEST_MS} ms`);
  return {
    ...cycle,
    cycleMs,
    lines,
    slowestPerMinute: cycle.slowestPerMinute * speed,
    fastestPerMinute: cycle.fastestPerMinute * speed,
  };
}
