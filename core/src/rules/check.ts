import type { Build } from '../design/schema.ts';
import { sameOpen, type State } from '../state/state.ts';
import type { CheckResult, Fault, Finding, RuleOutcome } from './finding.ts';
import { SEVERITIES } from './finding.ts';
import { checkColour } from './kinds/colour.ts';
import { checkDarkGap } from './kinds/darkGap.ts';
import { checkFlashRate } from './kinds/flashRate.ts';
import { checkPowerFloor } from './kinds/powerFloor.ts';
import { checkFlashesASecond } from './kinds/flashesASecond.ts';
import { checkPeakCurrent } from './kinds/peakCurrent.ts';
import { checkPowerCeiling } from './kinds/powerCeiling.ts';
import { checkPulses } from './kinds/pulses.ts';
import { checkRhythms } from './kinds/rhythms.ts';
import { checkSideDark } from './kinds/sideDark.ts';
import { checkSyncPartners } from './kinds/syncPartners.ts';
import { checkWhiteRear } from './kinds/whiteRear.ts';
import { checkBrief } from './brief/brief.ts';
import { freeRunners } from './timing/freeRunner.ts';
import { checkLayout } from './layout/layout.ts';
import type { Rule, RulePack } from './pack.ts';
import { Subject, type KindResult } from './subject.ts';

/**
 * Checks a build by all of its rule packs, in every state the rules speak to, and its layout by plain geometry.
 *
 * @param only - looks at this state alone
 * @returns findings, the gravest first; and how each rule came out, in pack order
 */
export function checkBuild(build: Build, only: State | null = null): CheckResult {
  const outcomes: RuleOutcome[] = [];
  const findings = [
    ...layoutFindings(build, only),
    ...timingFindings(build, only),
    ...briefFindings(build, only, outcomes),
  ];
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
    case 'pulses':
      return checkPulses(subject, rule);
    case 'side-dark':
      return checkSideDark(subject, rule);
    case 'flashes-a-second':
      return checkFlashesASecond(subject, rule);
    case 'power-ceiling':
      return checkPowerCeiling(subject, rule);
    case 'rhythms':
      return checkRhythms(subject, rule);
    case 'peak-current':
      return checkPeakCurrent(subject, rule);
  }
}

/** What the layout's own checks found; of one state, what holds always or in its pose. */
function layoutFindings(build: Build, only: State | null): Finding[] {
  return checkLayout(build).flatMap(({ check, faults }) =>
    faults
      .filter(({ evidence: { state } }) => only === null || state === null || sameOpen(state.open, only.open))
      .map((fault) => findingOf({ id: 'layout', name: 'Layout' }, { id: check.kind, ...check }, fault)),
  );
}

/** What the timing's own checks found. */
const timingFindings = (build: Build, only: State | null): Finding[] =>
  freeRunners(build, only).map(({ severity, fault }) =>
    findingOf(
      { id: 'timing', name: 'Timing' },
      { id: 'free-runner', kind: 'free-runner', severity, clause: 'Heads that run free in a sync group' },
      fault,
    ),
  );

/** The brief as the agency's own pack. */
function briefFindings(build: Build, only: State | null, outcomes: RuleOutcome[]): Finding[] {
  return checkBrief(build, only).flatMap(({ constraint, clause, faults, statesChecked }) => {
    const verdict = faults.length === 0 ? 'holds' : 'broken';
    outcomes.push({ packId: BRIEF_PACK, ruleId: constraint.id, verdict, statesChecked });
    const rule = { id: constraint.id, kind: constraint.kind, severity: constraint.severity, clause };
    return faults.map((fault) => findingOf({ id: BRIEF_PACK, name: 'The brief' }, rule, fault));
  });
}

/** The id under which the brief's wishes are reported. */
export const BRIEF_PACK = 'brief';

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
