import type { Build } from '../design/schema.ts';
import { InputError, parseInput } from '../words/errors.ts';
import { Acceptance, MOST_ACCEPTED } from '../design/acceptance.ts';
import { stateKey } from '../state/state.ts';
import type { Finding } from './finding.ts';
import { findingId } from './subject.ts';

/** A figure that differs by less is the same, as a share. */
const SAME = 0.001;

/** Whether what was accepted is still so: the same limits, and a figure that is not worse. */
function stands(acceptance: Acceptance, { sentence, figure, limits }: Finding): boolean {
  if (limits.map(({ value }) => value).join() !== acceptance.limits.join()) return false;
  if (figure === null || acceptance.figure === null)
    return figure === acceptance.figure && sentence === acceptance.sentence;
  const by = (figure.value - acceptance.figure) / Math.max(Math.abs(acceptance.figure), 1e-9);
  const senses = new Set(limits.map(({ sense }) => sense));
  if (senses.size !== 1) return Math.abs(by) <= SAME;
  return senses.has('at most') ? by <= SAME : by >= -SAME;
}

/** Checks of which one lamp may break several; until schema 15 all those findings had one id. */
const SHARED = new Set(['keep-out', 'room', 'aim-range']);

/** The id that a finding had while it shared one; null for the others. */
function sharedId({ packId, ruleId, subjects, evidence: { state } }: Finding): string | null {
  if (packId !== 'layout' || !SHARED.has(ruleId)) return null;
  return findingId({ packId, ruleId }, state === null ? 'always' : stateKey(state), subjects.slice(0, 1));
}

/** What was accepted under a shared id holds for the finding with its figure alone. */
function sharedAcceptance(finding: Finding, by: ReadonlyMap<string, Acceptance>): Acceptance | undefined {
  const acceptance = by.get(sharedId(finding) ?? '');
  const figure = finding.figure?.value ?? null;
  if (acceptance === undefined || figure === null || acceptance.figure === null) return undefined;
  return Math.abs(figure - acceptance.figure) <= SAME * Math.abs(acceptance.figure) ? acceptance : undefined;
}

/** Findings as they stand before whoever signs: open, and let stand by somebody. */
export interface AcceptanceStatus {
  readonly open: readonly Finding[];
  readonly accepted: readonly { readonly finding: Finding; readonly acceptance: Acceptance }[];
  /** Accepted once, but it has become worse or another since: open again. */
  readonly outgrown: ReadonlyMap<string, Acceptance>;
  /** Accepted once, and no longer found. */
  readonly gone: readonly Acceptance[];
}

/** How findings stand. @param findings - all there are, of every check */
export function acceptanceStatusOf({ accepted }: Build, findings: readonly Finding[]): AcceptanceStatus {
  const by = new Map(accepted.map((one) => [one.id, one]));
  const ids = new Set(findings.flatMap((finding) => [finding.id, sharedId(finding) ?? finding.id]));
  const taken = findings.flatMap((finding) => {
    const acceptance = by.get(finding.id) ?? sharedAcceptance(finding, by);
    return acceptance === undefined ? [] : [{ finding, acceptance, still: stands(acceptance, finding) }];
  });
  const still = new Set(taken.filter((t) => t.still).map(({ finding }) => finding));
  return {
    open: findings.filter((finding) => !still.has(finding)),
    accepted: taken.filter((t) => t.still).map(({ finding, acceptance }) => ({ finding, acceptance })),
    outgrown: new Map(
      taken.filter((t) => !t.still).map(({ finding, acceptance }) => [finding.id, acceptance]),
    ),
    gone: accepted.filter(({ id }) => !ids.has(id)),
  };
}

/** Who lets something stand, why, and when, year-month-day. */
export type Word = Pick<Acceptance, 'reason' | 'by' | 'on'>;

/**
 * Lets findings stand as they are now.
 * @throws {InputError} no reason, no name, no date, or too many
 */
export function accept(build: Build, findings: readonly Finding[], word: Word): Build {
  const ids = new Set(findings.map(({ id }) => id));
  const made = findings.map(({ id, sentence, figure, limits }) =>
    parseInput(Acceptance, {
      ...word,
      id,
      sentence,
      figure: figure?.value ?? null,
      limits: limits.map(({ value }) => value),
    }),
  );
  const accepted = [...build.accepted.filter(({ id }) => !ids.has(id)), ...made];
  if (accepted.length > MOST_ACCEPTED)
    throw new InputError('accepted', `no more than ${MOST_ACCEPTED} findings can be accepted in a build`);
  return { ...build, accepted };
}

/** Takes acceptances back. */
export const withdraw = (build: Build, ids: readonly string[]): Build => ({
  ...build,
  accepted: build.accepted.filter(({ id }) => !ids.includes(id)),
});
