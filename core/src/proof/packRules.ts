import type { Condition } from '../design/condition.ts';
import type { On } from '../design/controls.ts';
import type { PoseClasses } from '../coverage/poseClasses.ts';
import type { RuleOutcome } from '../rules/finding.ts';
import type { Judgement, Trouble } from '../rules/judgement.ts';
import { openTogether, type OpenTogether } from '../rules/openTogether.ts';
import type { AskedRule } from '../rules/registry.ts';
import type { WhateverOpen } from '../rules/shown.ts';
import { Situation } from '../rules/situation.ts';
import { onsKey, poseKey, stateWith, type State } from '../state/state.ts';
import { askedRule, askedWish, type Asked } from './asked.ts';
import { Bits } from './bits.ts';
import type { Bare, Judged, Kept } from './memory.ts';
import type { Moment } from './momentTable.ts';
import { MOST_CONDITIONS, Pictures, type Among, type Picture, type Spoken } from './pictures.ts';
import type { ProofSubject } from './subject.ts';

/** A rule is judged in no more states than this; what lies beyond is then not known. */
export const MOST_JUDGED = 10_000;

/** Conditions, each once. */
class Conditions {
  readonly all: Condition[] = [];
  readonly #known = new Map<string, number>();

  /** Its place among the others; beyond the last where there is no room for it: of what asks for it nothing is known. */
  placeOf(condition: Condition): number {
    const key = JSON.stringify(condition);
    const known = this.#known.get(key);
    if (known !== undefined) return known;
    const place = this.all.length < MOST_CONDITIONS ? this.all.push(condition) - 1 : MOST_CONDITIONS;
    this.#known.set(key, place);
    return place;
  }
}

/** Something a rule says of a state that the controls bring about. */
export interface RuleTrouble {
  readonly asked: Asked;
  readonly trouble: Trouble;
  readonly moment: Moment;
  readonly state: State;
  /** Nearest to rest, or worse than that one. */
  readonly which: 'reached' | 'worst';
}

/** The same before it is put in words: of many that are met few are told. */
interface Met extends Bare, Omit<RuleTrouble, 'asked' | 'trouble'> {
  readonly tell: () => Trouble;
}

/** How one rule came out over all that the controls bring about. */
export interface RuleProof {
  readonly outcome: RuleOutcome;
  readonly troubles: readonly RuleTrouble[];
}

/** Whether a trouble is told already of a function by itself. */
export type Known = (asked: Asked, about: string, mode: number) => boolean;

/**
 * Judges rules, and wishes of the brief about what shows, in every picture that the controls can bring about, one by one;
 * between two of them it can be given up. Of pictures that differ only in channels that one does not look at one is judged;
 * and where more light always helps or always hurts, those with the least or the most.
 */
export function* packRules(
  subject: ProofSubject,
  rules: readonly AskedRule[],
  known: Known,
): Generator<string, RuleProof[]> {
  const { build } = subject;
  const conditions = new Conditions();
  const asked = [
    ...rules.flatMap((rule) => askedRule(build, rule) ?? []),
    ...build.brief.constraints.flatMap((wish) => askedWish(build, wish) ?? []),
  ].map((one) => ({ one, when: one.when === null ? -1 : conditions.placeOf(one.when) }));
  if (asked.length === 0) return [];
  yield 'every picture';
  const pictures = new Pictures(
    subject,
    conditions.all,
    asked.some(({ one }) => one.modes === null),
  );
  const proofs: RuleProof[] = [];
  for (const { one, when } of asked) {
    yield one.head.clause;
    proofs.push(judged(pictures, one, when, known));
  }
  return proofs;
}

function judged(pictures: Pictures, asked: Asked, when: number, known: Known): RuleProof {
  const mine = pictures.spokenOf(asked.modes, asked.ambients, when);
  const look = new Look(pictures, asked, known);
  const worst = new Map<string, Met>();
  const among = amongOf(pictures, asked, mine);
  for (const picture of telling(pictures, among, asked, mine))
    for (const met of look.at(picture)) {
      const before = worst.get(met.about);
      if (before === undefined || met.margin < before.margin) worst.set(met.about, met);
    }
  const margin = look.margin;
  const nearest = nearestOf(look, nearestFirst(pictures, among, mine), worst);
  const worse = [...worst.values()].flatMap((met): Met[] =>
    met.margin < (nearest.get(met.about)?.margin ?? -Infinity) - NO_WORSE ? [{ ...met, which: 'worst' }] : [],
  );
  const troubles = [...nearest.values(), ...worse].map(({ moment, state, which, tell }): RuleTrouble => ({
    asked,
    trouble: tell(),
    moment,
    state,
    which,
  }));
  const fails = troubles.some(({ trouble }) => trouble.outcome === 'fails');
  const untold = troubles.length > 0 || !pictures.whole || !look.whole || when >= MOST_CONDITIONS;
  return {
    troubles,
    outcome: {
      packId: asked.head.packId,
      ruleId: asked.head.ruleId,
      verdict: fails ? 'broken' : untold ? 'cannot tell' : look.count === 0 ? 'silent' : 'holds',
      margin,
      statesChecked: mine.count,
    },
  };
}

/** A margin that differs by less is the same. */
const NO_WORSE = 0.001;
/** A way in which parts stand open. */
interface Pose {
  readonly open: readonly string[];
  /** Equal for those in which a rule sees the same. */
  readonly text: string;
}

/** What a rule says of pictures, each pose of each looked at once. */
class Look {
  /** The least room in what was looked at. */
  margin: number | null = null;
  /** Whether everything asked for was looked at. */
  whole = true;
  readonly #pictures: Pictures;
  readonly #asked: Asked;
  readonly #known: Known;
  readonly #told = new Map<string, readonly Met[]>();
  readonly #judgements: Kept<Judged>;
  readonly #together: Kept<OpenTogether>;
  readonly #looksAt: Bits;
  readonly #texts = new Map<Bits, string>();
  /** What may stand open together besides. */
  readonly #carried: readonly (readonly string[])[];
  /** Poses alike for what the rule sees of them; null where each is its own. */
  readonly #alike: PoseClasses | null;
  /** By what stands open in a picture. */
  readonly #poses = new Map<readonly string[], readonly Pose[]>();
  readonly #onTexts = new Map<readonly On[], string>();

  constructor(pictures: Pictures, asked: Asked, known: Known) {
    this.#pictures = pictures;
    this.#asked = asked;
    this.#known = known;
    const { drives, memory } = pictures;
    this.#looksAt = Bits.of(pictures.numbersOf(asked.regards), drives.length);
    this.#judgements = memory.judgementsOf(asked.text);
    this.#together = memory.openTogetherOf(asked.text);
    this.#alike = asked.elevationsDeg === null ? null : pictures.poses(asked.regards, asked.elevationsDeg);
    const hasEyes = asked.sees === 'light' && asked.elevationsDeg === null && asked.poses === null;
    const carried = hasEyes ? pictures.carriedTogether(asked.regards) : [];
    this.#carried = carried ?? [];
    if (carried === null) this.whole = false;
  }

  /** How many states were looked at. */
  get count(): number {
    return this.#told.size;
  }

  /** Its troubles there that are not known already. */
  at(picture: Picture): Met[] {
    return [
      ...this.#posesIn(picture).flatMap((pose) => this.#in(picture, pose)),
      ...this.#openTogether(picture),
    ];
  }

  #posesIn(picture: Picture): readonly Pose[] {
    const { open } = picture;
    const known = this.#poses.get(open) ?? this.#opensIn(picture).map((one) => this.#poseOf(one));
    this.#poses.set(open, known);
    return known;
  }

  #opensIn(picture: Picture): readonly (readonly string[])[] {
    const { sees, poses: named } = this.#asked;
    if (sees === 'driven') return [picture.open];
    const poses = this.#pictures.posesOf(picture, named);
    return [...poses, ...this.#carried.map((pose) => [...picture.open, ...pose])];
  }

  /** What limits on light come to there with several parts open together. */
  #openTogether(picture: Picture): Met[] {
    const { moment, ambient, mode, open } = picture;
    const asked = this.#asked;
    const state = stateWith({ on: moment.on, open, ambient });
    const at = new Situation(this.#pictures.build, state, asked.upperAboveM);
    return asked.limits(at).flatMap((limit, i) => {
      if (this.#known(asked, limit.about, mode)) return [];
      const found = this.#openTogetherFor(limit, i, picture, at);
      return [
        ...found.untold.map((trouble): Met => ({
          ...bare(trouble),
          moment,
          state,
          which: 'reached',
          tell: () => trouble,
        })),
        ...found.poses.flatMap((more) => this.#in(picture, this.#poseOf([...new Set([...open, ...more])]))),
      ];
    });
  }

  #openTogetherFor(limit: WhateverOpen, place: number, picture: Picture, at: Situation): OpenTogether {
    const key = `${place}|${this.#pictures.standsOf(picture)}|${this.#textOf(picture.lit)}`;
    const known = this.#together.get(key);
    if (known !== undefined) return known;
    const found = openTogether(at, limit, { stopsOf: this.#pictures.stopsOf(picture) });
    // What could not be told is said in words that an edit may change.
    if (found.untold.length === 0) this.#together.set(key, found);
    return found;
  }

  #poseOf(open: readonly string[]): Pose {
    if (this.#asked.sees === 'driven') return { open, text: '' };
    return { open, text: this.#alike === null ? poseKey(open) : this.#alike.of(open) };
  }

  #onText(on: readonly On[]): string {
    const known = this.#onTexts.get(on) ?? onsKey(on);
    this.#onTexts.set(on, known);
    return known;
  }

  #in({ moment, ambient, mode, lit }: Picture, { open, text }: Pose): readonly Met[] {
    const key = `${this.#onText(moment.on)}|${ambient}|${text}`;
    const before = this.#told.get(key);
    if (before !== undefined) return before;
    if (this.count >= MOST_JUDGED) {
      this.whole = false;
      return [];
    }
    const state = stateWith({ on: moment.on, open, ambient });
    const { margin, troubles } = this.#judged(state, text, lit);
    this.margin = leastOf([this.margin, margin]);
    const told = troubles.flatMap((trouble, i): Met[] => {
      if (this.#known(this.#asked, trouble.about, mode)) return [];
      const tell = (): Trouble => {
        const inWords = troublesOf(this.#judge(state))[i];
        if (inWords === undefined) throw new RangeError(`nothing is wrong with '${trouble.about}' there`);
        return inWords;
      };
      return [{ ...trouble, moment, state, which: 'reached', tell }];
    });
    this.#told.set(key, told);
    return told;
  }

  #judge(state: State): readonly Judgement[] {
    return this.#asked.judge(new Situation(this.#pictures.build, state, this.#asked.upperAboveM));
  }

  /** @param pose - the same for poses in which the rule sees the same */
  #judged(state: State, pose: string, lit: Bits): Judged {
    // Whether several functions are on is all that a rule asks about what is on, besides what it lights.
    const seen = `${pose}|${state.ambient}|${Number(state.on.length > 1)}|${this.#textOf(lit)}`;
    const known = this.#judgements.get(seen);
    if (known !== undefined) return known;
    const all = this.#judge(state);
    const judged = { margin: leastOf(all.map(({ margin }) => margin)), troubles: troublesOf(all).map(bare) };
    this.#judgements.set(seen, judged);
    return judged;
  }

  /** Of some channels those that the rule looks at. */
  #textOf(lit: Bits): string {
    const known = this.#texts.get(lit) ?? this.#pictures.textOf(lit.and(this.#looksAt));
    this.#texts.set(lit, known);
    return known;
  }
}

const troublesOf = (all: readonly Judgement[]): Trouble[] =>
  all.filter((judgement) => judgement.outcome !== 'holds');

const bare = ({ about, margin }: Trouble): Bare => ({ about, margin: margin ?? -Infinity });

/** The least room of some; null where none was measured. */
function leastOf(rooms: readonly (number | null)[]): number | null {
  const measured = rooms.filter((room) => room !== null);
  return measured.length === 0 ? null : Math.min(...measured);
}

/** Of pictures alike in what a rule looks at those that it speaks of, the nearest to rest first. */
function* nearestFirst(pictures: Pictures, { firsts }: Among, { isOf }: Spoken): Generator<Picture> {
  for (const one of firsts) if (isOf[one] === 1) yield pictures.at(one);
}

/**
 * Of each trouble the picture nearest to rest that has it: what tells most is seldom the shortest way.
 * @param mine - the nearest to rest first
 */
function nearestOf(look: Look, mine: Iterable<Picture>, worst: ReadonlyMap<string, Met>): Map<string, Met> {
  const nearest = new Map(worst);
  const open = new Set(worst.keys());
  if (open.size === 0) return nearest;
  for (const picture of mine) {
    for (const about of open)
      if ((nearest.get(about)?.moment.depth ?? 0) <= picture.moment.depth) open.delete(about);
    if (open.size === 0) break;
    for (const met of look.at(picture)) if (open.delete(met.about)) nearest.set(met.about, met);
  }
  return nearest;
}

/** Pictures alike in all that a rule looks at, as one. */
function amongOf(pictures: Pictures, { regards, sees }: Asked, { when }: Spoken): Among {
  return pictures.among(pictures.numbersOf(regards), when, sees !== 'driven');
}

/**
 * The pictures that tell all of a rule: of those alike in what it looks at, lot by lot, the nearest to rest; and where one
 * more channel only helps or only hurts, none that has all of another's and more, or less.
 */
function telling(
  pictures: Pictures,
  among: Among,
  { regards, more, lots: lotsOf }: Asked,
  { isOf }: Spoken,
): Picture[] {
  const { build, drives } = pictures;
  const at = new Situation(build, stateWith({}), 0);
  const lots = new Map<string, number[]>();
  for (const [i, drive] of drives.entries())
    if (regards(drive))
      for (const lot of lotsOf?.(drive, at) ?? []) lots.set(lot, [...(lots.get(lot) ?? []), i]);
  const told = new Set<number>();
  for (const lot of lotsOf === null ? [null] : lots.values())
    for (const one of among.telling(lot, more, isOf)) told.add(one);
  return [...told].toSorted((a, b) => a - b).map((one) => pictures.at(one));
}
