import { onsOf, onText, type On } from '../../design/controls.ts';
import type { ProofCheck } from '../found.ts';

/** Functions, and numbers of cycles, that no way of operating ever brings on. */
export const neverOn: ProofCheck = {
  kind: 'never-on',
  severity: 'warns',
  clause: 'Every function can be on',
  find: ({ build, functions, moments, pictures }) => {
    const met = new Set<On>();
    for (const { on } of pictures) for (const one of on) met.add(one);
    return functions.flatMap((fn) => {
      const never = onsOf(fn).filter((on) => !met.has(on));
      // Of a cycle that is never on, once is enough.
      return (never.length === fn.shows.length ? never.slice(0, 1) : never).map((on) => ({
        about: on,
        sentence: `${onText(build, [on])} can never be on, whatever is operated.`,
        ...(moments.whole ? {} : { outcome: 'cannot tell' as const }),
      }));
    });
  },
};
