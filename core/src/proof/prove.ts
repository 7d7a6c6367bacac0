import type { TrialStep } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { aboutOf } from '../rules/causes.ts';
import { checkBuild } from '../rules/check.ts';
import type { CheckResult, Finding, Head, RuleOutcome } from '../rules/finding.ts';
import { ruleHead, wishHead } from '../rules/heads.ts';
import { CONTROLS_PACK, practiceFor } from '../rules/practice.ts';
import { rulesHere, type AskedRule } from '../rules/registry.ts';
import { modeOf, type State } from '../state/state.ts';
import { SEVERITIES } from '../words/severity.ts';
import type { Behaviour } from './behaviour.ts';
import { beatenCut } from './checks/beatenCut.ts';
import { behavioursOf } from './checks/behaviours.ts';
import { endlessWhite } from './checks/endlessWhite.ts';
import { idleControl } from './checks/idleControl.ts';
import { labels } from './checks/labels.ts';
import { leftOn } from './checks/leftOn.ts';
import { maskedSignal } from './checks/maskedSignal.ts';
import { neverOn } from './checks/neverOn.ts';
import { raisedMoving } from './checks/raisedMoving.ts';
import { neverShown } from './checks/neverShown.ts';
import { twoColours } from './checks/twoColours.ts';
import { unasked } from './checks/unasked.ts';
import { onlySignal } from './checks/onlySignal.ts';
import { unstoppedFlasher } from './checks/unstoppedFlasher.ts';
import type { Found, ProofCheck } from './found.ts';
import { ProofMemory } from './memory.ts';
import { movesOf } from './pictures.ts';
import { packRules, type Known, type RuleTrouble } from './packRules.ts';
import { foundByRule } from './programmeRules.ts';
import { ProofSubject } from './subject.ts';

/** Every check of the controls that needs no pack, over all states. */
export const PROOF_CHECKS: readonly ProofCheck[] = [
  maskedSignal,
  onlySignal,
  twoColours,
  unstoppedFlasher,
  neverOn,
  neverShown,
  idleControl,
  beatenCut,
  leftOn,
  endlessWhite,
  unasked,
  raisedMoving,
  labels,
];

/** How many states a programme has, and can reach. */
export interface Counts {
  /** Values of all inputs, memories and phases multiplied; decimal, as it may be beyond whole numbers. */
  readonly raw: string;
  readonly reachable: string;
  /** Different sets of functions that are on, each cycle with its number. */
  readonly pictures: number;
  /** Whether that is all; else at least so many can be reached. */
  readonly whole: boolean;
}

/** What was proved of the controls of a build, and what was not. */
export interface Proof {
  readonly counts: Counts;
  readonly findings: readonly Finding[];
  /** How each check and each wish about behaviour came out. */
  readonly outcomes: readonly RuleOutcome[];
}

/** What is being looked at, for whoever waits. */
export interface Progress {
  readonly done: number;
  readonly of: number;
  readonly what: string;
}

/**
 * Looks at every state that the controls of a build can reach, check by check; between two of them it can be given up.
 * @param checked - what is known of its functions by themselves; looked for when not said
 * @param memory - what proofs before it left
 */
export function* proving(
  build: Build,
  checked: CheckResult | null = null,
  memory = new ProofMemory(),
): Generator<Progress, Proof> {
  const of = PROOF_CHECKS.length + 4;
  yield { done: 0, of, what: 'every state' };
  const subject = new ProofSubject(build, memory);
  const { reach, moments } = subject;
  const practice = practiceFor(build);
  const asked = [...practice.rules.map((rule) => ({ pack: practice, rule })), ...rulesHere(build)];
  const findings: Finding[] = [];
  const outcomes: RuleOutcome[] = [];
  for (const [i, check] of PROOF_CHECKS.entries()) {
    yield { done: i + 1, of, what: check.clause };
    const found = check.find(subject);
    const { kind, severity, clause } = check;
    const head: Head = { ...CONTROLS_HEAD, ruleId: kind, kind, severity, clause };
    findings.push(...found.map((one) => findingOf(subject, head, one)));
    outcomes.push(outcomeOf(head, found, moments.count, check.alone ?? moments.whole));
  }
  yield { done: of - 3, of, what: 'what takes an operator' };
  for (const { pack, rule } of asked) {
    const found = foundByRule(subject, rule);
    if (found === null) continue;
    const head = ruleHead(pack, rule);
    findings.push(...found.map((one) => findingOf(subject, head, one)));
    // These walk what they ask about by themselves.
    outcomes.push(outcomeOf(head, found, moments.count, true));
  }
  yield { done: of - 2, of, what: 'what is said of behaviour' };
  for (const { behaviour, found, looked } of behavioursOf(subject)) {
    const head = headOf(build, asked, behaviour);
    if (found !== null) findings.push(findingOf(subject, head, found));
    outcomes.push(outcomeOf(head, found === null ? [] : [found], looked, moments.whole));
  }
  yield { done: of - 1, of, what: 'rules of the packs' };
  const rules = packRules(subject, asked, knownOf(build, checked ?? checkBuild(build)));
  for (let step = rules.next(); ; step = rules.next()) {
    if (step.done === true) {
      for (const { outcome, troubles } of step.value) {
        outcomes.push(outcome);
        findings.push(...troubles.map((trouble) => ruleFinding(subject, trouble)));
      }
      break;
    }
    yield { done: of - 1, of, what: step.value };
  }
  return {
    counts: {
      raw: String(reach.raw),
      reachable: String(reach.count),
      pictures: moments.pictures,
      whole: moments.whole,
    },
    findings: findings.toSorted((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity)),
    outcomes,
  };
}

const CONTROLS_HEAD = { packId: CONTROLS_PACK, packName: 'Controls', home: 'controls' } as const;

/**
 * Who says something of behaviour: a wish of the brief, or a rule of a pack.
 * @throws {RangeError} nobody does
 */
function headOf(build: Build, asked: readonly AskedRule[], { packId, id }: Behaviour): Head {
  const mine = asked.find(({ pack, rule }) => pack.id === packId && rule.id === id);
  if (mine !== undefined) return ruleHead(mine.pack, mine.rule);
  const wish = build.brief.constraints.find((one) => one.id === id);
  if (wish === undefined) throw new RangeError(`nobody says '${id}' of behaviour`);
  return wishHead(build, wish);
}

/** The proof at one go. */
export function prove(build: Build, checked: CheckResult | null = null, memory = new ProofMemory()): Proof {
  const run = proving(build, checked, memory);
  for (;;) {
    const step = run.next();
    if (step.done === true) return step.value;
  }
}

/** What is so at night alone is looked at when it has become night. */
const NIGHTFALL: TrialStep = {
  kind: 'event',
  event: { kind: 'arrives', input: 'ambient', value: 'night' },
};

/** What is told already of functions by themselves: rule, what about, mode. */
function knownOf(build: Build, { findings }: CheckResult): Known {
  const told = new Set(
    findings.flatMap(({ packId, ruleId, id, evidence: { state } }) =>
      state === null ? [] : [`${packId}|${ruleId}|${aboutOf(id)}|${modeOf(build, state.on)}`],
    ),
  );
  return ({ head: { packId, ruleId } }, about, mode) => told.has(`${packId}|${ruleId}|${about}|${mode}`);
}

/** What a rule says of a state that the controls bring about, with the way there. */
function ruleFinding(subject: ProofSubject, { asked, trouble, moment, state, which }: RuleTrouble): Finding {
  const { head } = asked;
  const { about, sentence, channels, outcome, figure, limits, sectors } = trouble;
  const found = findingOf(subject, head, { about, sentence, moment, channels });
  const there = subject.stateAt(moment);
  return {
    ...found,
    id: [head.packId, head.ruleId, which, about].join('|'),
    outcome,
    figure,
    limits,
    evidence: {
      ...found.evidence,
      state,
      sectors,
      steps: [
        ...found.evidence.steps,
        ...opened(subject.build, state, there),
        ...(state.ambient === 'night' && there.ambient === 'day' ? [NIGHTFALL] : []),
      ],
    },
  };
}

/** Steps that open what stands open in a state and not in another; nothing asks about those parts. */
const opened = (build: Build, state: State, there: State): TrialStep[] =>
  movesOf(build)
    .filter(({ stop }) => state.open.includes(stop) && !there.open.includes(stop))
    .map(({ input, value }): TrialStep => ({ kind: 'event', event: { kind: 'arrives', input, value } }));

function outcomeOf(
  { packId, ruleId }: Head,
  found: readonly Found[],
  looked: number,
  whole: boolean,
): RuleOutcome {
  const fails = found.some(({ outcome }) => outcome === undefined);
  const untold = found.length > 0 || !whole;
  return {
    packId,
    ruleId,
    // What never has anything to say does not hold: it is silent.
    verdict: fails ? 'broken' : untold ? 'cannot tell' : looked === 0 ? 'silent' : 'holds',
    margin: null,
    statesChecked: looked,
  };
}

function findingOf(
  subject: ProofSubject,
  head: Head,
  { about, sentence, moment, ambient, channels = [], severity, outcome }: Found,
): Finding {
  const way = moment === undefined ? null : subject.stepsTo(moment);
  const there = moment === undefined ? null : subject.stateAt(moment);
  const atNight = ambient === 'night' && there?.ambient === 'day';
  const text =
    way?.inTime === false ? `${sentence} (With the times that are set, other timers end first.)` : sentence;
  return {
    ...head,
    outcome: outcome ?? 'fails',
    id: [head.packId, head.ruleId, 'reached', about].join('|'),
    severity: severity ?? head.severity,
    sentence: text.charAt(0).toUpperCase() + text.slice(1),
    figure: null,
    limits: [],
    evidence: {
      state: there === null || !atNight ? there : { ...there, ambient },
      channels,
      sectors: [],
      steps: [...(way?.steps ?? []), ...(atNight ? [NIGHTFALL] : [])],
    },
  };
}
