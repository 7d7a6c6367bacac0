import { leavesOf, type Condition } from '../design/condition.ts';
import { conditionsOf, partInput } from '../design/inputs.ts';
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
import { momentsOf, type Moment } from './moments.ts';
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

/** Pictures sorted by what they have of some channels. */
export interface Among {
  /** By picture: the number of its class. */
  readonly classOf: Uint32Array;
  /** By class: what its pictures have of the channels, and what else they share. */
  readonly classes: readonly Pick<Picture, 'lit' | 'rest' | 'posed'>[];
}

/** What of the questions asked holds at a moment. */
interface Truth {
  readonly isNight: boolean;
  readonly open: readonly string[];
  readonly holds: readonly boolean[];
  readonly key: string;
}

const NOTHING = { lit: Bits.of([], 0), rest: 0, posed: 0 };
const NIGHT: Condition = { kind: 'is', input: 'ambient', values: ['night'] };
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

  readonly #rows: Rows;
  readonly #among = new Map<string, Among>();
  readonly #poses = new Map<string, PoseClasses>();
  readonly #spokenOf = new Map<string, readonly Picture[]>();

  /** @param conditions - told apart besides */
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
        asksAmbient ? NIGHT : () => false,
        ...this.#asked.map(({ input, value }): Condition => ({ kind: 'is', input, values: [value] })),
        ...conditions,
      ],
      { matters: lights },
    );
    this.whole = moments.whole;
    // Where no stage lights anything yet, that is told once, with the next step; rules have nothing to ask there.
    const lighting = new Set(
      checkedOns(build).filter((on) =>
        AMBIENTS.some((ambient) => subject.showing.driven([on], ambient).length > 0),
      ),
    );
    const modes = new Map<number, number>();
    /** How urgent the warning of a moment is; 0 where none lights anything. */
    const modeAt = ({ on, picture }: Moment): number => {
      const known = modes.get(picture) ?? (on.some((one) => lighting.has(one)) ? modeOf(build, on) : 0);
      modes.set(picture, known);
      return known;
    };
    const truths = new Map<readonly boolean[], Truth>();
    const lit = new LitAt(subject.showing, moments.all);
    const rests = new Map<string, number>();
    const seen = new Map<string, Omit<Picture, 'lit' | 'at'> & { readonly answers: readonly number[] }>();
    for (const [at, moment] of moments.all.entries()) {
      const mode = modeAt(moment);
      if (mode === 0) continue;
      const truth = truths.get(moment.holds) ?? this.#truthOf(moment.holds);
      truths.set(moment.holds, truth);
      const { open, holds, isNight } = truth;
      const ambients: readonly Ambient[] = asksAmbient ? [isNight ? 'night' : 'day'] : AMBIENTS;
      for (const ambient of ambients) {
        const answers = lit.at(at, ambient);
        const key = `${ambient} ${mode} ${truth.key} ${answers.join()}`;
        if (seen.has(key)) continue;
        const place = `${ambient} ${mode} ${open.join()}`;
        const rest = rests.get(place) ?? rests.size;
        rests.set(place, rest);
        const posed = mode * AMBIENTS.length + AMBIENTS.indexOf(ambient);
        seen.set(key, { moment, ambient, mode, open, holds, answers, rest, posed });
      }
    }
    this.drives = lit.drives;
    this.all = [...seen.values()].map(({ answers, ...picture }, at) => ({
      ...picture,
      at,
      lit: lit.bits(answers),
    }));
    this.#rows = new Rows(this.all);
  }

  #truthOf([isNight = false, ...more]: readonly boolean[]): Truth {
    const open = this.#asked.flatMap(({ stop }, i) => (more[i] === true ? [stop] : []));
    const holds = more.slice(this.#asked.length);
    return { isNight, open, holds, key: more.map(Number).join('') };
  }

  /**
   * The pictures that something speaks of, the nearest to rest first.
   * @param when - the place of a condition that holds there; -1 for none
   */
  spokenOf(modes: readonly number[], ambients: readonly Ambient[], when: number): readonly Picture[] {
    const key = [modes.join(), ambients.join(), when].join('|');
    const known =
      this.#spokenOf.get(key) ??
      this.all.filter(
        (p) => modes.includes(p.mode) && ambients.includes(p.ambient) && (when < 0 || p.holds[when] === true),
      );
    this.#spokenOf.set(key, known);
    return known;
  }

  /** What each picture has of some channels: worked out once for all who look at the same. */
  among(channels: readonly number[]): Among {
    const asked = channels.join();
    const known = this.#among.get(asked);
    if (known !== undefined) return known;
    const looksAt = Bits.of(channels, this.drives.length);
    const { classOf, firsts } = this.#rows.classes(looksAt);
    const made = {
      classOf,
      classes: Array.from(firsts, (at) => {
        const { lit, rest, posed } = this.all[at] ?? NOTHING;
        return { lit: lit.and(looksAt), rest, posed };
      }),
    };
    this.#among.set(asked, made);
    return made;
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
