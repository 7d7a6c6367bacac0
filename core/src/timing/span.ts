import { z } from 'zod';

export const Slot = z.union([z.literal(1), z.literal(2), z.literal(3)], {
  error: 'must be colour slot 1, 2 or 3',
});
export type Slot = z.infer<typeof Slot>;

const Level = z
  .number({ error: 'must be a number' })
  .min(0, 'must be at least 0')
  .max(1, 'must be at most 1');

/** On from `fromMs` to `toMs`, whole milliseconds within the cycle. */
export const Span = z
  .strictObject({
    fromMs: z.int().min(0),
    toMs: z.int().min(1),
    level: Level,
    /** A ramp runs straight from `level` to this; without it the level stays. */
    endLevel: Level.optional(),
    /** The colour slot it lights; without it the slot that the stage names. */
    slot: Slot.optional(),
  })
  .refine((s) => s.fromMs < s.toMs, 'a span must end after its start')
  .refine((s) => s.level > 0 || endLevelOf(s) > 0, 'a span must give light');
export type Span = z.infer<typeof Span>;

/** The level just before a span ends. */
export const endLevelOf = (s: { readonly level: number; readonly endLevel?: number | undefined }): number =>
  s.endLevel ?? s.level;

export const isRamp = (s: Span): boolean => endLevelOf(s) !== s.level;

/** The level of a span at a time within it, its end included. */
export const levelWithin = (s: Span, timeMs: number): number =>
  s.level + ((endLevelOf(s) - s.level) * (timeMs - s.fromMs)) / (s.toMs - s.fromMs);

/** Level at a time of a repeating line: 0 between spans; at an edge what comes after it. */
export function levelAtTime(spans: readonly Span[], cycleMs: number, timeMs: number): number {
  const t = ((timeMs % cycleMs) + cycleMs) % cycleMs;
  const span = spans.find((s) => s.fromMs <= t && t < s.toMs);
  return span === undefined ? 0 : levelWithin(span, t);
}

/** ∫ level dt over one cycle, ms. Exact: a ramp is a trapezium. */
export const litMs = (spans: readonly Span[]): number =>
  spans.reduce((sum, s) => sum + ((s.level + endLevelOf(s)) / 2) * (s.toMs - s.fromMs), 0);

/** The highest level a line reaches. */
export const highestLevel = (spans: readonly Span[]): number =>
  spans.reduce((most, s) => Math.max(most, s.level, endLevelOf(s)), 0);

/** Lit at full length without a break or a change. */
export const isSteady = (spans: readonly Span[], cycleMs: number): boolean => {
  const [only, more] = spans;
  return (
    only !== undefined && more === undefined && only.fromMs === 0 && only.toMs === cycleMs && !isRamp(only)
  );
};

/** The part of a span between two times within it. */
export const cutSpan = (s: Span, fromMs: number, toMs: number): Span => ({
  ...s,
  fromMs,
  toMs,
  level: levelWithin(s, fromMs),
  ...(s.endLevel === undefined ? {} : { endLevel: levelWithin(s, toMs) }),
});

/** A line begun later by so much; what runs past the end of the cycle comes in at its beginning. */
export function shifted(spans: readonly Span[], cycleMs: number, byMs: number): readonly Span[] {
  const by = ((byMs % cycleMs) + cycleMs) % cycleMs;
  if (by === 0 || isSteady(spans, cycleMs)) return spans;
  return spans
    .flatMap((s): Span[] => {
      const move = (part: Span, ms: number): Span => ({
        ...part,
        fromMs: part.fromMs + ms,
        toMs: part.toMs + ms,
      });
      const end = cycleMs - by;
      if (s.toMs <= end) return [move(s, by)];
      if (s.fromMs >= end) return [move(s, by - cycleMs)];
      return [move(cutSpan(s, s.fromMs, end), by), move(cutSpan(s, end, s.toMs), by - cycleMs)];
    })
    .toSorted((a, b) => a.fromMs - b.fromMs);
}

/** In order, apart from each other and within the cycle. */
export const inOrder = (spans: readonly Span[], cycleMs: number): boolean =>
  spans.every((s, i) => s.toMs <= cycleMs && s.fromMs >= (spans[i - 1]?.toMs ?? 0));
