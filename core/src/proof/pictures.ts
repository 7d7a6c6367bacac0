import { leavesOf, type Condition } from '../design/condition.ts';
import { conditionsOf, partInput } from '../design/inputs.ts';
import { onsOf } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { lampMoves } from '../design/lampMoves.ts';
import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import { checkedOns, modeOf } from '../state/state.ts';
import type { StopsOf } from '../coverage/poseAbove.ts';
import { PoseClasses } from '../coverage/poseClasses.ts';
import { stopsWithShut, vehicleOf } from '../vehicle/vehicle.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { Bits, Rows } from './bits.ts';
import { LitAt } from './litAt.ts';
import { momentsOf, type Moment, type Moments } from './moments.ts';
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
  /** Equal for pictures that differ in their channels and conditions alone. */
  readonly rest: number;
  /** Equal for pictures that differ in their channels, conditions and poses alone. */
  readonly posed: number;
}

/** Pictures that have the same of some channels. */
export interface Among {
  /** Of them the nearest to rest. */
  readonly picture: Picture;
  /** What they have of the channels. */
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
  readonly holds: readonly boolean[];
}

const NIGHT: Condition = { kind: 'is', input: 'ambient', values: ['night'] };
const NEVER: Condition = { kind: 'any', of: [] };

/** A picture while it is told from others: its light around, mode, truth, what lights, and its moment. */
const WORDS_OF_PICTURE = 5;
const ALL_BUT_MOMENT = Uint32Array.of(0xffffffff, 0xffffffff, 0xffffffff, 0xffffffff, 0);

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

/** Every picture that the controls can bring about while some stage or warning is on. */
export class Pictures {
  readonly build: Build;
  /** The nearest to rest first. */
  readonly all: readonly Picture[];
  /** Whether these are all. */
  readonly whole: boolean;
  /** The channels that light in any, by number. */
  readonly drives: readonly Drive[];
  /** Stops of parts that functions or conditions ask about: they stand open only where they can. */
  readonly #asked: readonly Move[];
  /** Stops of parts that nothing asks about: they may stand open at any time. */
  readonly #free: readonly string[];

  /** By picture: its rest, the conditions that hold there, a bit each, and its channels. */
  readonly #rows: Rows;
  readonly #among = new Map<string, readonly Among[]>();
  readonly #poses = new Map<string, PoseClasses>();
  readonly #spokenOf = new Map<string, Spoken>();

  /** @param conditions - told apart besides; no more than bits of a word */
  constructor(subject: ProofSubject, conditions: readonly Condition[]) {
    const { build } = subject;
    this.build = build;
    const said = [...conditionsOf(build.controls), ...conditions];
    const moves = movesOf(build);
    this.#asked = moves.filter(({ input }) => said.some((c) => asks(c, input)));
    this.#free = moves.filter((move) => !this.#asked.includes(move)).map(({ stop }) => stop);
    const asksAmbient = said.some((c) => asks(c, 'ambient'));
    const moments = momentsOf(
      subject.reach,
      [
        asksAmbient ? NIGHT : NEVER,
        ...this.#asked.map(({ input, value }): Condition => ({ kind: 'is', input, values: [value] })),
        ...conditions,
      ],
      { matters: lights },
    );
    this.whole = moments.whole;
    const modes = modesIn(subject, moments);
    const truths = Array.from(moments.truths.firsts, (first) =>
      this.#truthOf(moments.all[first]?.holds ?? []),
    );
    const lit = new LitAt(subject.showing, moments);
    const inLight = AMBIENTS.map((ambient) => lit.in(ambient));
    this.drives = lit.drives;
    const sets = inLight.map((one) => lit.setsOf(one));
    const rows = new Uint32Array(moments.all.length * AMBIENTS.length * WORDS_OF_PICTURE);
    let count = 0;
    for (const [at, mode] of modes.entries()) {
      if (mode === 0) continue;
      const truth = moments.truths.classOf[at] ?? 0;
      for (const [light, { litOf }] of inLight.entries()) {
        if (asksAmbient && AMBIENTS[light] !== truths[truth]?.ambient) continue;
        rows.set([light, mode, truth, litOf[at] ?? 0, at], count++ * WORDS_OF_PICTURE);
      }
    }
    const met = new Rows(rows.subarray(0, count * WORDS_OF_PICTURE), WORDS_OF_PICTURE);
    const rests = new Map<string, number>();
    this.all = Array.from(met.classes(ALL_BUT_MOMENT).firsts).flatMap((first, at): Picture[] => {
      const from = first * WORDS_OF_PICTURE;
      const [light = 0, mode = 0, truth = 0, number = 0, place = 0] = met.words.subarray(from);
      const [ambient, moment] = [AMBIENTS[light], moments.all[place]];
      const [here, set] = [truths[truth], sets[light]?.[number]];
      if (ambient === undefined || moment === undefined || here === undefined || set === undefined) return [];
      const { open, holds } = here;
      const posed = mode * AMBIENTS.length + light;
      const key = `${posed} ${open.join()}`;
      const rest = rests.get(key) ?? rests.size;
      rests.set(key, rest);
      return [{ at, moment, ambient, mode, open, holds, lit: set, rest, posed }];
    });
    this.#rows = rowsOf(this.all, Math.ceil(lit.drives.length / 32));
  }

  #truthOf([isNight = false, ...more]: readonly boolean[]): Truth {
    const open = this.#asked.flatMap(({ stop }, i) => (more[i] === true ? [stop] : []));
    return { ambient: isNight ? 'night' : 'day', open, holds: more.slice(this.#asked.length) };
  }

  /**
   * The pictures that something speaks of.
   * @param when - the place of a condition that holds there; -1 for none
   */
  spokenOf(modes: readonly number[], ambients: readonly Ambient[], when: number): Spoken {
    const key = [modes.join(), ambients.join(), when].join('|');
    const known = this.#spokenOf.get(key);
    if (known !== undefined) return known;
    const isOf = Uint8Array.from(this.all, (p) =>
      Number(modes.includes(p.mode) && ambients.includes(p.ambient) && (when < 0 || p.holds[when] === true)),
    );
    const made = { when, isOf, count: isOf.reduce((sum, is) => sum + is, 0) };
    this.#spokenOf.set(key, made);
    return made;
  }

  /**
   * Pictures that have the same of some channels and the same rest, and where a condition holds or does not, the nearest
   * to rest first: worked out once for all who look at the same.
   */
  #alike(channels: readonly number[], when: number): readonly Among[] {
    const asked = `${when}|${channels.join()}`;
    const known = this.#among.get(asked);
    if (known !== undefined) return known;
    const looksAt = Bits.of(channels, this.drives.length);
    const mask = Uint32Array.of(0xffffffff, when < 0 ? 0 : 1 << when, ...looksAt.words);
    const made = Array.from(this.#rows.classes(mask).firsts).flatMap((at) => {
      const picture = this.all[at];
      return picture === undefined ? [] : [{ picture, lit: picture.lit.and(looksAt) }];
    });
    this.#among.set(asked, made);
    return made;
  }

  /** Of the pictures that something speaks of, those alike in some channels, their rest, and its condition, as one. */
  among(channels: readonly number[], { when, isOf }: Spoken): readonly Among[] {
    return this.#alike(channels, when).filter(({ picture }) => isOf[picture.at] === 1);
  }

  /** Poses told apart by the light of some channels, seen from some elevations; worked out once for all who look so. */
  poses(regards: (drive: Drive) => boolean, elevationsDeg: readonly number[]): PoseClasses {
    const lamps = new Set(this.drives.filter(regards).map(({ placementId }) => placementId));
    const key = [...lamps, ...elevationsDeg].join();
    const known = this.#poses.get(key) ?? new PoseClasses(this.build, lamps, elevationsDeg);
    this.#poses.set(key, known);
    return known;
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

  /** Where a part may stand in a picture: as something that asks about it has it, or anywhere. */
  stopsOf =
    ({ open }: Picture): StopsOf =>
    (part) =>
      this.#asked.some(({ input }) => input === partInput(part.id))
        ? [part.stops.find(({ id }) => open.includes(id)) ?? null]
        : stopsWithShut(part);

  #askedOf(pose: readonly string[]): string {
    return this.#asked
      .filter(({ stop }) => pose.includes(stop))
      .map(({ stop }) => stop)
      .join();
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

function rowsOf(pictures: readonly Picture[], words: number): Rows {
  const width = 2 + words;
  const rows = new Uint32Array(pictures.length * width);
  for (const [at, { rest, holds, lit }] of pictures.entries()) {
    rows[at * width] = rest;
    rows[at * width + 1] = holds.reduce((bits, so, i) => (so ? bits | (1 << i) : bits), 0);
    rows.set(lit.words, at * width + 2);
  }
  return new Rows(rows, width);
}
