import type { RuleOf } from '../../rules/registry.ts';
import { byOperator, towards } from '../actions.ts';
import { NONE, type Diagram } from '../diagrams.ts';
import type { VerificationFinding } from '../found.ts';
import type { VerificationSubject } from '../subject.ts';
import type { SymbolicProgram } from '../symbolic.ts';
import { about } from '../../rules/subject.ts';

/** The functions that warn, by id: with a mode of at least 1. */
export const warningIds = ({ functions }: VerificationSubject): string[] =>
  functions.flatMap((fn) =>
    (fn.kind === 'stage' || fn.kind === 'warning') && (fn.mode ?? 0) >= 1 ? [fn.id] : [],
  );

/** The states of a program in which one of some functions is on. */
export function isAnyOn({ diagrams, wired, present }: SymbolicProgram, ids: readonly string[]): Diagram {
  return diagrams.any(ids.map((id) => present.isOn(wired.rankOf(id) ?? -1)));
}

/** States from which no actions of an operator lead to all warning off with the key left on, or more than a few. */
export function stuck(
  subject: VerificationSubject,
  { actionsToOff }: RuleOf<'all-off'>,
): VerificationFinding[] {
  const ids = warningIds(subject);
  if (ids.length === 0) return [];
  const reached = subject.reached.of(ids);
  const { program } = reached;
  const d = program.diagrams;
  let left = reached.states;
  let last = NONE;
  let needed = -1;
  for (const layer of towards(reached, d.not(isAnyOn(program, ids)), byOperator)) {
    const mine = d.and(left, layer);
    if (mine === NONE) continue;
    left = d.without(left, mine);
    last = mine;
    needed++;
    if (left === NONE) break;
  }
  if (left !== NONE) {
    const where = subject.nearest(left, reached);
    const on = where?.on.map((one) => subject.functionOf(one)).filter(({ id }) => ids.includes(id)) ?? [];
    const names = [...new Set(on.map(({ name }) => name))].join(' and ');
    return [
      {
        subjects: [about('topic', 'stuck')],
        sentence: `${names} can be on without any way to switch it off with the ignition on.`,
        where,
      },
    ];
  }
  if (needed > actionsToOff)
    return [
      {
        subjects: [about('topic', 'slow')],
        sentence: `switching all warning off takes up to ${needed} actions (limit ${actionsToOff}).`,
        where: subject.nearest(last, reached),
        severity: 'advises',
      },
    ];
  return reached.within === null
    ? []
    : [
        {
          subjects: [about('topic', 'too many')],
          sentence: `all warning can be switched off within ${reached.within} events. Longer sequences were not checked.`,
          outcome: 'cannot tell',
        },
      ];
}
