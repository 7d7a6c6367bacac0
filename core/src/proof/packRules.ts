import type { Condition } from '../design/condition.ts';
import type { RuleData, RulePack } from '../design/rulePack.ts';
import { judgementsOf } from '../rules/elevations.ts';
import type { RuleOutcome } from '../rules/finding.ts';
import type { Trouble } from '../rules/judgement.ts';
import { conditionOf, holdsHere, kindOf, speaksTo } from '../rules/registry.ts';
import { Situation } from '../rules/situation.ts';
import { stateKey, stateWith, type State } from '../state/state.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { Bits } from './bits.ts';
import type { Moment } from './moments.ts';
import { Pictures, type Picture } from './pictures.ts';
import type { ProofSubject } from './subject.ts';

/** A rule is judged in no more states than this; what lies beyond is then not known. */
export const MOST_JUDGED = 2000;

/** Rules may ask for no more different conditions than this together; of what asks for others nothing is known. */
const MOST_CONDITIONS = 32;

/** Conditions, each once. */
class Conditions {
  readonly all: Condition[] = [];
  readonly #known = new Map<string, number>();

  /** Its place among the others; beyond the last where there is no room for it. */
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
  readonly pack: RulePack;
  readonly rule: RuleData;
  readonly trouble: Trouble;
  readonly moment: Moment;
  readonly state: State;
}

/** How one rule came out over all that the controls bring about. */
export interface RuleProof {
  readonly outcome: RuleOutcome;
  readonly troubles: readonly RuleTrouble[];
}

/** Whether a trouble is told already of a function by itself. */
export type Known = (pack: RulePack, rule: RuleData, about: string, mode: number) => boolean;

interface Asked {
  readonly pack: RulePack;
  readonly rule: RuleData;
  /** Its place among the conditions asked; -1 where it asks for no more than its stages. */
  readonly when: number;
}

/**
 * Judges the rules of all packs in every picture that the controls can bring about, rule by rule; between two of them it
 * can be given up. Of pictures that differ only in channels a rule does not look at one is judged; and where more light
 * always helps or always hurts, those with the least or the most.
 */
export function* packRules(subject: ProofSubject, known: Known): Generator<string, RuleProof[]> {
  const { build } = subject;
  const conditions = new Conditions();
  const asked = build.rulePacks
    .filter((pack) => holdsHere(pack, build))
    .flatMap((pack) =>
      pack.rules
        .filter((rule) => kindOf(rule).sees !== 'document' && speaksTo(rule, build))
        .map((rule): Asked => {
          const when = conditionOf(build, pack, rule);
          return { pack, rule, when: when === null ? -1 : conditions.placeOf(when) };
        }),
    );
  if (asked.length === 0) return [];
  yield 'every picture';
  const pictures = new Pictures(subject, conditions.all);
  const proofs: RuleProof[] = [];
  for (const one of asked) {
    yield one.rule.clause;
    proofs.push(judged(pictures, one, known));
  }
  return proofs;
}

function judged(pictures: Pictures, { pack, rule, when }: Asked, known: Known): RuleProof {
  const { build } = pictures;
  const kind = kindOf(rule);
  const ambients = kind.ambients(rule);
  const mine = pictures.all.filter(
    (p) =>
      rule.stages.some((stage) => stage === p.mode) &&
      ambients.includes(p.ambient) &&
      (when < 0 || p.holds[when] === true),
  );
  const named = kind.sees === 'driven' ? [] : kind.poses(rule, vehicleOf(build.vehicle));
  const troubles = new Map<string, RuleTrouble>();
  const looked = new Set<string>();
  let margin: number | null = null;
  let whole = pictures.whole && when < MOST_CONDITIONS;
  for (const picture of telling(pictures, rule, mine)) {
    const { moment, ambient, mode } = picture;
    const poses = kind.sees === 'driven' ? [picture.open] : pictures.posesOf(picture, named);
    for (const open of poses) {
      const state = stateWith({ on: moment.on, open, ambient });
      const key = stateKey(state);
      if (looked.has(key)) continue;
      if (looked.size >= MOST_JUDGED) {
        whole = false;
        continue;
      }
      looked.add(key);
      for (const judgement of judgementsOf(rule, new Situation(build, state, pack.upperAboveM))) {
        if (judgement.margin !== null)
          margin = margin === null ? judgement.margin : Math.min(margin, judgement.margin);
        if (judgement.outcome === 'holds' || known(pack, rule, judgement.about, mode)) continue;
        if (!troubles.has(judgement.about))
          troubles.set(judgement.about, { pack, rule, trouble: judgement, moment, state });
      }
    }
  }
  const found = [...troubles.values()];
  const fails = found.some(({ trouble }) => trouble.outcome === 'fails');
  const untold = found.length > 0 || !whole;
  return {
    troubles: found,
    outcome: {
      packId: pack.id,
      ruleId: rule.id,
      verdict: fails ? 'broken' : untold ? 'cannot tell' : looked.size === 0 ? 'silent' : 'holds',
      margin,
      statesChecked: mine.length,
    },
  };
}

/**
 * The pictures that tell all of a rule: of those alike in what it looks at, lot by lot, the nearest to rest; and where one
 * more channel only helps or only hurts, none that has all of another's and more, or less.
 */
function telling({ build, drives }: Pictures, rule: RuleData, mine: readonly Picture[]): Picture[] {
  const kind = kindOf(rule);
  const more = kind.more(rule);
  const at = new Situation(build, stateWith({}), 0);
  const lots = new Map<string, number[]>();
  for (const [i, drive] of drives.entries())
    if (kind.regards(drive, rule))
      for (const lot of kind.lots?.(drive, at) ?? ['']) lots.set(lot, [...(lots.get(lot) ?? []), i]);
  const told = new Set<Picture>();
  for (const numbers of lots.values()) {
    const looksAt = Bits.of(numbers, drives.length);
    const byRest = new Map<string, Map<string, { readonly picture: Picture; readonly lit: Bits }>>();
    for (const picture of mine) {
      const rest = `${picture.ambient} ${picture.open.join()}`;
      const lit = picture.lit.and(looksAt);
      if (kind.lots !== null && lit.size === 0) continue;
      const alike = byRest.get(rest) ?? new Map<string, { picture: Picture; lit: Bits }>();
      byRest.set(rest, alike);
      if (!alike.has(lit.key)) alike.set(lit.key, { picture, lit });
    }
    for (const alike of byRest.values())
      for (const { picture } of extremes([...alike.values()], more)) told.add(picture);
  }
  // A rule that asks for light is asked where none of what it looks at ever lights, too.
  return lots.size === 0 ? mine.slice(0, 1) : mine.filter((picture) => told.has(picture));
}

/** Of sets, those that hold no other where more helps, or are held by no other where more hurts. */
function extremes<T extends { readonly lit: Bits }>(sets: readonly T[], more: 'helps' | 'hurts' | null): T[] {
  if (more === null) return [...sets];
  const sized = sets.map((one) => ({ one, size: one.lit.size }));
  const order = sized.toSorted((a, b) => (more === 'helps' ? a.size - b.size : b.size - a.size));
  const out: T[] = [];
  for (const { one } of order) {
    const beaten = out.some(({ lit }) => (more === 'helps' ? lit.isWithin(one.lit) : one.lit.isWithin(lit)));
    if (!beaten) out.push(one);
  }
  return out;
}
