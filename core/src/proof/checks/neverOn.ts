import { onKey, onsOf, onText } from '../../design/controls.ts';
import type { ControlFunction } from '../../design/functions.ts';
import type { ProofCheck } from '../found.ts';
import type { ProofSubject } from '../subject.ts';

/** Functions, and numbers of cycles, that no way of operating ever brings on. */
export const neverOn: ProofCheck = {
  kind: 'never-on',
  severity: 'warns',
  clause: 'Every function can be on',
  alone: true,
  find: (subject) =>
    subject.functions.flatMap((fn) => {
      const met = numbersOf(subject, fn);
      const never = onsOf(fn).filter((on) => met?.has(on) !== true);
      // Of a cycle that is never on, once is enough.
      return (never.length === fn.shows.length ? never.slice(0, 1) : never).map((on) => ({
        about: on,
        sentence: `${onText(subject.build, [on])} can never be on, whatever is operated.`,
        ...(met === null ? { outcome: 'cannot tell' as const } : {}),
      }));
    }),
};

/** The ways in which a function is on in some state; null when there are too many states to tell. */
function numbersOf(subject: ProofSubject, fn: ControlFunction): ReadonlySet<string> | null {
  const about = subject.about([fn.id]);
  if (about === null) return null;
  const rank = about.ranks[0] ?? 0;
  const met = new Set<string>();
  about.space.where([rank], (_, on, memory) => {
    if (on[rank] === 1) met.add(onKey(fn.id, fn.when.way === 'cycle' ? (memory[rank] ?? 1) : 1));
    return false;
  });
  return met;
}
