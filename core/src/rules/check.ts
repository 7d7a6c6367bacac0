import type { Build } from '../build/schema.ts';
import type { State } from '../build/state.ts';
import type { CheckResult, Fault, Finding, FindingKind, RuleOutcome } from './finding.ts';
import { SEVERITIES } from './finding.ts';
import { checkColour } from './kinds/colour.ts';
import { checkDarkGap } from './kinds/darkGap.ts';
import { checkFlashRate } from './kinds/flashRate.ts';
import { checkPowerFloor } from './kinds/powerFloor.ts';
import { checkSyncPartners } from './kinds/syncPartners.ts';
import { checkWhiteRear } from './kinds/whiteRear.ts';
import { offZoneFaults, overlapFaults } from './layoutFaults.ts';
import type { Rule, RulePack, Severity } from './pack.ts';
import { Subject, type KindResult } from './subject.ts';

/**
 * Checks a build by all of its rule packs, in every state the rules speak to, and its layout by plain geometry.
 *
 * @param only - looks at this state alone
 * @returns findings, the gravest first; and how each rule came out, in pack order
 */
export function checkBuild(build: Build, only: State | null = null): CheckResult {
  const findings = layoutFindings(build);
  const outcomes: RuleOutcome[] = [];
  for (const pack of build.rulePacks) {
    const subject = new Subject(build, pack, only);
    for (const rule of pack.rules) {
      if (rule.services.length > 0 && !rule.services.includes(build.service)) {
        outcomes.push({ packId: pack.id, ruleId: rule.id, verdict: 'silent', statesChecked: 0 });
        continue;
      }
      const { faults, statesChecked } = checkRule(subject, rule);
      const verdict = faults.length === 0 ? 'holds' : 'broken';
      outcomes.push({ packId: pack.id, ruleId: rule.id, verdict, statesChecked });
      for (const fault of faults) findings.push(findingOf(pack, rule, fault));
    }
  }
  const rank = (f: Finding) => SEVERITIES.indexOf(f.severity);
  return { findings: findings.toSorted((a, b) => rank(a) - rank(b)), outcomes };
}

function checkRule(subject: Subject, rule: Rule): KindResult {
  switch (rule.kind) {
    case 'colour':
      return checkColour(subject, rule);
    case 'flash-rate':
      return checkFlashRate(subject, rule);
    case 'power-floor':
      return checkPowerFloor(subject, rule);
    case 'dark-gap':
      return checkDarkGap(subject, rule);
    case 'white-rear':
      return checkWhiteRear(subject, rule);
    case 'sync-partners':
      return checkSyncPartners(subject, rule);
  }
}

/** The checks that need no pack: a lamp cannot stand in another, whatever any law says. */
const LAYOUT_CHECKS: readonly {
  readonly kind: FindingKind;
  readonly severity: Severity;
  readonly clause: string;
  readonly faults: (build: Build) => Fault[];
}[] = [
  { kind: 'overlap', severity: 'blocks', clause: 'Lamps stand apart', faults: overlapFaults },
  { kind: 'off-zone', severity: 'warns', clause: 'Lamps stay on their zones', faults: offZoneFaults },
];

function layoutFindings(build: Build): Finding[] {
  return LAYOUT_CHECKS.flatMap(({ kind, severity, clause, faults }) =>
    faults(build).map((fault) =>
      findingOf({ id: 'layout', name: 'Layout' }, { id: kind, kind, severity, clause }, fault),
    ),
  );
}

function findingOf(
  pack: Pick<RulePack, 'id' | 'name'>,
  rule: Pick<Finding, 'kind' | 'severity' | 'clause'> & { readonly id: string },
  fault: Fault,
): Finding {
  const { state } = fault.evidence;
  const when = state === null ? 'always' : [state.stage, state.open.join('+'), state.ambient].join('|');
  const where = fault.evidence.sectors.map((s) => s.fromDeg).join('.');
  const first = fault.evidence.channelIds[0] ?? '';
  return {
    ...fault,
    sentence: fault.sentence.charAt(0).toUpperCase() + fault.sentence.slice(1),
    id: [pack.id, rule.id, when, where, first, fault.sentence].join('|'),
    packId: pack.id,
    packName: pack.name,
    ruleId: rule.id,
    kind: rule.kind,
    severity: rule.severity,
    clause: rule.clause,
  };
}
