import type { ModuleRef } from '../../design/schema.ts';
import { isWarning } from '../../resolve/channels.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { doorsOf, tiedTo } from '../doors.ts';
import type { Found, ProofCheck } from '../found.ts';
import { byItself } from '../moves.ts';

/** White that comes on by itself while a door or hatch stands open: by the vehicle or a timer, not by an operator. */
export const unasked: ProofCheck = {
  kind: 'unasked-white',
  severity: 'advises',
  clause: 'White does not come on by itself with a door open',
  alone: true,
  find: (subject) => {
    const { reach, build } = subject;
    const lookup = lookupOf(build);
    const isOutside = ({ placementId }: ModuleRef): boolean =>
      build.placements.some((p) => p.id === placementId && isWarning(lookup.fixture(p.fixtureId)));
    const doors = doorsOf(subject);
    return reach.machine.programme.ranked.flatMap((fn, rank): Found[] => {
      if (fn.kind === 'signal' || fn.kind === 'stage') return [];
      const white = subject
        .wantsOf(fn)
        .some(
          (want) => want?.claims.some(({ colour, drive }) => colour === 'white' && isOutside(drive)) === true,
        );
      if (!white) return [];
      // Doors that hang together with the function are told apart; of the others one is as good as all.
      const tied = tiedTo(subject, rank, doors);
      const free = doors.filter((door) => !tied.includes(door)).slice(0, 1);
      const told = [...tied, ...free];
      const about = subject.about(
        [fn.id],
        told.map(({ at }) => at),
      );
      if (about === null)
        return [
          {
            about: fn.id,
            sentence: `too many states to tell whether ${fn.name} comes on by itself.`,
            outcome: 'cannot tell',
          },
        ];
      const { space } = about;
      const isOn = space.isOn(about.ranks[0] ?? 0);
      const open = told.map(({ part, at }) => ({ part, is: space.where([], (v) => (v[at] ?? 0) > 0) }));
      const after = space.firstMove(
        (from, to) => isOn[from] !== 1 && isOn[to] === 1 && open.some(({ is }) => is[to] === 1),
        byItself,
      );
      if (after === null) return [];
      const door = open.find(({ is }) => is[after] === 1);
      return [
        {
          about: fn.id,
          sentence: `${fn.name} lights white by itself while the ${door?.part.name.toLowerCase() ?? 'door'} stands open.`,
          moment: subject.placeIn(about, after),
        },
      ];
    });
  },
};
