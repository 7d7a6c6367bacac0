import { flashesPerCycle, mostPulses } from './flash.ts';
import { PATTERNS } from './library.ts';
import type { Cycle, Pattern } from './pattern.ts';
import { randomCycle } from './recipes/random.ts';
import { rowCycle } from './recipes/row.ts';
import { sequenceCycle } from './recipes/sequence.ts';

/** The patterns a build may use: its own and the library's, worked out when they are asked for. */
export class PatternBook {
  readonly own: readonly Pattern[];
  readonly #byId: ReadonlyMap<string, Pattern>;
  readonly #cycles = new Map<string, Cycle>();

  constructor(own: readonly Pattern[]) {
    this.own = own;
    this.#byId = new Map([...PATTERNS, ...own].map((p) => [p.id, p]));
  }

  find(id: string): Pattern | undefined {
    return this.#byId.get(id);
  }

  /**
   * The pattern of that id.
   * @throws {RangeError} there is none
   */
  pattern(id: string): Pattern {
    const pattern = this.find(id);
    if (pattern === undefined) throw new RangeError(`no pattern '${id}'`);
    return pattern;
  }

  /**
   * The pattern of that id worked out.
   * @throws {RangeError} there is none, or it cannot be worked out
   */
  cycle(id: string): Cycle {
    const known = this.#cycles.get(id);
    if (known !== undefined) return known;
    const cycle = this.cycleOf(this.pattern(id));
    this.#cycles.set(id, cycle);
    return cycle;
  }

  /**
   * Works out a pattern, kept here or not.
   * @throws {RangeError} a sequence names none, another sequence, or what does not go together
   */
  cycleOf(p: Pattern): Cycle {
    switch (p.kind) {
      case 'drawn': {
        const { by, cycleMs, lines } = p;
        const counts = lines.map((spans) => flashesPerCycle(spans, cycleMs)).filter((n) => n > 0);
        const rate = (n: number): number => (n * 60_000) / cycleMs;
        return {
          by,
          cycleMs,
          lines,
          slowestPerMinute: rate(counts.length === 0 ? 1 : Math.min(...counts)),
          fastestPerMinute: rate(Math.max(1, ...counts)),
          pulsesAFlash: mostPulses(lines, cycleMs),
        };
      }
      case 'row':
        return rowCycle(p);
      case 'random':
        return randomCycle(p);
      case 'sequence':
        return sequenceCycle(
          p.parts.map(({ patternId, times }) => {
            const part = this.pattern(patternId);
            if (part.kind === 'sequence')
              throw new RangeError(`'${part.name}' is a sequence; a sequence cannot contain one`);
            return { cycle: this.cycle(patternId), times };
          }),
        );
    }
  }
}

/** The library alone. */
export const LIBRARY = new PatternBook([]);

const books = new WeakMap<readonly Pattern[], PatternBook>();

/** The book of a build's patterns; a build never changes, so it is made once. */
export function bookOf({ timing: { patterns } }: { timing: { patterns: readonly Pattern[] } }): PatternBook {
  const known = books.get(patterns) ?? new PatternBook(patterns);
  books.set(patterns, known);
  return known;
}
