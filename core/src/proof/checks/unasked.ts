import type { ModuleRef } from '../../design/schema.ts';
import { isWarning } from '../../resolve/channels.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import type { Found, ProofCheck } from '../found.ts';
import { byItself } from '../moves.ts';
import { partsOf } from '../space.ts';

/** White that comes on by itself while a door or hatch stands open: by the vehicle or a timer, not by an operator. */
export const unasked: ProofCheck = {
  kind: 'unasked-white',
  severity: 'advises',
  clause: 'White does not come on by itself with a door open',
  alone: true,
  find: (subject) => {
    const { reach, build } = subject;
    const { machine } = reach;
    const lookup = lookupOf(build);
    const isOutside = ({ placementId }: ModuleRef): boolean =>
      build.placements.some((p) => p.id === placementId && isWarning(lookup.fixture(p.fixtureId)));
    const doors = machine.programme.inputs.flatMap(({ id }, at) => (id.startsWith('part.') ? [at] : []));
    return machine.programme.ranked.flatMap((fn, rank): Found[] => {
      if (fn.kind === 'signal' || fn.kind === 'stage') return [];
      const white = subject
        .wantsOf(fn)
        .some(
          (want) => want?.claims.some(({ colour, drive }) => colour === 'white' && isOutside(drive)) === true,
        );
      if (!white) return [];
      // A door is told apart where it hangs together with the function.
      const together = new Set(partsOf(reach, [rank]).flatMap((at) => reach.parts[at]?.part.variables ?? []));
      const near = [...together].flatMap((v) => (v.kind === 'input' && doors.includes(v.at) ? [v.at] : []));
      const about = subject.about([fn.id], near);
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
      const open = space.where([], (values) => doors.some((at) => (values[at] ?? 0) > 0));
      const after = space.firstMove(
        (from, to) => isOn[from] !== 1 && isOn[to] === 1 && open[to] === 1,
        byItself,
      );
      if (after === null) return [];
      return [
        {
          about: fn.id,
          sentence: `${fn.name} lights white by itself while a door or hatch stands open.`,
          moment: subject.placeIn(about, after),
        },
      ];
    });
  },
};
