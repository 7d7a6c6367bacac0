import type { ActiveFunction } from '../design/controls.ts';
import { highestCd, type Drive } from '../resolve/channels.ts';
import { Situation } from '../rules/situation.ts';
import { stateWith, type GivenLight } from '../state/state.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Asked } from './asked.ts';
import { NONE, type Diagram } from './diagrams.ts';
import { numbersIn, type Answers, type Channels } from './search.ts';
import type { VerificationSubject } from './subject.ts';

/** Channels that are judged by themselves. */
export interface Lot {
  /** What its troubles are about; null for any. */
  readonly about: string | null;
  readonly channels: Channels;
}

/** What modules show in one light, as far as a rule regards it. */
export interface RegardedCells {
  readonly cells: readonly Answers[];
  /** The functions that these modules heed. */
  readonly heeds: readonly ActiveFunction[];
}

/** The channels that a rule regards, by numbers of its own. */
export class RegardedChannels {
  readonly drives: readonly Drive[];
  readonly #subject: VerificationSubject;
  readonly #cells: Readonly<Record<Ambient, RegardedCells>>;
  readonly #given = new Map<Channels, Omit<GivenLight, 'isBound'>>();

  /** @throws {OverBudget} what lights is too much to tell */
  constructor(subject: VerificationSubject, { regards }: Asked) {
    this.#subject = subject;
    const drives: Drive[] = [];
    const numbers = new Map<number, number>();
    const channelsOf = (shown: readonly Drive[]): Channels =>
      shown.reduce((channels, drive) => {
        if (!regards(drive)) return channels;
        const known = subject.memory.numberOf(drive);
        const number = numbers.get(known) ?? drives.push(drive) - 1;
        numbers.set(known, number);
        return channels | (1n << BigInt(number));
      }, 0n);
    const cellsIn = (ambient: Ambient): RegardedCells => {
      const heeds = new Set<ActiveFunction>();
      const cells = subject.cells.flatMap((cell): Answers[] => {
        if (cell.ambient !== ambient) return [];
        const byChannels = new Map<Channels, Diagram>();
        for (const { when, drives: shown } of cell.answers) {
          const channels = channelsOf(shown.flat());
          byChannels.set(channels, subject.diagrams.or(byChannels.get(channels) ?? NONE, when));
        }
        if (byChannels.size === 1 && byChannels.has(0n)) return [];
        for (const on of cell.heeds) heeds.add(on);
        return [Array.from(byChannels, ([channels, when]) => ({ channels, when }))];
      });
      return { cells, heeds: [...heeds] };
    };
    this.#cells = { day: cellsIn('day'), night: cellsIn('night') };
    this.drives = drives;
  }

  in(ambient: Ambient): RegardedCells {
    return this.#cells[ambient];
  }

  /** The lamps they are of, by placement. */
  get lamps(): ReadonlySet<string> {
    return new Set(this.drives.map(({ placementId }) => placementId));
  }

  weightOf = (channel: number): number => {
    const drive = this.drives[channel];
    return drive === undefined ? 0 : 1 + highestCd(drive);
  };

  /** The lots of a rule; one of all channels where it has none. */
  lots({ lots }: Asked): Lot[] {
    if (lots === null) return [{ about: null, channels: (1n << BigInt(this.drives.length)) - 1n }];
    const at = new Situation(this.#subject.build, stateWith({}), 0);
    const byName = new Map<string, Channels>();
    for (const [number, drive] of this.drives.entries())
      for (const name of lots(drive, at)) byName.set(name, (byName.get(name) ?? 0n) | (1n << BigInt(number)));
    return Array.from(byName, ([name, channels]) => ({ about: name.split('@')[0] ?? name, channels }));
  }

  /** Channels as light that a state is given; one that lights in two ways is two. */
  given(channels: Channels, isBound: boolean): GivenLight {
    const known = this.#given.get(channels);
    if (known !== undefined) return { ...known, key: `${known.key}${isBound ? '~' : ''}`, isBound };
    const times = new Map<string, number>();
    const numbers = numbersIn(channels);
    const drives = numbers.flatMap((number): Drive[] => {
      const drive = this.drives[number];
      if (drive === undefined) return [];
      const before = times.get(drive.channelId) ?? 0;
      times.set(drive.channelId, before + 1);
      return [before === 0 ? drive : { ...drive, channelId: `${drive.channelId}~${before}` }];
    });
    // The same numbers in every proof that remembers the same.
    const { numberOf } = this.#subject.memory;
    const key = numbers
      .flatMap((number) => (this.drives[number] === undefined ? [] : [numberOf(this.drives[number])]))
      .toSorted((a, b) => a - b)
      .join();
    this.#given.set(channels, { key, drives });
    return { key: `${key}${isBound ? '~' : ''}`, drives, isBound };
  }
}
