import { z } from 'zod';

/** Lines by which heads with flashers of their own keep each other in step; unlike lines do not understand each other. */
export const SYNC_LINES = ['pulse wire', 'clock wire', 'data pair'] as const;
export const SyncLine = z.enum(SYNC_LINES, { error: `must be one of ${SYNC_LINES.join(', ')}` });
export type SyncLine = z.infer<typeof SyncLine>;

export const Volts = z.union([z.literal(12), z.literal(24)], { error: 'must be 12 or 24' });
export type Volts = z.infer<typeof Volts>;

/** A flasher inside a fixture; a fixture without one is flashed by the controller's outputs and follows any clock. */
export const Flasher = z.strictObject({
  /** Null: nothing can keep it in step. */
  line: SyncLine.nullable(),
  /** How far its clock may be off by itself, %. */
  tolerancePercent: z.number().min(0.01, 'must be at least 0.01').max(20, 'must be at most 20'),
});
export type Flasher = z.infer<typeof Flasher>;

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
export function whyFree(
  fixture: { readonly flasher: Flasher | null; readonly volts: readonly Volts[] },
  clock: Clock,
): string | null {
  if (!fixture.volts.includes(clock.volts))
    return `made for ${fixture.volts.join(' or ')} V, the group runs on ${clock.volts} V`;
  const { flasher } = fixture;
  if (flasher === null || (flasher.line !== null && clock.lines.includes(flasher.line))) return null;
  return flasher.line === null
    ? 'flashes by itself and has no sync line'
    : `is kept in step by a ${flasher.line}, which the group's clock does not have`;
}

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
