import { cutSpan, isSteady, type Span } from '../timing/span.ts';
import { commonCycleMs, type ScheduledPattern } from '../timing/timeline.ts';

/** Colours whose common cycle is longer than this, or has more spans, are not laid out against each other. */
const LONGEST_MS = 120_000;
const MOST_SPANS = 4_000;

/**
 * Lets the colours of one module take turns: at each instant those that rank highest burn, as many as the fixture can;
 * the rest are dark.
 *
 * @param drives - of one module on one clock, weakest first
 * @param atOnce - colours that burn at the same time
 * @param sharedPower - those that do get an equal part of its power each
 */
export function alternates<D extends ScheduledPattern>(
  drives: readonly D[],
  atOnce: number,
  sharedPower = false,
): D[] {
  if (drives.length <= 1 || (drives.length <= atOnce && !sharedPower)) return [...drives];
  const cycleMs = commonCycleMs(drives.map((d) => d.cycleMs));
  if (!canLayOut(drives, cycleMs)) return drives.map((d) => ({ ...d, loose: true }));
  const burning = drives.map((drive, i) => {
    const stronger = drives.slice(i + 1).filter((d) => d.spans.length > 0);
    if (stronger.length < atOnce || drive.spans.length === 0) return drive;
    const taken = times(stronger, cycleMs, atOnce);
    const free = repeated(drive, cycleMs).flatMap((span) => without(span, taken));
    return { ...drive, cycleMs, spans: free, steady: isSteady(free, cycleMs) };
  });
  return sharedPower ? sharing(burning, cycleMs) : burning;
}

/**
 * Whether more colours of one module are lit at some instant than burn at the same time.
 * @returns 'unknown' where what would say so is too long to lay out
 */
export function burnTogether(
  drives: readonly ScheduledPattern[],
  atOnce: number,
): 'never' | 'sometimes' | 'unknown' {
  const lit = drives.filter((d) => d.spans.length > 0);
  if (lit.length <= atOnce) return 'never';
  const cycleMs = commonCycleMs(lit.map((d) => d.cycleMs));
  if (!canLayOut(lit, cycleMs)) return 'unknown';
  return times(lit, cycleMs, atOnce + 1).length > 0 ? 'sometimes' : 'never';
}

const canLayOut = (drives: readonly ScheduledPattern[], cycleMs: number): boolean =>
  cycleMs <= LONGEST_MS &&
  drives.reduce((sum, d) => sum + (d.spans.length * cycleMs) / d.cycleMs, 0) <= MOST_SPANS;

/** Colours that burn at the same time share what power there is, in equal parts. */
function sharing<D extends ScheduledPattern>(drives: readonly D[], cycleMs: number): D[] {
  const all = drives.map((d) => repeated(d, cycleMs));
  const edges = [...new Set(all.flatMap((spans) => spans.flatMap((s) => [s.fromMs, s.toMs])))].toSorted(
    (a, b) => a - b,
  );
  const burning = (ms: number) =>
    all.filter((spans) => spans.some((s) => s.fromMs <= ms && ms < s.toMs)).length;
  return drives.map((drive, i) => {
    const spans = (all[i] ?? []).flatMap((s) => {
      const cuts = [s.fromMs, ...edges.filter((ms) => s.fromMs < ms && ms < s.toMs), s.toMs];
      return cuts.slice(1).map((toMs, k) => {
        const part = cutSpan(s, cuts[k] ?? s.fromMs, toMs);
        const share = 1 / burning(part.fromMs);
        return {
          ...part,
          level: part.level * share,
          ...(part.endLevel === undefined ? {} : { endLevel: part.endLevel * share }),
        };
      });
    });
    return spans.length === 0 ? drive : { ...drive, cycleMs, spans, steady: isSteady(spans, cycleMs) };
  });
}

/** What a channel shows over a cycle that is a multiple of its own. */
const repeated = ({ spans, cycleMs }: ScheduledPattern, longMs: number): Span[] =>
  Array.from({ length: longMs / cycleMs }, (_, turn) =>
    spans.map((s) => ({ ...s, fromMs: s.fromMs + turn * cycleMs, toMs: s.toMs + turn * cycleMs })),
  ).flat();

interface Stretch {
  readonly fromMs: number;
  readonly toMs: number;
}

/** When at least so many channels are lit. */
function times(drives: readonly ScheduledPattern[], cycleMs: number, atLeast: number): Stretch[] {
  const edges = drives
    .flatMap((d) => repeated(d, cycleMs))
    .flatMap((s) => [
      { ms: s.fromMs, lit: 1 },
      { ms: s.toMs, lit: -1 },
    ])
    .toSorted((a, b) => a.ms - b.ms || a.lit - b.lit);
  const out: { fromMs: number; toMs: number }[] = [];
  let lit = 0;
  for (const [i, edge] of edges.entries()) {
    lit += edge.lit;
    const toMs = edges[i + 1]?.ms ?? cycleMs;
    if (lit < atLeast || toMs === edge.ms) continue;
    const last = out.at(-1);
    if (last?.toMs === edge.ms) last.toMs = toMs;
    else out.push({ fromMs: edge.ms, toMs });
  }
  return out;
}

/** What is left of a span outside some stretches, which are in order and apart. */
function without(span: Span, taken: readonly Stretch[]): Span[] {
  const parts: Span[] = [];
  let from = span.fromMs;
  for (const { fromMs, toMs } of taken) {
    if (toMs <= from || fromMs >= span.toMs) continue;
    if (fromMs > from) parts.push(cutSpan(span, from, fromMs));
    from = Math.max(from, toMs);
  }
  if (from < span.toMs) parts.push(from === span.fromMs ? span : cutSpan(span, from, span.toMs));
  return parts;
}
