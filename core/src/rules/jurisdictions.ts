import { onText } from '../design/controls.ts';
import type { RulePack } from '../design/rulePack.ts';
import type { Build } from '../design/schema.ts';
import type { Finding, RuleOutcome } from './finding.ts';
import { holdsIn } from './registry.ts';

/** How a build comes out in one of the places where it drives. */
export interface Place {
  readonly jurisdiction: string;
  /** The packs that hold there. */
  readonly packs: readonly RulePack[];
  readonly broken: readonly RuleOutcome[];
  readonly untold: readonly RuleOutcome[];
  /** What is on in the states in which a rule that blocks is broken there: it must be off there. */
  readonly mustBeOff: readonly string[];
}

/** How a build comes out in each jurisdiction of its brief; findings that are accepted count all the same. */
export function placesOf(
  build: Build,
  outcomes: readonly RuleOutcome[],
  findings: readonly Finding[],
): Place[] {
  return build.brief.jurisdictions.map((jurisdiction) => {
    const packs = build.rulePacks.filter((pack) => holdsIn(pack, jurisdiction));
    const ids = new Set(packs.map(({ id }) => id));
    const there = outcomes.filter((o) => ids.has(o.packId));
    const states = findings.flatMap(({ packId, severity, evidence: { state } }) =>
      ids.has(packId) && severity === 'blocks' && state !== null ? [onText(build, state.on)] : [],
    );
    return {
      jurisdiction,
      packs,
      broken: there.filter(({ verdict }) => verdict === 'broken'),
      untold: there.filter(({ verdict }) => verdict === 'cannot tell'),
      mustBeOff: [...new Set(states)],
    };
  });
}
