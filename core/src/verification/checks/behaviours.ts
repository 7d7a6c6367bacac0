import { leavesOf } from '../../design/condition.ts';
import { activeFunctionNames } from '../../design/controls.ts';
import { inputsOf } from '../../design/inputs.ts';
import type { Build } from '../../design/schema.ts';
import { subjectSentence } from '../../rules/brief/requirements/behaviour.ts';
import { bookOf } from '../../timing/book.ts';
import { AMBIENTS } from '../../words/ambient.ts';
import type { Behaviour } from '../behaviour.ts';
import { lateOf, whereSo } from '../behaviourSets.ts';
import { NONE } from '../diagrams.ts';
import type { RepresentativeState } from '../representative.ts';
import type { VerificationSubject } from '../subject.ts';
import type { VerificationFinding } from '../found.ts';
import { about, type Subject } from '../../rules/subject.ts';

/** What is said of behaviour, and what it comes to over every state. */
export interface BehaviourOutcome {
  readonly behaviour: Behaviour;
  /** Null when it holds. */
  readonly found: VerificationFinding | null;
  /** States in which it had something to say, as far as they differ. */
  readonly looked: number;
}

/** Who lights what should be dark: "; White override lights it". */
function lightsIt(subject: VerificationSubject, behaviour: Behaviour, where: RepresentativeState): string {
  if (behaviour.is !== 'dark') return '';
  const { on, ambient } = subject.stateAt(where);
  const drives = subject.showing.driven(on, ambient).filter((d) => subject.judge.counts(behaviour, d));
  const ons = drives.map((d) => d.on);
  return ons.length === 0 ? '' : `; ${activeFunctionNames(subject.build, [...new Set(ons)])} lights it`;
}

/** @throws {OverBudget} what lights is too much to tell */
export function outcomeOfBehaviour(subject: VerificationSubject, behaviour: Behaviour): BehaviourOutcome {
  const { build, diagrams: d, program, whole } = subject;
  const wanted = subjectSentence(build, behaviour);
  const { id, when, unless, says } = behaviour;
  const subjects = [about('requirement', id)];
  const gone = missingIn(build, behaviour);
  if (gone !== null) {
    const sentence = `it uses ${gone}.`;
    return { behaviour, looked: 0, found: { subjects, sentence, outcome: 'cannot tell' } };
  }
  const due = d.without(
    when === null ? whole.states : d.and(whole.states, program.holds(when)),
    unless === null ? NONE : program.holds(unless),
  );
  const looked = Number(d.countOver(due, program.levelsOf(program.parts)));
  const cut = whole.within === null ? {} : { outcome: 'cannot tell' as const };
  let isFollowed = true;
  let nearest: RepresentativeState | null = null;
  for (const ambient of AMBIENTS) {
    const mine = d.and(due, subject.statesIn(ambient));
    const so = program.statesWhere(whereSo(subject, behaviour, ambient));
    let sought = says === 'whenever' ? d.without(mine, so) : d.and(mine, so);
    if (says === 'whenever') {
      const late = lateOf(subject, behaviour, sought);
      sought = late.states;
      isFollowed &&= late.whole;
    }
    const depth: number = nearest?.events.length ?? Infinity;
    nearest = subject.nearest(depth === Infinity ? sought : whole.nearerThan(sought, depth)) ?? nearest;
  }
  if (says === 'possible') {
    const sentence = `not in any reachable state: ${wanted}.`;
    return { behaviour, looked, found: nearest !== null ? null : { subjects, sentence, ...cut } };
  }
  if (nearest !== null) {
    const sentence =
      says === 'never'
        ? `this occurs: ${wanted}.`
        : `required: ${wanted}. It fails${lightsIt(subject, behaviour, nearest)}.`;
    return { behaviour, looked, found: { subjects, sentence, where: nearest } };
  }
  return { behaviour, looked, found: openQuestion(whole.within, isFollowed, subjects) };
}

/** What keeps a behaviour that was nowhere found wanting from holding; null when nothing does. */
function openQuestion(
  within: number | null,
  isFollowed: boolean,
  subjects: readonly Subject[],
): VerificationFinding | null {
  const sentence =
    within !== null
      ? `passes for up to ${within} events. Longer sequences were not checked.`
      : isFollowed
        ? null
        : 'too many timers can run together. Not every order of expiry could be checked.';
  return sentence === null ? null : { subjects, sentence, outcome: 'cannot tell' };
}

/** What a behaviour names that the build does not have; null when all is there. */
function missingIn(build: Build, { subject, when, unless, patternId }: Behaviour): string | null {
  const { functions, loads, sets } = build.controls;
  const isFunction = (id: string): boolean => functions.some((fn) => fn.id === id);
  for (const condition of [when, unless])
    for (const leaf of condition === null ? [] : leavesOf(condition))
      if (leaf.kind === 'on' && !isFunction(leaf.functionId)) return 'a deleted function';
      else if (leaf.kind === 'is' && !inputsOf(build).some(({ id }) => id === leaf.input))
        return 'a deleted input';
  if (patternId !== null && bookOf(build).find(patternId) === undefined) return 'a deleted pattern';
  switch (subject.kind) {
    case 'function':
      return isFunction(subject.functionId) ? null : `a function '${subject.functionId}'`;
    case 'load':
      return loads.some(({ id }) => id === subject.loadId) ? null : `an output '${subject.loadId}'`;
    case 'lamps': {
      const { target } = subject;
      if (target?.kind === 'set' && !sets.some(({ id }) => id === target.setId)) return 'a deleted lamp set';
      if (target?.kind === 'group' && !build.timing.groups.some(({ id }) => id === target.groupId))
        return 'a deleted sync group';
      return null;
    }
  }
}
