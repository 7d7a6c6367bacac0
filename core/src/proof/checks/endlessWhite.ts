import { lookupOf } from '../../resolve/lookup.ts';
import type { Found, ProofCheck } from '../found.ts';
import { byOperator } from '../moves.ts';
import { partsOf } from '../space.ts';

/** White, or other light to see by, that no single action of an operator ends while it is on. */
export const endlessWhite: ProofCheck = {
  kind: 'endless-white',
  severity: 'warns',
  clause: 'White can be ended by hand',
  find: (subject) => {
    const { reach, build } = subject;
    const lookup = lookupOf(build);
    const inside = new Set(
      build.placements.filter((p) => lookup.fixture(p.fixtureId).kind === 'cabin').map((p) => p.id),
    );
    return reach.machine.programme.ranked.flatMap((fn, rank): Found[] => {
      if (fn.kind === 'signal') return [];
      const white = subject
        .wantsOf(fn)
        .some(
          (want) =>
            want?.claims.some(
              ({ colour, drive }) =>
                (fn.kind === 'light' || colour === 'white') && !inside.has(drive.placementId),
            ) === true,
        );
      if (!white || fn.kind === 'stage') return [];
      const space = subject.space(partsOf(reach, [rank]));
      if (space === null)
        return [
          {
            about: fn.id,
            sentence: `too many states to tell whether ${fn.name} can always be ended.`,
            outcome: 'cannot tell',
          },
        ];
      const off = space.isOn(rank).map((on) => 1 - on);
      const toOff = space.actions(off, byOperator, 'to');
      const held = toOff.findIndex((n) => n < 0 || n > 1);
      if (held < 0) return [];
      const places = space.placesOf(held);
      return [
        {
          about: fn.id,
          sentence: `${fn.name} lights white that no action of an operator ends.`,
          moment: { on: subject.onsAt(places), places },
        },
      ];
    });
  },
};
