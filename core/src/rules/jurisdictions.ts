import { namedOns, activeFunctionNames, type ActiveFunction } from '../design/controls.ts';
import type { RulePack } from '../design/rulePack.ts';
import type { Build } from '../design/schema.ts';
import type { Finding, RuleOutcome } from './finding.ts';
import { holdsIn } from './registry.ts';

/** How a build comes out in one of the places where it drives. */
export interface JurisdictionResult {
  readonly jurisdiction: string;
  /** The packs that hold there. */
  readonly packs: readonly RulePack[];
  readonly broken: readonly RuleOutcome[];
  readonly passed: readonly RuleOutcome[];
  readonly inconclusive: readonly RuleOutcome[];
  /**
   * What is on where a rule that blocks is broken there: together it must not be on. One that holds another says nothing
   * new and is left out, as is what is wrong with nothing on. The fewest at once first, then as the functions stand.
   */
  readonly mustBeOff: readonly string[];
}

/** How a build comes out in each jurisdiction of its brief; findings that are accepted count all the same. */
export function jurisdictionResults(
  build: Build,
  outcomes: readonly RuleOutcome[],
  findings: readonly Finding[],
): JurisdictionResult[] {
  return build.brief.jurisdictions.map((jurisdiction) => {
    const packs = build.rulePacks.filter((pack) => holdsIn(pack, jurisdiction));
    const ids = new Set(packs.map(({ id }) => id));
    const there = outcomes.filter((o) => ids.has(o.packId));
    const ons = findings.flatMap(({ packId, severity, evidence: { state } }) =>
      ids.has(packId) && severity === 'blocks' && state !== null && state.on.length > 0 ? [state.on] : [],
    );
    const isLess = (some: readonly ActiveFunction[], all: readonly ActiveFunction[]): boolean =>
      some.length < all.length && some.every((on) => all.includes(on));
    const places = namedOns(build).map(({ on }) => on);
    const placeOf = (on: readonly ActiveFunction[]): number =>
      Math.min(...on.map((one) => places.indexOf(one)));
    const least = ons
      .filter((on) => !ons.some((other) => isLess(other, on)))
      .toSorted((a, b) => a.length - b.length || placeOf(a) - placeOf(b));
    return {
      jurisdiction,
      packs,
      broken: there.filter(({ verdict }) => verdict === 'broken'),
      passed: there.filter(({ verdict }) => verdict === 'holds'),
      inconclusive: there.filter(({ verdict }) => verdict === 'cannot tell'),
      mustBeOff: [...new Set(least.map((on) => activeFunctionNames(build, on)))],
    };
  });
}
