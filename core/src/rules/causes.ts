import { activeFunctionNames } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import type { Severity } from '../words/severity.ts';
import { counterpartsOf } from './counterpart.ts';
import type { Finding } from './finding.ts';
import type { Subject } from './subject.ts';

/** Findings that have one cause: the same is wrong to several faces, in several stages or by several packs. */
export interface Cause {
  /** The same for the same cause from one check to the next. */
  readonly key: string;
  /** The gravest of them, and of those with as little on the one that breaks its limit by most: told for all. */
  readonly first: Finding;
  /** With the first. */
  readonly findings: readonly Finding[];
}

/**
 * Findings by what causes them.
 * @param findings - the gravest first
 * @returns the gravest first
 */
export function causesOf(build: Build, findings: readonly Finding[]): Cause[] {
  const counterpart = counterpartsOf(build);
  const causes = new Map<string, [Finding, ...Finding[]]>();
  for (const finding of findings) {
    const key = causeKey(finding, counterpart);
    const known = causes.get(key);
    if (known === undefined) causes.set(key, [finding]);
    else known.push(finding);
  }
  return [...causes].map(([key, same]) => {
    const first = worstOf(same);
    return { key, first, findings: [first, ...same.filter((finding) => finding !== first)] };
  });
}

/** Of findings of one cause, the first of the gravest that no other exceeds with as little switched on. */
function worstOf(findings: readonly [Finding, ...Finding[]]): Finding {
  const [first, ...others] = findings;
  return others
    .filter((finding) => finding.severity === first.severity && switchedOn(finding) <= switchedOn(first))
    .reduce((worst, finding) => (beyond(finding) > beyond(worst) ? finding : worst), first);
}

const switchedOn = ({ evidence: { state } }: Finding): number => state?.on.length ?? 0;

/** How far a figure is beyond its limit, as a share of it; of a limit of nothing, itself. */
const beyond = ({ figure, limits }: Finding): number =>
  Math.max(
    0,
    ...limits.map(({ value, sense }) => {
      const by = figure === null ? 0 : sense === 'at most' ? figure.value - value : value - figure.value;
      return by / (Math.abs(value) || 1);
    }),
  );

/**
 * What is wrong, whoever asks and wherever: without pack and state, a thing for its counterpart on the other side, and
 * whatever is about the same things for any face.
 */
function causeKey({ kind, outcome, subjects }: Finding, counterpart: (one: Subject) => Subject): string {
  const isThing = ({ kind: of }: Subject): boolean => of !== 'face' && of !== 'topic';
  const told = subjects.filter(({ kind: of }) => of !== 'face' || !subjects.some(isThing));
  const keys = told.map((one) => [keyOf(one), keyOf(counterpart(one))].toSorted()[0] ?? '');
  return JSON.stringify([kind, outcome, ...[...new Set(keys)].toSorted()]);
}

const keyOf = ({ kind, id }: Subject): string => JSON.stringify([kind, id]);

/** What work on a vehicle does to its findings, by cause. */
export interface CausesOfWork {
  /** Of before: gone after it, and still there. */
  readonly gone: readonly Cause[];
  readonly stay: readonly Cause[];
  /** Of after: they were not there before. */
  readonly come: readonly Cause[];
}

/** Causes before work and after it, told apart by what they are of; each list the gravest first. */
export function causesOfWork(before: readonly Cause[], after: readonly Cause[]): CausesOfWork {
  const were = new Set(before.map(({ key }) => key));
  const are = new Set(after.map(({ key }) => key));
  return {
    gone: before.filter(({ key }) => !are.has(key)),
    stay: before.filter(({ key }) => are.has(key)),
    come: after.filter(({ key }) => !were.has(key)),
  };
}

/** How far a cause reaches beyond its first finding: "also in Stage 2; in Stage 3; by 2 packs; 4 findings"; empty when it does not. */
export function alsoAffectedText(build: Build, { first, findings }: Cause): string {
  if (findings.length === 1) return '';
  const whenOf = ({ evidence: { state } }: Finding): string =>
    state === null ? '' : activeFunctionNames(build, state.on);
  const others = [...new Set(findings.map(whenOf))].filter((when) => when !== '' && when !== whenOf(first));
  const packs = new Set(findings.map(({ packId }) => packId)).size;
  return [
    ...(others.length === 0 ? [] : [`also in ${others.slice(0, 3).join('; in ')}`]),
    ...(others.length > 3 ? [`and in ${others.length - 3} more`] : []),
    ...(packs === 1 ? [] : [`by ${packs} packs`]),
    `${findings.length} findings`,
  ].join('; ');
}

/** How many causes there are of each severity. */
export function countBySeverity(causes: readonly Cause[]): Record<Severity, number> {
  const counts: Record<Severity, number> = { blocks: 0, warns: 0, advises: 0, notes: 0 };
  for (const { first } of causes) counts[first.severity]++;
  return counts;
}
