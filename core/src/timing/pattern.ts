import { z } from 'zod';
import { Id, Name } from '../names.ts';

/** On from `fromMs` to `toMs` (whole milliseconds within the cycle) at a level. */
const Span = z
  .strictObject({
    fromMs: z.int().min(0),
    toMs: z.int().min(1),
    level: z.number().gt(0).max(1),
  })
  .refine((s) => s.fromMs < s.toMs, 'a span must end after it begins');
export type Span = z.infer<typeof Span>;

/** A lamp's phase letter in its sync group. */
export const Phase = z.enum(['A', 'B'], { error: "must be phase 'A' or 'B'" });
export type Phase = z.infer<typeof Phase>;

const cycle = { id: Id, name: Name, cycleMs: z.int().min(20).max(60_000) };

/** A flash pattern: spans of on-time by phase letter, or by numbered step for sweeps. */
export const Pattern = z
  .discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('phases'), ...cycle, A: z.array(Span), B: z.array(Span) }),
    z.strictObject({ kind: z.literal('steps'), ...cycle, steps: z.array(z.array(Span)).min(2).max(32) }),
  ])
  .refine(
    (p) => phasesOf(p).every((spans) => inOrder(spans, p.cycleMs)),
    'spans must be in order, apart from each other and within the cycle',
  );
export type Pattern = z.infer<typeof Pattern>;

function phasesOf(
  p: { kind: 'phases'; A: Span[]; B: Span[] } | { kind: 'steps'; steps: Span[][] },
): Span[][] {
  return p.kind === 'phases' ? [p.A, p.B] : p.steps;
}

const inOrder = (spans: readonly Span[], cycleMs: number): boolean =>
  spans.every((s, i) => s.toMs <= cycleMs && s.fromMs >= (spans[i - 1]?.toMs ?? 0));

/**
 * The spans a lamp shows, by its phase letter or its order number.
 * @param order - 1, 2, 3 …; beyond the last step it begins again with the first
 */
export function spansFor(p: Pattern, phase: Phase, order: number): readonly Span[] {
  if (p.kind === 'phases') return p[phase];
  return p.steps[(order - 1) % p.steps.length] ?? [];
}

/** Lit for the whole cycle without a break. */
export const isSteady = (spans: readonly Span[], cycleMs: number): boolean => {
  const [only, more] = spans;
  return only !== undefined && more === undefined && only.fromMs === 0 && only.toMs === cycleMs;
};
