import { onsOf, onText } from '../../design/controls.ts';
import { litMs } from '../../timing/span.ts';
import { AMBIENTS } from '../../words/ambient.ts';
import type { RuleOf } from '../../rules/registry.ts';
import { doorsOf, namedBy } from '../doors.ts';
import type { Found } from '../found.ts';
import { isQuiet } from '../questions.ts';
import type { ProofSubject } from '../subject.ts';
import { STATED_AT_V } from '../../words/volts.ts';

/**
 * What comes on with a door or hatch, and draws much with the key off, the engine stopped and no timer that would end it:
 * for as long as the door stands open, or, where it is remembered, longer.
 */
export function standingDraws(subject: ProofSubject, { maxW }: RuleOf<'standing-draw'>): Found[] {
  const { build, reach } = subject;
  const { wired, programme } = reach.machine;
  const doors = doorsOf(subject);
  return programme.ranked.flatMap((fn, rank): Found[] => {
    const draws = onsOf(fn).map((on) => ({ on, w: drawW(subject, on) }));
    const most = draws.reduce((worst, one) => (one.w > worst.w ? one : worst), { on: '', w: 0 });
    const tied = namedBy(subject, rank, doors);
    if (fn.kind === 'signal' || tied.length === 0 || most.w <= maxW) return [];
    const still = ['ignition', 'engine'].flatMap((id) => wired.placeOf(id) ?? []);
    const about = subject.about([fn.id], [...still, ...tied.map(({ at }) => at)]);
    if (about === null)
      return [
        {
          about: most.on,
          sentence: `too many states to tell whether ${fn.name} may stay on with a door.`,
          outcome: 'cannot tell',
        },
      ];
    const { space, ranks, reach: walked } = about;
    const own = ranks[0] ?? 0;
    const quiet = isQuiet(walked.machine);
    // Rest is the first state: what is on there does not come on with a door.
    const stays = space.where([own], (values, on, memory, phases) => {
      const isOpen = tied.some(({ at }) => (values[at] ?? 0) > 0);
      return on[own] === 1 && isOpen && still.every((at) => values[at] === 0) && quiet({ memory, phases });
    });
    const there = space.isOn(own)[0] === 1 ? -1 : space.nearest(stays).indexOf(1);
    return there < 0
      ? []
      : [
          {
            about: most.on,
            sentence: `${onText(build, [most.on])} draws ${Math.round(most.w)} W for as long as a door stands open, with the engine stopped and no timer; at most ${maxW} W is wanted.`,
            moment: subject.placeIn(about, there),
          },
        ];
  });
}

/** What a function by itself draws, by day or at night, whichever is more, W. */
function drawW({ showing }: ProofSubject, on: string): number {
  return Math.max(
    ...AMBIENTS.map((ambient) =>
      showing
        .driven([on], ambient)
        .reduce((sum, d) => sum + (d.currentA * litMs(d.spans) * STATED_AT_V) / d.cycleMs, 0),
    ),
  );
}
