import { lookupOf } from '../../resolve/lookup.ts';
import type { Found, ProofCheck } from '../found.ts';
import { byOperator } from '../moves.ts';

/** White, or other light to see by, that no single action of an operator ends while it is on, the key left on. */
export const endlessWhite: ProofCheck = {
  kind: 'endless-white',
  severity: 'warns',
  clause: 'White can be ended by hand',
  alone: true,
  find: (subject) => {
    const { reach, build } = subject;
    const lookup = lookupOf(build);
    const inside = new Set(
      build.placements.filter((p) => lookup.fixture(p.fixtureId).kind === 'cabin').map((p) => p.id),
    );
    return reach.machine.programme.ranked.flatMap((fn): Found[] => {
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
      const about = subject.about([fn.id]);
      if (about === null)
        return [
          {
            about: fn.id,
            sentence: `too many states to tell whether ${fn.name} can always be ended.`,
            outcome: 'cannot tell',
          },
        ];
      const { space } = about;
      const off = space.isOn(about.ranks[0] ?? 0).map((on) => 1 - on);
      const toOff = space.actions(off, byOperator, 'to');
      const held = toOff.findIndex((n) => n < 0 || n > 1);
      if (held < 0) return [];
      return [
        {
          about: fn.id,
          sentence: `${fn.name} lights white that no action of an operator ends while the key stays on.`,
          moment: subject.placeIn(about, held),
        },
      ];
    });
  },
};
