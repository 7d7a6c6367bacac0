import { lookupOf } from '../../resolve/lookup.ts';
import { byOperator, towards } from '../actions.ts';
import { NONE } from '../diagrams.ts';
import type { Found, ProofCheck } from '../found.ts';

/** White, or other light to see by, that no actions of an operator end, the key left on. */
export const endlessWhite: ProofCheck = {
  kind: 'endless-white',
  severity: 'warns',
  clause: 'White can be ended by hand',
  find: (subject) => {
    const { build, diagrams: d, whole } = subject;
    const lookup = lookupOf(build);
    const inside = new Set(
      build.placements.filter((p) => lookup.fixture(p.fixtureId).kind === 'cabin').map((p) => p.id),
    );
    return subject.functions.flatMap((fn): Found[] => {
      if (fn.kind === 'signal' || fn.kind === 'stage') return [];
      const white = subject.cells.flatMap((cell) =>
        cell.answers.flatMap(({ when, drives }) =>
          drives.some((of) =>
            of.some(
              ({ colour, on, placementId }) =>
                subject.functionOf(on) === fn &&
                (fn.kind === 'light' || colour === 'white') &&
                !inside.has(placementId),
            ),
          )
            ? [subject.statesWhere(when, cell.ambient)]
            : [],
        ),
      );
      // Whether the white goes is asked, not whether the function does: a key that turns it red ends it.
      let held = d.any(white);
      if (held === NONE) return [];
      const dark = d.without(whole.states, held);
      for (const layer of towards(whole, dark, byOperator)) {
        held = d.without(held, layer);
        if (held === NONE) return [];
      }
      return [
        {
          about: fn.id,
          sentence: `${fn.name} lights white that no action of an operator ends while the key stays on.`,
          where: subject.nearest(held),
        },
      ];
    });
  },
};
