import { leavesOf, type Condition } from '../design/condition.ts';
import { conditionsOf, partInput } from '../design/inputs.ts';
import { onsOf } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { lampMoves } from '../design/lampMoves.ts';
import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import { checkedOns, modeOf } from '../state/state.ts';
import { fieldsOf } from '../coverage/lampFields.ts';
import type { StopsOf } from '../coverage/lampPoses.ts';
import type { PoseClasses } from '../coverage/poseClasses.ts';
import { stopsWithShut, vehicleOf } from '../vehicle/vehicle.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { ALL, Bits, putBit, Rows } from './bits.ts';
import { extremes } from './extremes.ts';
import { LitAt } from './litAt.ts';
import type { ProofMemory } from './memory.ts';
import type { Moments } from './moments.ts';
import type { Moment } from './momentTable.ts';
import { NEVER, NIGHT } from './questions.ts';
import type { ProofSubject } from './subject.ts';

/** What lights at a moment, as far as it differs from other moments. */
export interface Picture {
  /** Its place among all. */
  readonly at: number;
  readonly moment: Moment;
  readonly ambient: Ambient;
  readonly mode: number;
  /** The stops at which those parts stand that something asks about. */
  readonly open: readonly string[];
  /** Which of the conditions asked hold. */
  readonly holds: readonly boolean[];
  /** The channels at work, by their numbers. */
  readonly lit: Bits;
}

/** The pictures that something speaks of. */
export interface Spoken {
  /** The place of a condition that holds there; -1 for none. */
  readonly when: number;
  /** By picture. */
  readonly isOf: Uint8Array;
  readonly count: number;
}

/** What of the questions asked holds at a moment. */
interface Truth {
  readonly ambient: Ambient;
  readonly open: readonly string[];
  /** Equal where the same stands open. */
  readonly stand: number;
  readonly holds: readonly boolean[];
}

/** A picture while it is told from others: its light around, mode, truth, what lights, and its moment. */
const WORDS_OF_PICTURE = 5;
const ALL_BUT_MOMENT = Uint32Array.of(ALL, ALL, ALL, ALL, 0);

/** No more ways in which parts that carry lamps can stand are looked through one by one. */
const MOST_CARRIED = 128;

/** No more conditions are told apart: a bit each of one word. */
export const MOST_CONDITIONS = 32;

/** A picture among others: its mode and light, what stands open, the conditions that hold; its channels come after. */
const HEAD_WORDS = 3;

const asks = (c: Condition, input: string): boolean =>
  [...leavesOf(c)].some((leaf) => leaf.kind === 'is' && leaf.input === input);

/** Whether a function changes what lights, or how urgent the warning is. */
const lights = ({ mode, shows }: ControlFunction): boolean =>
  mode !== null || shows.some(({ cues, dims }) => cues.length > 0 || dims.length > 0);

/** A stop of something that moves, as an input has it and as a state does. */
export interface Move {
  readonly input: string;
  readonly value: string;
  readonly stop: string;
}

/** Every stop of every part of the vehicle, and of every lamp that can be aimed or raised. */
export const movesOf = (build: Build): readonly Move[] => [
  ...vehicleOf(build.vehicle).parts.flatMap(({ id, stops }) =>
    stops.map((stop) => ({ input: partInput(id), value: stop.id, stop: stop.id })),
  ),
  ...lampMoves(build).flatMap(({ input, stops }) =>
    stops.map(({ id, stop }) => ({ input, value: id, stop })),
  ),
];

/** Every picture that the controls can bring about, while some stage or warning is on or whatever is; the nearest to rest first. */
export class Pictures {
  readonly build: Build;
  readonly memory: ProofMemory;
  /** How many there are. */
  readonly count: number;
  /** Whether these are all. */
  readonly whole: boolean;
  /** The channels that light in any, by number. */
  readonly drives: readonly Drive[];
  /** Stops of parts that functions or conditions ask about: they stand open only where they can. */
  readonly #asked: readonly Move[];
  /** Stops of parts that nothing asks about: they may stand open at any time. */
  readonly #free: readonly string[];

  /** By picture: its mode and light, the parts that stand open, the conditions that hold, a bit each, and its channels. */
  readonly #rows: Rows;
  readonly #pictures: (Picture | undefined)[] = [];
  readonly #make: (at: number) => Picture;
  readonly #among = new Map<string, Among>();
  readonly #askedText: string;
  #numbers: readonly number[] | null = null;
  readonly #spokenOf = new Map<string, Spoken>();

  /**
   * @param conditions - told apart besides; no more than bits of a word
   * @param calm - those in which no stage or warning is on, too
   */
  constructor(subject: ProofSubject, conditions: readonly Condition[], calm = false) {
    const { build, memory } = subject;
    this.build = build;
    this.memory = memory;
    const said = [...conditionsOf(build.controls), ...conditions];
    const moves = movesOf(build);
    this.#asked = moves.filter(({ input }) => said.some((c) => asks(c, input)));
    this.#askedText = this.#asked.map(({ stop }) => stop).join();
    this.#free = moves.filter((move) => !this.#asked.includes(move)).map(({ stop }) => stop);
    const asksAmbient = said.some((c) => asks(c, 'ambient'));
    const moments = subject.walked.moments(
      [
        asksAmbient ? NIGHT : NEVER,
        ...this.#asked.map(({ input, value }): Condition => ({ kind: 'is', input, values: [value] })),
        ...conditions,
      ],
      lights,
    );
    this.whole = moments.whole;
    const modes = modesIn(subject, moments);
    const stands = new Map<string, number>();
    const truths = Array.from(moments.truths.firsts, (first) =>
      this.#truthOf(moments.at(first).holds, stands),
    );
    const lit = new LitAt(subject.showing, moments);
    const inLight = AMBIENTS.map((ambient) => lit.in(ambient));
    this.drives = lit.drives;
    const sets = inLight.map((one) => lit.setsOf(one));
    const rows = new Uint32Array(moments.count * AMBIENTS.length * WORDS_OF_PICTURE);
    let count = 0;
    for (const [at, mode] of modes.entries()) {
      if (mode === 0 && !calm) continue;
      const truth = moments.truths.classOf[at] ?? 0;
      for (const [light, { litOf }] of inLight.entries()) {
        if (asksAmbient && AMBIENTS[light] !== truths[truth]?.ambient) continue;
        const from = count++ * WORDS_OF_PICTURE;
        rows[from] = light;
        rows[from + 1] = mode;
        rows[from + 2] = truth;
        rows[from + 3] = litOf[at] ?? 0;
        rows[from + 4] = at;
      }
    }
    const met = new Rows(rows.subarray(0, count * WORDS_OF_PICTURE), WORDS_OF_PICTURE);
    const told = met.pick(met.classes(ALL_BUT_MOMENT).firsts);
    this.count = told.count;
    this.#make = (at) => {
      const [light = 0, mode = 0, truth = 0, set = 0, nearest = 0] = told.row(at);
      const ambient = AMBIENTS[light];
      const here = truths[truth];
      const lit = sets[light]?.[set];
      if (ambient === undefined || here === undefined || lit === undefined)
        throw new RangeError(`no picture ${at}`);
      return { at, moment: moments.at(nearest), ambient, mode, open: here.open, holds: here.holds, lit };
    };
    this.#rows = rowsOf(told, truths, sets, Math.ceil(lit.drives.length / 32));
  }

  /**
   * A picture by its place, the nearest to rest first.
   * @throws {RangeError} there is none
   */
  at(place: number): Picture {
    const picture = this.#pictures[place] ?? this.#make(place);
    this.#pictures[place] = picture;
    return picture;
  }

  /** @param stands - numbers of ways in which parts stand open, by their stops; those not met before get one */
  #truthOf([isNight = false, ...more]: readonly boolean[], stands: Map<string, number>): Truth {
    const open = this.#asked.flatMap(({ stop }, i) => (more[i] === true ? [stop] : []));
    const stand = stands.get(open.join()) ?? stands.size;
    stands.set(open.join(), stand);
    return { ambient: isNight ? 'night' : 'day', open, stand, holds: more.slice(this.#asked.length) };
  }

  /**
   * The pictures that something speaks of.
   * @param modes - null for any, and where no warning is on
   * @param when - the place of a condition that holds there; -1 for none
   */
  spokenOf(modes: readonly number[] | null, ambients: readonly Ambient[], when: number): Spoken {
    const key = [modes?.join() ?? 'any', ambients.join(), when].join('|');
    const known = this.#spokenOf.get(key);
    if (known !== undefined) return known;
    const { words, width } = this.#rows;
    const bit = when < 0 ? 0 : 1 << when;
    const isOf = new Uint8Array(this.count);
    const speaks = AMBIENTS.map((ambient) => ambients.includes(ambient));
    for (let at = 0; at < isOf.length && when < MOST_CONDITIONS; at++) {
      const posed = words[at * width] ?? 0;
      const isTold =
        (modes === null || modes.includes(Math.floor(posed / AMBIENTS.length))) &&
        speaks[posed % AMBIENTS.length] === true;
      if (isTold && ((words[at * width + 2] ?? 0) & bit) === bit) isOf[at] = 1;
    }
    const made = { when, isOf, count: isOf.reduce((sum, is) => sum + is, 0) };
    this.#spokenOf.set(key, made);
    return made;
  }

  /**
   * Pictures that have the same of some channels, of mode and light, and in which a condition holds or does not, as one:
   * worked out once for all who look at the same.
   * @param when - the place of the condition; -1 for none
   * @param isPosed - alike in what stands open, too
   */
  among(channels: readonly number[], when: number, isPosed: boolean): Among {
    const asked = `${when}|${String(isPosed)}|${channels.join()}`;
    const known = this.#among.get(asked) ?? new Among(this.#rows, this.#maskOf(channels, when, isPosed));
    this.#among.set(asked, known);
    return known;
  }

  #maskOf(channels: readonly number[], when: number, isPosed: boolean): Uint32Array {
    const looksAt = Bits.of(channels, this.drives.length);
    return Uint32Array.of(ALL, isPosed ? ALL : 0, when < 0 ? 0 : 1 << when, ...looksAt.words);
  }

  /** Poses told apart by the light of some channels, seen from some elevations; worked out once for all who look so. */
  poses(regards: (drive: Drive) => boolean, elevationsDeg: readonly number[]): PoseClasses {
    const lamps = new Set(this.drives.filter(regards).map(({ placementId }) => placementId));
    return this.memory.poses(this.build, lamps, elevationsDeg);
  }

  /** Channels by their numbers. */
  numbersOf(regards: (drive: Drive) => boolean): number[] {
    return this.drives.flatMap((drive, i) => (regards(drive) ? [i] : []));
  }

  /** Some channels by numbers that are the same in every proof that remembers the same, as a text. */
  textOf(channels: Bits): string {
    this.#numbers ??= this.drives.map(this.memory.numberOf);
    const numbers = this.#numbers.filter((_, i) => channels.has(i));
    return numbers.toSorted((a, b) => a - b).join();
  }

  /**
   * The poses that go with a picture.
   * @param named - only these, as far as they can be; null for the picture's own, and each part besides that nothing asks about
   */
  posesOf({ open }: Picture, named: readonly (readonly string[])[] | null): readonly (readonly string[])[] {
    if (named === null) return [open, ...this.#free.map((stop) => [...open, stop])];
    const here = this.#askedOf(open);
    return named.filter((pose) => this.#askedOf(pose) === here);
  }

  /**
   * Ways in which several parts can stand open together, in any picture, that nothing asks about and that carry some lamps:
   * what carries none only hides. Eyes, which look from where they are, see the lamps of all of them at once.
   * @returns null when there are too many
   */
  carriedTogether(regards: (drive: Drive) => boolean): readonly (readonly string[])[] | null {
    const lamps = new Set(this.drives.filter(regards).map((drive) => drive.placementId));
    const fields = fieldsOf(this.build);
    const carriers = new Set(
      this.build.placements.flatMap((p) => (lamps.has(p.id) ? (fields.carrierOf(p) ?? []) : [])),
    );
    const stops = [...carriers]
      .map((part) => part.stops.map(({ id }) => id).filter((id) => this.#free.includes(id)))
      .filter((ofPart) => ofPart.length > 0);
    if (stops.reduce((product, ofPart) => product * (ofPart.length + 1), 1) > MOST_CARRIED) return null;
    const poses = stops.reduce<string[][]>(
      (all, ofPart) => all.flatMap((pose) => [pose, ...ofPart.map((stop) => [...pose, stop])]),
      [[]],
    );
    return poses.filter((pose) => pose.length > 1);
  }

  /** Where a part may stand in a picture: as something that asks about it has it, or anywhere. */
  stopsOf =
    ({ open }: Picture): StopsOf =>
    (part) =>
      this.#asked.some(({ input }) => input === partInput(part.id))
        ? [part.stops.find(({ id }) => open.includes(id)) ?? null]
        : stopsWithShut(part);

  /** Equal for pictures in which parts may stand in the same ways. */
  standsOf = ({ open }: Picture): string => `${this.#askedText}|${open.join()}`;

  #askedOf(pose: readonly string[]): string {
    return this.#asked
      .filter(({ stop }) => pose.includes(stop))
      .map(({ stop }) => stop)
      .join();
  }
}

/** Pictures sorted by what somebody looks at: one for those that are alike in it, the nearest to rest. */
export class Among {
  /** The pictures by their places, the nearest to rest first. */
  readonly firsts: Uint32Array;
  readonly #rows: Rows;
  readonly #mask: Uint32Array;

  constructor(rows: Rows, mask: Uint32Array) {
    this.firsts = rows.classes(mask).firsts;
    this.#rows = rows.pick(this.firsts);
    this.#mask = mask;
  }

  /**
   * Pictures that tell all of what somebody speaks of: of those alike in what may differ besides the channels, the extremes.
   * @param lot - sorted on by these channels, and only where one of them lights; null for all, and where none does, too
   * @param more - what one more channel does, where that is always the same
   * @param isOf - by picture: whether it is spoken of
   * @returns their places
   */
  *telling(
    lot: readonly number[] | null,
    more: 'helps' | 'hurts' | null,
    isOf: Uint8Array,
  ): Generator<number> {
    const { words, width } = this.#rows;
    const channels = new Uint32Array(width);
    const looksAt = lot === null ? null : Bits.of(lot, 32 * (width - HEAD_WORDS)).words;
    channels.set(looksAt ?? this.#mask.subarray(HEAD_WORDS), HEAD_WORDS);
    const mask = this.#mask.slice();
    mask.set(channels.subarray(HEAD_WORDS), HEAD_WORDS);
    const besides = new Map<string, number[]>();
    for (const row of lot === null ? this.firsts.keys() : this.#rows.classes(mask).firsts) {
      const from = row * width;
      if (isOf[this.firsts[row] ?? 0] !== 1) continue;
      if (lot !== null && !channels.some((word, w) => ((words[from + w] ?? 0) & word) !== 0)) continue;
      const key = `${words[from] ?? 0} ${(words[from + 1] ?? 0) & (mask[1] ?? 0)}`;
      const those = besides.get(key) ?? [];
      besides.set(key, those);
      those.push(row);
    }
    for (const rows of besides.values())
      for (const row of extremes(this.#rows, rows, channels, more)) yield this.firsts[row] ?? 0;
  }
}

/** How urgent the warning is, moment by moment; 0 where no stage or warning lights anything. */
function modesIn({ build, showing }: ProofSubject, { rows, onWords }: Moments): Uint32Array {
  // Where no stage lights anything yet, that is told once, with the next step; rules have nothing to ask there.
  const lighting = new Set(
    checkedOns(build).filter((on) => AMBIENTS.some((ambient) => showing.driven([on], ambient).length > 0)),
  );
  const urgent = build.controls.functions.filter(({ mode }) => mode !== null).flatMap(onsOf);
  const mask = new Uint32Array(rows.width);
  mask.set(onWords.maskOf(urgent));
  const { classOf, firsts } = rows.classes(mask);
  const modes = Array.from(firsts, (first) => {
    const on = onWords.onsAt(rows.words, first * rows.width);
    return on.some((one) => lighting.has(one)) ? modeOf(build, on) : 0;
  });
  return classOf.map((number) => modes[number] ?? 0);
}

/** Pictures as they are sorted: each by its head and its channels. */
function rowsOf(
  told: Rows,
  truths: readonly Truth[],
  sets: readonly (readonly Bits[])[],
  words: number,
): Rows {
  const width = HEAD_WORDS + words;
  const rows = new Uint32Array(told.count * width);
  for (let at = 0; at < told.count; at++) {
    const [light = 0, mode = 0, truth = 0, set = 0] = told.row(at);
    const here = truths[truth];
    const from = at * width;
    rows[from] = mode * AMBIENTS.length + light;
    rows[from + 1] = here?.stand ?? 0;
    for (const [i, holds] of (here?.holds ?? []).entries()) if (holds) putBit(rows, from + 2, i);
    rows.set(sets[light]?.[set]?.words ?? [], from + HEAD_WORDS);
  }
  return new Rows(rows, width);
}
