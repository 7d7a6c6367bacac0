import { pulsesThatFit, type Cycle, type PatternOf } from '../pattern.ts';
import { shifted, type Span } from '../span.ts';

/** Numbers from 0 up to 1 that follow from a seed alone (the mixing of "splitmix", 32 bits). */
function numbersFrom(seed: number): () => number {
  let state = Math.imul(seed + 1, 0x9e3779b9) >>> 0;
  return () => {
    state = (state + 0x9e3779b9) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 16), 0x85ebca6b);
    mixed = Math.imul(mixed ^ (mixed >>> 13), 0xc2b2ae35);
    return ((mixed ^ (mixed >>> 16)) >>> 0) / 2 ** 32;
  };
}

/**
 * A chance line: every pulse and every rest keeps its bounds, over the end of the cycle too, so that the longest
 * dark time is at most `dark.mostMs` and the rate lies between its bounds.
 */
export function randomCycle(p: PatternOf<'random'>): Cycle {
  const next = numbersFrom(p.seed);
  const lines = Array.from({ length: p.phases }, () => randomLine(p, next));
  return {
    by: 'phase',
    cycleMs: p.cycleMs,
    lines,
    slowestPerMinute: 60_000 / (p.pulse.mostMs + p.dark.mostMs),
    fastestPerMinute: 60_000 / (p.pulse.leastMs + p.dark.leastMs),
    pulsesAFlash: 1,
  };
}

function randomLine(p: PatternOf<'random'>, next: () => number): readonly Span[] {
  const fit = pulsesThatFit(p);
  if (fit === null) return [];
  const count = fit.fewest + Math.floor(next() * (fit.most - fit.fewest + 1));
  const bounds = Array.from({ length: 2 * count }, (_, i) => (i % 2 === 0 ? p.pulse : p.dark));
  let spare = p.cycleMs - bounds.reduce((sum, b) => sum + b.leastMs, 0);
  let room = bounds.reduce((sum, b) => sum + b.mostMs - b.leastMs, 0);
  let at = 0;
  const spans: Span[] = [];
  for (const [i, b] of bounds.entries()) {
    const own = b.mostMs - b.leastMs;
    room -= own;
    // At least what those after it cannot take, at most what is left.
    const least = Math.max(0, spare - room);
    const most = Math.min(own, spare);
    const extra = least + Math.floor(next() * (most - least + 1));
    spare -= extra;
    const ms = b.leastMs + extra;
    if (i % 2 === 0) spans.push({ fromMs: at, toMs: at + ms, level: 1 });
    at += ms;
  }
  return shifted(spans, p.cycleMs, Math.floor(next() * p.cycleMs));
}
