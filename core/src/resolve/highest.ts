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

function highestOf({ pieces, channels }: Clock, amountOf: (at: number) => number): number {
  const sent = channels.flatMap((channel) => {
    const amount = amountOf(channel.at);
    return amount === 0 ? [] : [{ ...channel, amount }];
  });
  let highest = 0;
  for (let i = 0; i < pieces; i++) {
    let [begins, ends] = [0, 0];
    for (const { start, end, amount } of sent) {
      begins += amount * (start[i] ?? 0);
      ends += amount * (end[i] ?? 0);
    }
    highest = Math.max(highest, begins, ends);
  }
  return highest;
}
