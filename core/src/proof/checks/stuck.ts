import type { RuleOf } from '../../rules/registry.ts';
import type { Found } from '../found.ts';
import { byOperator } from '../moves.ts';
import type { ProofSubject } from '../subject.ts';

/** The functions that warn, by id: with a mode of at least 1. */
export const warningIds = ({ functions }: ProofSubject): string[] =>
  functions.flatMap((fn) =>
    (fn.kind === 'stage' || fn.kind === 'warning') && (fn.mode ?? 0) >= 1 ? [fn.id] : [],
  );

/** States from which no actions of an operator lead to all warning off with the key left on, or more than a few. */
export function stuck(subject: ProofSubject, { actionsToOff }: RuleOf<'all-off'>): Found[] {
  const ids = warningIds(subject);
  if (ids.length === 0) return [];
  const about = subject.about(ids);
  if (about === null)
    return [
      {
        about: 'too many',
        sentence: 'too many states to tell whether all warning can be switched off.',
        outcome: 'cannot tell',
      },
    ];
  const { space, ranks } = about;
  const quiet = space.where(ranks, (_, on) => ranks.every((rank) => on[rank] !== 1));
  const actions = space.actions(quiet, byOperator, 'to');
  const worst = actions.reduce((at, a, state) => (rankOf(a) > rankOf(actions[at] ?? 0) ? state : at), 0);
  const needed = actions[worst] ?? 0;
  if (needed >= 0 && needed <= actionsToOff) return [];
  const moment = subject.placeIn(about, worst);
  return [
    needed < 0
      ? {
          about: 'stuck',
          sentence:
            'there are states from which no operator can switch all warning off while the key stays on.',
          moment,
        }
      : {
          about: 'slow',
          sentence: `from some states it takes ${needed} actions to switch all warning off; at most ${actionsToOff} is wanted.`,
          moment,
          severity: 'advises',
        },
  ];
}

const rankOf = (actions: number): number => (actions < 0 ? Infinity : actions);
