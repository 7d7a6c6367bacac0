import { COLOURS } from '../../words/colour.ts';
import { listed } from '../../words/listed.ts';
import { partInput, SHUT } from '../../design/inputs.ts';
import type { ControlFunction } from '../../design/functions.ts';
import type { Drive } from '../../resolve/channels.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { byOperator, towards, type Cost } from '../actions.ts';
import { NONE } from '../diagrams.ts';
import { doorsOf } from '../doors.ts';
import type { VerificationFinding, VerificationCheck } from '../found.ts';
import type { VerificationSubject } from '../subject.ts';
import { about } from '../../rules/subject.ts';

/**
 * Light that neither an operator's actions, the door that brought it on nor a timer ends, the key left on: white, light to see
 * by, and flashing that no mode tells. What warns in a mode is asked about by itself (`stuck`).
 */
export const whiteCannotBeEnded: VerificationCheck = {
  kind: 'endless-white',
  severity: 'warns',
  clause: 'Light that comes on can be ended',
  find: (subject) => {
    const { diagrams: d, program, whole } = subject;
    const cost = byHandOrDoor(subject);
    const outside = isOutside(subject);
    return subject.functions.flatMap((fn): VerificationFinding[] => {
      if (fn.kind === 'signal' || fn.kind === 'stage') return [];
      const counts = (drive: Drive): boolean =>
        subject.functionOf(drive.on) === fn && outside(drive) && isAsked(fn, drive);
      const lit = d.any(
        subject.cells.map(({ answers, ambient }) => {
          const ons = answers.flatMap(({ when, drives }) =>
            drives.some((of) => of.some(counts)) ? [when] : [],
          );
          return d.and(program.statesWhere(d.any(ons)), subject.around(ambient));
        }),
      );
      // Whether the light goes is asked, not whether the function does: a key that turns white red ends the white.
      let held = d.and(whole.states, lit);
      if (held === NONE) return [];
      for (const layer of towards(whole, d.not(lit), cost)) {
        held = d.without(held, layer);
        if (held === NONE) return [];
      }
      const colours = new Set(
        subject.cells.flatMap(({ answers }) =>
          answers.flatMap(({ drives }) =>
            drives
              .flat()
              .filter(counts)
              .map(({ colour }) => colour),
          ),
        ),
      );
      const what = isToldByColour(fn)
        ? listed(
            COLOURS.filter((c) => colours.has(c)),
            'and',
          )
        : 'lamps';
      return [
        {
          subjects: [about('function', fn.id)],
          sentence: `${fn.name} lights ${what} that no operator action, closed door or timer ends with the ignition on.`,
          where: subject.nearest(held),
        },
      ];
    });
  },
};

/** Of light to see by all counts; of what warns in a mode the white, of other warning all. */
const isAsked = (fn: ControlFunction, { colour }: Drive): boolean =>
  fn.kind === 'light' || colour === 'white' || (fn.kind === 'warning' && (fn.mode ?? 0) === 0);

/** Told by its colours; of other warning any colour is as unwanted. */
const isToldByColour = ({ kind }: ControlFunction): boolean => kind !== 'warning';

function isOutside({ build }: VerificationSubject): (drive: Drive) => boolean {
  const lookup = lookupOf(build);
  const inside = new Set(
    build.placements.filter((p) => lookup.fixture(p.fixtureId).kind === 'cabin').map((p) => p.id),
  );
  return ({ placementId }) => !inside.has(placementId);
}

/** An operator acts; doors and hatches are shut besides, and timers end. */
function byHandOrDoor(subject: VerificationSubject): Cost {
  const doors = new Set(doorsOf(subject).map(({ part }) => partInput(part.id)));
  return (one) => {
    const { event } = one;
    const shuts = event.kind === 'arrives' && event.value === SHUT && doors.has(event.input);
    return shuts ? 0 : byOperator(one);
  };
}
