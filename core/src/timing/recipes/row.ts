import type { Cycle, PatternOf, RowMove } from '../pattern.ts';
import { mostPulses } from '../flash.ts';
import type { Span } from '../span.ts';

export const rowMoveName: Readonly<Record<RowMove, string>> = {
  'first-to-last': 'First to last',
  'last-to-first': 'Last to first',
  'middle-out': 'Centre-out',
  'ends-in': 'Ends-in',
  'to-and-fro': 'Back and forth',
  'every-other': 'Every other, sequential',
  'build-up': 'Building up: one more at every flash',
};

/** The steps at which a place in the row lights, from 0 and in order, and how many steps there are. */
function turns(
  move: RowMove,
  heads: number,
): { readonly count: number; readonly at: (place: number) => number[] } {
  const half = Math.ceil(heads / 2);
  const fromMiddle = (place: number): number =>
    place < heads / 2 ? half - 1 - place : place - Math.floor(heads / 2);
  switch (move) {
    case 'first-to-last':
      return { count: heads, at: (place) => [place] };
    case 'build-up':
      return {
        count: heads,
        at: (place) => Array.from({ length: heads - place }, (_, i) => place + i),
      };
    case 'last-to-first':
      return { count: heads, at: (place) => [heads - 1 - place] };
    case 'middle-out':
      return { count: half, at: (place) => [fromMiddle(place)] };
    case 'ends-in':
      return { count: half, at: (place) => [half - 1 - fromMiddle(place)] };
    case 'to-and-fro': {
      const count = 2 * heads - 2;
      return { count, at: (place) => [...new Set([place, (count - place) % count])] };
    }
    case 'every-other':
      return { count: 2, at: (place) => [place % 2] };
  }
}

/** A row worked out for its heads. */
export function rowCycle(p: PatternOf<'row'>): Cycle {
  const { count, at } = turns(p.move, p.heads);
  const allOn = count * p.stepMs + p.holdMs;
  const cycleMs = allOn + p.restMs;
  // What builds up flashes anew at every step, or it could not be told from what fills.
  const litMs = p.move === 'build-up' ? Math.round(p.stepMs / 2) : p.stepMs;
  const lines = Array.from({ length: p.heads }, (_, place) =>
    at(place)
      .map((turn): Span => {
        const fromMs = turn * p.stepMs;
        const held = p.show === 'hold' || (p.holdMs > 0 && turn === count - 1);
        return { fromMs, toMs: held ? allOn : fromMs + litMs, level: 1 };
      })
      .slice(0, p.show === 'hold' ? 1 : undefined),
  );
  const rate = 60_000 / cycleMs;
  return {
    by: 'order',
    cycleMs,
    lines,
    slowestPerMinute: rate,
    fastestPerMinute: rate,
    pulsesAFlash: mostPulses(lines, cycleMs),
  };
}
