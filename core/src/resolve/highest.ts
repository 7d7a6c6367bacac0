import { highestLevel } from '../timing/span.ts';
import { timelinesOf } from '../timing/timeline.ts';
import type { Drive } from './channels.ts';

/** A clock of some channels: by channel its place among all, and its levels as each piece of the cycle begins and ends. */
interface Clock {
  readonly pieces: number;
  readonly channels: readonly {
    readonly at: number;
    readonly start: Float64Array;
    readonly end: Float64Array;
  }[];
}

/**
 * The most that some channels send together at any instant: of each clock its own highest sum, and where clocks drift all of
 * them at once. Laid out once for all directions in which it is asked.
 */
export class HighestTogether {
  readonly #steady: readonly { readonly at: number; readonly level: number }[];
  readonly #clocks: readonly Clock[];

  constructor(drives: readonly Drive[]) {
    this.#steady = drives.flatMap(({ steady, spans }, at) =>
      steady ? [{ at, level: highestLevel(spans) }] : [],
    );
    const placeOf = new Map(drives.map((drive, at) => [drive, at]));
    this.#clocks = timelinesOf(drives.filter(({ steady, spans }) => !steady && spans.length > 0)).map(
      ({ channels, durationsMs }) => ({
        pieces: durationsMs.length,
        channels: channels.flatMap(({ drive, start, end }) => {
          const at = placeOf.get(drive);
          return at === undefined ? [] : [{ at, start, end }];
        }),
      }),
    );
  }

  /** @param amountOf - by channel, as they were given: what it sends at level 1, in any unit of light */
  of(amountOf: (at: number) => number): number {
    const steady = this.#steady.reduce((sum, { at, level }) => sum + level * amountOf(at), 0);
    return this.#clocks.reduce((sum, clock) => sum + highestOf(clock, amountOf), steady);
  }
}

/** Those asked for last: in each of many poses the same channels burn. */
const MOST_KEPT = 4;
const kept: { readonly drives: readonly Drive[]; readonly together: HighestTogether }[] = [];

/** Some channels together; laid out once for the same channels asked for again and again. */
export function highestTogether(drives: readonly Drive[]): HighestTogether {
  const known = kept.find(
    (one) => one.drives.length === drives.length && one.drives.every((drive, i) => drive === drives[i]),
  );
  if (known !== undefined) return known.together;
  const together = new HighestTogether(drives);
  kept.unshift({ drives: [...drives], together });
  kept.length = Math.min(kept.length, MOST_KEPT);
  return together;
}

/** Asked for thousands of directions a second: channel by channel, so that each one's levels lie in a row. */
function highestOf({ pieces, channels }: Clock, amountOf: (at: number) => number): number {
  const begins = new Float64Array(pieces);
  const ends = new Float64Array(pieces);
  for (const { at, start, end } of channels) {
    const amount = amountOf(at);
    if (amount === 0) continue;
    for (let i = 0; i < pieces; i++) {
      begins[i] = (begins[i] ?? 0) + amount * (start[i] ?? 0);
      ends[i] = (ends[i] ?? 0) + amount * (end[i] ?? 0);
    }
  }
  let highest = 0;
  for (let i = 0; i < pieces; i++) highest = Math.max(highest, begins[i] ?? 0, ends[i] ?? 0);
  return highest;
}
