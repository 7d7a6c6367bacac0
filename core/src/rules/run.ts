import type { Build } from '../design/schema.ts';
import { drivenIn } from '../state/driven.ts';
import { onsKey, poseKey, sameOpen, stateKey, statesOf, type State } from '../state/state.ts';
import type { Drive } from '../resolve/channels.ts';
import { SEVERITIES } from '../words/severity.ts';
import type { CheckResult, Finding, Head, RuleOutcome } from './finding.ts';
import { fails, type Verdict, type IssueDraft, type Issue } from './judgement.ts';
import { DarkStages } from './darkStages.ts';
import { severalPartsOpen } from './severalPartsOpen.ts';
import type { PoseIndependentLimit } from './shown.ts';
import type { LayoutSubject } from './layout/subject.ts';
import { Situation } from './situation.ts';
import { findingId, subjectsKey } from './subject.ts';

/** Who asks, and how it is told. */
interface TaskHead extends Head {
  /** Whether a trouble is told once, whatever the stages; else once in each stage. */
  readonly once: boolean;
  /** Whether its outcome is told besides its findings. */
  readonly listed: boolean;
}

/** One thing to check, from whatever floor it comes. */
export type Task = TaskHead &
  (
    | {
        /** On the document, whatever the state. */
        readonly sees: 'document';
        readonly check: (subject: LayoutSubject) => readonly IssueDraft[];
      }
    | {
        /** In every state it speaks of: by what is driven alone, or by its light too. */
        readonly sees: 'driven' | 'light';
        readonly upperAboveM: number;
        readonly speaks: (state: State) => boolean;
        /** What it keeps to whatever stands open, for any pose of a state. */
        readonly limits: (at: Situation) => readonly PoseIndependentLimit[];
        readonly check: (at: Situation) => readonly Verdict[];
      }
  );

/** A state is told besides when it is worse than what was told by this share of the limit, and of what was told. */
const WORSE_SHARE = 0.1;

/** Whether a trouble is so much worse than another that it is worth saying besides. */
function isWorse({ margin }: Issue, { margin: told }: Issue): boolean {
  // What cannot be measured any more is worse than what can.
  if (margin === null || told === null) return margin === null && told !== null;
  return margin < told - WORSE_SHARE * Math.max(1, Math.abs(told));
}

/** What has come out of a task so far. */
class TaskResult {
  readonly task: Task;
  readonly troubles: { readonly trouble: Issue; readonly state: State | null }[] = [];
  statesChecked = 0;
  /** It fails in a state in which nothing lights. */
  unlit = false;
  margin: number | null = null;
  /** By what was said in a stage, the trouble that said it last. */
  readonly #told = new Map<string, Issue>();
  readonly #judged = new Set<string>();
  readonly #driven = new Map<readonly Drive[], number>();

  constructor(task: Task) {
    this.task = task;
  }

  /** Whether a state differs, for this task, from all that were judged while the same is on: equal outcomes are judged once. */
  isNew(build: Build, state: State): boolean {
    const driven = drivenIn(build, state);
    const number = this.#driven.get(driven) ?? this.#driven.size;
    this.#driven.set(driven, number);
    const pose = this.task.sees === 'light' ? poseKey(state.open) : '';
    const key = `${onsKey(state.on)}|${number}|${pose}`;
    if (this.#judged.has(key)) return false;
    this.#judged.add(key);
    return true;
  }

  /** Whether something is known to fail while the same is on. */
  knows({ on }: State, about: string): boolean {
    return this.troubles.some(
      ({ trouble, state }) =>
        trouble.outcome === 'fails' &&
        state !== null &&
        onsKey(state.on) === onsKey(on) &&
        trouble.about === about,
    );
  }

  /** Takes in how near a judgement is to its limit. */
  measure({ margin }: Verdict): void {
    if (margin !== null) this.margin = this.margin === null ? margin : Math.min(this.margin, margin);
  }

  /**
   * Takes a judgement in. A trouble that only repeats what earlier states of the stage showed says nothing new, unless it is
   * much worse.
   */
  add(judgement: Verdict, state: State | null): void {
    this.measure(judgement);
    if (judgement.outcome === 'holds') return;
    const { about, outcome } = judgement;
    const news = judgement.news.length === 0 ? [''] : judgement.news;
    const tells = news
      .map((token) =>
        [this.task.once || state === null ? '' : onsKey(state.on), outcome, about, token].join('|'),
      )
      .filter((token) => {
        const told = this.#told.get(token);
        return told === undefined || isWorse(judgement, told);
      });
    for (const token of tells) this.#told.set(token, judgement);
    if (tells.length > 0) this.troubles.push({ trouble: judgement, state });
  }

  get outcome(): RuleOutcome {
    const { packId, ruleId } = this.task;
    const failed = this.unlit || this.troubles.some(({ trouble }) => trouble.outcome === 'fails');
    const verdict = failed
      ? 'broken'
      : this.troubles.length > 0
        ? 'cannot tell'
        : this.statesChecked === 0
          ? 'silent'
          : 'holds';
    return { packId, ruleId, verdict, margin: this.margin, statesChecked: this.statesChecked };
  }

  get findings(): Finding[] {
    return this.troubles.map(({ trouble, state }) => findingOf(this.task, trouble, state));
  }
}

/**
 * Checks a build by tasks of every kind: what looks at the document once, all else in one loop over the states.
 *
 * @param only - looks at this state alone; null looks at every state
 * @returns findings, the gravest first, then in the order of the tasks and of the states; and outcomes in task order
 */
export function runTasks(
  build: Build,
  layout: LayoutSubject,
  tasks: readonly Task[],
  only: State | null,
): CheckResult {
  const records = tasks.map((task) => new TaskResult(task));
  for (const record of records)
    if (record.task.sees === 'document') {
      record.statesChecked = 1;
      for (const said of record.task.check(layout)) {
        const trouble = fails(said);
        const where = trouble.state ?? null;
        if (only === null || where === null || sameOpen(where.open, only.open)) record.add(trouble, where);
      }
    }
  const states = only === null ? statesOf(build) : [only];
  const dark = new DarkStages(build);
  for (const state of states)
    for (const record of records) {
      const { task } = record;
      if (task.sees === 'document' || !task.speaks(state)) continue;
      record.statesChecked++;
      if (!record.isNew(build, state)) continue;
      const at = new Situation(build, state, task.upperAboveM);
      const judgements = task.check(at);
      if (dark.isDark(state) && judgements.some(({ outcome }) => outcome === 'fails')) {
        record.unlit = true;
        for (const judgement of judgements) record.measure(judgement);
        dark.add(task, state);
      } else for (const judgement of judgements) record.add(judgement, state);
    }
  const shut = only === null ? states.filter(({ open }) => open.length === 0) : [];
  for (const record of records) lookOpenTogether(build, shut, record);
  const rank = (f: Finding) => SEVERITIES.indexOf(f.severity);
  return {
    findings: [...dark.findings, ...records.flatMap((r) => r.findings)].toSorted((a, b) => rank(a) - rank(b)),
    outcomes: records.filter((r) => r.task.listed).map((r) => r.outcome),
  };
}

/** Looks in all combinations of open parts for what is still in order in every state listed. */
function lookOpenTogether(build: Build, states: readonly State[], record: TaskResult): void {
  const { task } = record;
  if (task.sees === 'document') return;
  const looked = new Set<readonly Drive[]>();
  for (const state of states) {
    const driven = drivenIn(build, state);
    if (!task.speaks(state) || looked.has(driven)) continue;
    looked.add(driven);
    const shut = new Situation(build, state, task.upperAboveM);
    for (const limit of task.limits(shut)) {
      if (record.knows(state, subjectsKey(limit.subjects))) continue;
      const { poses, inconclusive: untold } = severalPartsOpen(shut, limit);
      for (const trouble of untold) record.add(trouble, state);
      for (const there of poses.map((open) => ({ ...state, open })))
        if (record.isNew(build, there))
          for (const judgement of task.check(new Situation(build, there, task.upperAboveM)))
            record.add(judgement, there);
    }
  }
}

function findingOf(task: Task, trouble: Issue, state: State | null): Finding {
  const { packId, packName, ruleId, kind, home, severity, clause } = task;
  const { outcome, sentence, figure, limits, channels, sectors, subjects } = trouble;
  const when = state === null ? 'always' : stateKey(state);
  return {
    outcome,
    id: findingId(task, when, subjects),
    subjects,
    packId,
    packName,
    ruleId,
    kind,
    home,
    severity,
    clause,
    sentence: sentence.charAt(0).toUpperCase() + sentence.slice(1),
    figure,
    limits,
    evidence: { state, channels, sectors, steps: [] },
  };
}
