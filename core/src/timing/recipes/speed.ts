import { CYCLE_MS, type Cycle } from '../pattern.ts';

export const SPEED_PERCENT = { min: 10, max: 400 } as const;
/** No span or cycle is made shorter than this, ms. */
const SHORTEST_MS = 10;

/** A speed as an exact fraction in lowest terms: 80 % of 80 % is 16/25, not 0.6400000000000001. */
export interface Speed {
  readonly over: bigint;
  readonly under: bigint;
}

export const SAME_SPEED: Speed = { over: 1n, under: 1n };

const divisor = (a: bigint, b: bigint): bigint => (b === 0n ? a : divisor(b, a % b));

/** A speed at a whole percentage of another. */
export function timesPercent({ over, under }: Speed, percent: number): Speed {
  const [a, b] = [over * BigInt(percent), under * 100n];
  const d = divisor(a, b);
  return { over: a / d, under: b / d };
}

/** A whole percentage as a speed. */
export const percentSpeed = (percent: number): Speed => timesPercent(SAME_SPEED, percent);

/** The nearest number to a speed, 1 as it is. */
export const speedNumber = ({ over, under }: Speed): number => {
  // Both may be far beyond what a number holds exactly; their quotient to nine decimals is not.
  const scaled = (over * 10n ** 12n) / under;
  return under === 1n ? Number(over) : Number(scaled) / 1e12;
};

/** A time at a speed, rounded to whole milliseconds, halves up. */
const msAt = (ms: number, { over, under }: Speed): number =>
  Number((2n * BigInt(ms) * under + over) / (2n * over));

/**
 * A cycle at another speed, its edges rounded to whole milliseconds.
 * @throws {RangeError} the cycle or a span would leave its limits
 */
export function atSpeed(cycle: Cycle, speed: Speed): Cycle {
  if (speed.over === speed.under) return cycle;
  const factor = speedNumber(speed);
  const cycleMs = msAt(cycle.cycleMs, speed);
  const percent = Math.round(factor * 100);
  if (cycleMs < CYCLE_MS.min || cycleMs > CYCLE_MS.max)
    throw new RangeError(
      `at ${percent} % speed a cycle of ${cycle.cycleMs} ms becomes ${cycleMs} ms; ${CYCLE_MS.min} to ${CYCLE_MS.max} ms are allowed`,
    );
  const lines = cycle.lines.map((spans) =>
    spans.map((s) => ({ ...s, fromMs: msAt(s.fromMs, speed), toMs: msAt(s.toMs, speed) })),
  );
  const shortest = lines.flat().find((s) => s.toMs - s.fromMs < SHORTEST_MS);
  if (shortest !== undefined && speed.over > speed.under)
    throw new RangeError(`at ${percent} % speed a flash becomes shorter than ${SHORTEST_MS} ms`);
  return {
    ...cycle,
    cycleMs,
    lines,
    slowestPerMinute: cycle.slowestPerMinute * factor,
    fastestPerMinute: cycle.fastestPerMinute * factor,
  };
}
