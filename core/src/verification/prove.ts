import type { TestStep } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from '../rules/check.ts';
import type { CheckResult, Finding, Head, RuleOutcome } from '../rules/finding.ts';
import { ruleHead, requirementHead } from '../rules/heads.ts';
import { CONTROLS_PACK, practiceFor } from '../rules/practice.ts';
import { applicableRules, type AskedRule } from '../rules/registry.ts';
import { modeOf, type State } from '../state/state.ts';
import { SEVERITIES } from '../words/severity.ts';
import type { Behaviour } from './behaviour.ts';
import { overriddenCut } from './checks/overriddenCut.ts';
import { outcomeOfBehaviour } from './checks/behaviours.ts';
import { whiteCannotBeEnded } from './checks/whiteCannotBeEnded.ts';
import { idleControl } from './checks/idleControl.ts';
import { labels } from './checks/labels.ts';
import { leftOn } from './checks/leftOn.ts';
import { hiddenPress } from './checks/hiddenPress.ts';
import { unlit } from './checks/unlit.ts';
import { maskedSignal } from './checks/maskedSignal.ts';
import { neverOn } from './checks/neverOn.ts';
import { raisedMoving } from './checks/raisedMoving.ts';
import { neverShown } from './checks/neverShown.ts';
import { twoColours } from './checks/twoColours.ts';
import { uncommandedWhite } from './checks/uncommandedWhite.ts';
import { onlySignal } from './checks/onlySignal.ts';
import { unstoppedFlasher } from './checks/unstoppedFlasher.ts';
import { CannotTell } from './cannotTell.ts';
import type { VerificationFinding, VerificationCheck } from './found.ts';
import { VerificationCache } from './memory.ts';
import { movesOf } from './poses.ts';
import { packRules } from './packRules.ts';
import type { Known, RuleTrouble } from './ruleTrouble.ts';
import { foundByRule } from './programRules.ts';
import type { ReachableSet } from './reachable.ts';
import { VerificationSubject } from './subject.ts';
import { subjectsKey, findingId } from '../rules/subject.ts';

/** Every check of the controls that needs no pack, over all states. */
export const PROOF_CHECKS: readonly VerificationCheck[] = [
  maskedSignal,
  onlySignal,
  twoColours,
  unstoppedFlasher,
  neverOn,
  neverShown,
  unlit,
  hiddenPress,
  idleControl,
  overriddenCut,
  leftOn,
  whiteCannotBeEnded,
  uncommandedWhite,
  raisedMoving,
  labels,
];

/** How many states a programme has, and can reach. */
export interface Counts {
  /** Values of all inputs, memories and phases multiplied; decimal, as it may be beyond whole numbers. */
  readonly raw: string;
  readonly reachable: string;
  /** Different sets of functions that are on, each cycle with its number; decimal. */
  readonly pictures: string;
  /** Whether that is all; else at least so many can be reached. */
  readonly whole: boolean;
}

/** What was proved of the controls of a build, and what was not. */
export interface Verification {
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
export function* verifying(
  build: Build,
  checked: CheckResult | null = null,
  memory = new VerificationCache(),
): Generator<Progress, Verification> {
  const of = PROOF_CHECKS.length + 4;
  yield { done: 0, of, what: 'every state' };
  let subject = new VerificationSubject(build, memory);
  const counts = countsOf(subject.whole);
  const looked = Number(counts.pictures);
  const practice = practiceFor(build);
  const asked = [...practice.rules.map((rule) => ({ pack: practice, rule })), ...applicableRules(build)];
  const findings: Finding[] = [];
  const outcomes: RuleOutcome[] = [];
  const take = (head: Head, found: readonly VerificationFinding[] | string, isWhole: boolean): void => {
    if (typeof found === 'string') {
      const { packId, ruleId } = head;
      outcomes.push({ packId, ruleId, verdict: 'cannot tell', margin: null, statesChecked: 0, why: found });
      return;
    }
    findings.push(...found.map((one) => findingOf(subject, head, one)));
    outcomes.push(outcomeOf(head, found, looked, isWhole));
  };
  for (const [i, check] of PROOF_CHECKS.entries()) {
    yield { done: i + 1, of, what: check.clause };
    const { kind, severity, clause } = check;
    subject = subject.renewed;
    const head: Head = { ...CONTROLS_HEAD, ruleId: kind, kind, severity, clause };
    take(
      head,
      toldOf(() => check.find(subject)),
      check.alone ?? counts.whole,
    );
  }
  yield { done: of - 3, of, what: 'operator actions' };
  for (const { pack, rule } of asked) {
    subject = subject.renewed;
    const found = toldOf(() => foundByRule(subject, rule));
    // These ask about some functions at a time.
    if (found !== null) take(ruleHead(pack, rule), found, true);
  }
  yield { done: of - 2, of, what: 'behaviour requirements' };
  for (const behaviour of subject.behaviours) {
    const head = headOf(build, asked, behaviour);
    subject = subject.renewed;
    const outcome = toldOf(() => outcomeOfBehaviour(subject, behaviour));
    if (typeof outcome === 'string') {
      take(head, outcome, counts.whole);
      continue;
    }
    const found = outcome.found === null ? [] : [outcome.found];
    findings.push(...found.map((one) => findingOf(subject, head, one)));
    outcomes.push(outcomeOf(head, found, outcome.looked, counts.whole));
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
    counts,
    findings: findings.toSorted((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity)),
    outcomes,
  };
}

/** What a question comes to, or why it cannot be told. */
function toldOf<T>(ask: () => T): T | string {
  try {
    return ask();
  } catch (problem) {
    if (problem instanceof CannotTell) return problem.message;
    throw problem;
  }
}

/** How many states there are, and are reached. */
export function countsOf(whole: ReachableSet): Counts {
  const { program } = whole;
  const ons = [...program.order.ons.values()].toSorted((a, b) => a - b);
  const output = program.outputStates(whole.states, program.order.ons.keys());
  return {
    raw: String(whole.raw),
    reachable: String(whole.count),
    pictures: String(program.diagrams.countOver(output, ons)),
    whole: whole.within === null,
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
  if (wish === undefined) throw new RangeError(`no behaviour has the id '${id}'`);
  return requirementHead(build, wish);
}

/** The proof at one go. */
export function verify(
  build: Build,
  checked: CheckResult | null = null,
  memory = new VerificationCache(),
): Verification {
  const run = verifying(build, checked, memory);
  for (;;) {
    const step = run.next();
    if (step.done === true) return step.value;
  }
}

/** What is told already of functions by themselves: rule, what about, mode. */
function knownOf(build: Build, { findings }: CheckResult): Known {
  const told = new Set(
    findings.flatMap(({ packId, ruleId, subjects, evidence: { state } }) =>
      state === null ? [] : [`${packId}|${ruleId}|${subjectsKey(subjects)}|${modeOf(build, state.on)}`],
    ),
  );
  return ({ head: { packId, ruleId } }, about, mode) => told.has(`${packId}|${ruleId}|${about}|${mode}`);
}

/** What a rule says of a state that the controls bring about, with the way there. */
function ruleFinding(
  subject: VerificationSubject,
  { asked, trouble, where, state, which }: RuleTrouble,
): Finding {
  const { head } = asked;
  const { subjects, sentence, channels, outcome, figure, limits, sectors } = trouble;
  const found = findingOf(subject, head, { subjects, sentence, where, channels });
  const there = subject.stateAt(where);
  return {
    ...found,
    id: findingId(head, which, subjects),
    outcome,
    figure,
    limits,
    evidence: {
      ...found.evidence,
      state,
      sectors,
      steps: [...found.evidence.steps, ...opened(subject.build, state, there)],
    },
  };
}

/** Steps that open what stands open in a state and not in another; nothing asks about those parts. */
const opened = (build: Build, state: State, there: State): TestStep[] =>
  movesOf(build)
    .filter(({ stop }) => state.open.includes(stop) && !there.open.includes(stop))
    .map(({ input, value }): TestStep => ({ kind: 'event', event: { kind: 'arrives', input, value } }));

function outcomeOf(
  { packId, ruleId }: Head,
  found: readonly VerificationFinding[],
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
  subject: VerificationSubject,
  head: Head,
  { subjects, sentence, where = null, channels = [], severity, outcome }: VerificationFinding,
): Finding {
  const way = where === null ? null : subject.stepsTo(where);
  const text =
    way?.inTime === false ? `${sentence} (With the times that are set, other timers end first.)` : sentence;
  return {
    ...head,
    outcome: outcome ?? 'fails',
    id: findingId(head, 'reached', subjects),
    subjects,
    severity: severity ?? head.severity,
    sentence: text.charAt(0).toUpperCase() + text.slice(1),
    figure: null,
    limits: [],
    evidence: {
      state: where === null ? null : subject.stateAt(where),
      channels,
      sectors: [],
      steps: [...(way?.steps ?? [])],
    },
  };
}
