import { z } from 'zod';
import { SYNC_LINES, SyncLine, type Flasher } from '../fixture/flasher.ts';
import { Volts } from '../words/volts.ts';

/** What a sync group's clock reaches. */
export const Clock = z.strictObject({
  lines: z.array(SyncLine).max(SYNC_LINES.length),
  volts: Volts,
});
export type Clock = z.infer<typeof Clock>;

/** A clock that speaks every line, on 12 V. */
export const ANY_CLOCK: Clock = { lines: [...SYNC_LINES], volts: 12 };

/** How a sync group begins: on a clock of its own, which reaches all. */
export const OWN_CLOCK = {
  followsId: null,
  speedPercent: 100,
  offsetMs: 0,
  clock: ANY_CLOCK,
  mustKeepStep: false,
} as const;

/** Why a fixture cannot follow a group's clock, in a few words; null when it can. */
export function freeRunReason(
  { flasher }: { readonly flasher: Flasher | null },
  clock: Clock,
): string | null {
  if (flasher === null || (flasher.line !== null && clock.lines.includes(flasher.line))) return null;
  return flasher.line === null
    ? 'has its own flasher without a sync line'
    : `synchronises by a ${flasher.line}, which the group's clock does not have`;
}

/** Why a fixture cannot be fed as a group is, in a few words; null when it can. */
export const voltageMismatch = (
  { volts }: { readonly volts: readonly Volts[] },
  clock: Clock,
): string | null =>
  volts.includes(clock.volts) ? null : `made for ${volts.join(' or ')} V, but fed ${clock.volts} V`;

/** How two clocks run apart when one of them is off by a tolerance. */
export interface Drift {
  /** Run apart by at most this in each cycle, ms. */
  readonly msPerCycle: number;
  /** After this they have been through every alignment, at the soonest, s. */
  readonly roundS: number;
}

/** Drift of a flasher against a clock of the same cycle. 800 ms at 1 %: 8 ms a cycle, round in 80 s. */
export function driftOf(cycleMs: number, tolerancePercent: number): Drift {
  const msPerCycle = (cycleMs * tolerancePercent) / 100;
  return { msPerCycle, roundS: ((cycleMs / msPerCycle) * cycleMs) / 1000 };
}
