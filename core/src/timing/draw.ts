import { PHASES, type PatternOf } from './pattern.ts';
import { cutSpan, inOrder, shifted, type Span } from './span.ts';

/*
 * Drawing a pattern bar by bar. A bar never overlaps its neighbours and never leaves the cycle: what is asked for is
 * cut to what there is room for.
 */

export type Drawn = PatternOf<'drawn'>;

/** No bar is made shorter than this, ms. */
export const SHORTEST_BAR_MS = 5;

const withLine = (p: Drawn, line: number, spans: readonly Span[]): Drawn => ({
  ...p,
  lines: p.lines.map((old, i) => (i === line ? [...spans] : old)),
});

const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** The free time around a bar: from the end of the one before to the beginning of the one after. */
function roomOf(p: Drawn, line: number, index: number): { from: number; to: number } {
  const spans = p.lines[line] ?? [];
  return { from: spans[index - 1]?.toMs ?? 0, to: spans[index + 1]?.fromMs ?? p.cycleMs };
}

/** A bar put where the line is free; shortened to the gap it falls into, left out where there is none. */
export function addBar(p: Drawn, line: number, fromMs: number, lengthMs: number): Drawn {
  const spans = p.lines[line] ?? [];
  const at = clamp(Math.round(fromMs), 0, p.cycleMs - SHORTEST_BAR_MS);
  if (spans.some((s) => s.fromMs <= at && at < s.toMs)) return p;
  const end = spans.find((s) => s.fromMs > at)?.fromMs ?? p.cycleMs;
  const toMs = Math.min(end, at + Math.round(lengthMs));
  if (toMs - at < SHORTEST_BAR_MS) return p;
  const next = [...spans, { fromMs: at, toMs, level: 1 }];
  return withLine(
    p,
    line,
    next.toSorted((a, b) => a.fromMs - b.fromMs),
  );
}

/** A bar added after another leaves so much dark between them where there is room, ms. */
const REST_MS = 60;

/** The first place of a line that has room for a bar, apart from the others if it can be; null when it is full. */
export function firstRoom(p: Drawn, line: number, lengthMs: number): number | null {
  const spans = p.lines[line] ?? [];
  const ends = spans.map((s) => s.toMs);
  const begins = [0, ...ends.map((ms) => ms + REST_MS), ...ends];
  const fits = (from: number): boolean =>
    !spans.some((s) => s.fromMs <= from && from < s.toMs) &&
    (spans.find((s) => s.fromMs >= from)?.fromMs ?? p.cycleMs) - from >= lengthMs;
  return begins.find(fits) ?? null;
}

/** A bar moved to begin at a time, as far as its neighbours let it. */
export function moveBar(p: Drawn, line: number, index: number, fromMs: number): Drawn {
  const span = p.lines[line]?.[index];
  if (span === undefined) return p;
  const room = roomOf(p, line, index);
  const length = span.toMs - span.fromMs;
  const from = clamp(Math.round(fromMs), room.from, room.to - length);
  return replaceBar(p, line, index, { ...span, fromMs: from, toMs: from + length });
}

/** One edge of a bar moved to a time. */
export function resizeBar(p: Drawn, line: number, index: number, edge: 'from' | 'to', ms: number): Drawn {
  const span = p.lines[line]?.[index];
  if (span === undefined) return p;
  const room = roomOf(p, line, index);
  const at = Math.round(ms);
  return replaceBar(
    p,
    line,
    index,
    edge === 'from'
      ? { ...span, fromMs: clamp(at, room.from, span.toMs - SHORTEST_BAR_MS) }
      : { ...span, toMs: clamp(at, span.fromMs + SHORTEST_BAR_MS, room.to) },
  );
}

/** Level, end level and colour slot of a bar. */
export function changeBar(
  p: Drawn,
  line: number,
  index: number,
  patch: Partial<Pick<Span, 'level' | 'endLevel' | 'slot'>>,
): Drawn {
  const span = p.lines[line]?.[index];
  if (span === undefined) return p;
  const { endLevel, slot, ...rest } = { ...span, ...patch };
  const next: Span = {
    ...rest,
    ...(endLevel === undefined || endLevel === rest.level ? {} : { endLevel }),
    ...(slot === undefined ? {} : { slot }),
  };
  return next.level > 0 || (next.endLevel ?? 0) > 0 ? replaceBar(p, line, index, next) : p;
}

const replaceBar = (p: Drawn, line: number, index: number, span: Span): Drawn =>
  withLine(
    p,
    line,
    (p.lines[line] ?? []).map((s, i) => (i === index ? span : s)),
  );

export const removeBar = (p: Drawn, line: number, index: number): Drawn =>
  withLine(
    p,
    line,
    (p.lines[line] ?? []).filter((_, i) => i !== index),
  );

/** A bar made into two with a dark time between them, a fifth of its length, at most 60 ms. */
export function splitBar(p: Drawn, line: number, index: number): Drawn {
  const span = p.lines[line]?.[index];
  if (span === undefined) return p;
  const length = span.toMs - span.fromMs;
  const gap = Math.min(60, Math.max(SHORTEST_BAR_MS, Math.round(length / 50) * 10));
  const first = Math.floor((length - gap) / 2);
  if (first < SHORTEST_BAR_MS) return p;
  const spans = (p.lines[line] ?? []).flatMap((s, i) =>
    i === index ? [cutSpan(s, s.fromMs, s.fromMs + first), cutSpan(s, s.fromMs + first + gap, s.toMs)] : [s],
  );
  return withLine(p, line, spans);
}

/** Another length of the cycle; bars that no longer fit are cut or go. */
export function setCycle(p: Drawn, cycleMs: number): Drawn {
  return {
    ...p,
    cycleMs,
    lines: p.lines.map((spans) =>
      spans
        .filter((s) => s.fromMs + SHORTEST_BAR_MS <= cycleMs)
        .map((s) => (s.toMs > cycleMs ? cutSpan(s, s.fromMs, cycleMs) : s)),
    ),
  };
}

/** More lines, empty, or fewer. */
export function setLineCount(p: Drawn, count: number): Drawn {
  const most = p.by === 'phase' ? PHASES.length : 32;
  const wanted = clamp(Math.round(count), 1, most);
  return { ...p, lines: Array.from({ length: wanted }, (_, i) => p.lines[i] ?? []) };
}

/** Lines by phase letter or by place in a row. */
export const setBy = (p: Drawn, by: Drawn['by']): Drawn => setLineCount({ ...p, by }, p.lines.length);

/** Bars copied onto a line in place of its own, begun later by so much. */
export function pasteLine(p: Drawn, line: number, spans: readonly Span[], laterMs = 0): Drawn {
  const fitting = setCycle({ ...p, lines: [[...spans]] }, p.cycleMs).lines[0] ?? [];
  const laid = shifted(fitting, p.cycleMs, laterMs);
  return inOrder(laid, p.cycleMs) ? withLine(p, line, laid) : p;
}

/** A press and its release, ms from when the tapping began. */
export interface Tap {
  readonly downMs: number;
  readonly upMs: number;
}

/**
 * A line as it was tapped: the first press is the beginning of the cycle; what comes after its end goes on at its
 * beginning; edges snap to a raster, and what overlaps becomes one.
 */
export function tapLine(p: Drawn, line: number, taps: readonly Tap[], snapMs = 10): Drawn {
  const [first] = taps;
  if (first === undefined) return p;
  const snap = (ms: number): number => Math.round(ms / snapMs) * snapMs;
  const lit = new Set<number>();
  const raster = Math.floor(p.cycleMs / snapMs);
  for (const { downMs, upMs } of taps) {
    const from = snap(downMs - first.downMs) / snapMs;
    const to = Math.max(from + 1, snap(upMs - first.downMs) / snapMs);
    for (let i = from; i < Math.min(to, from + raster); i++) lit.add(i % raster);
  }
  const spans: Span[] = [];
  for (let i = 0; i < raster; i++) {
    if (!lit.has(i)) continue;
    const last = spans.at(-1);
    if (last?.toMs === i * snapMs) spans[spans.length - 1] = { ...last, toMs: (i + 1) * snapMs };
    else spans.push({ fromMs: i * snapMs, toMs: (i + 1) * snapMs, level: 1 });
  }
  return withLine(p, line, spans);
}
