import { onsOf, activeFunctionNames } from '../../design/controls.ts';
import { litMs } from '../../timing/span.ts';
import { AMBIENTS } from '../../words/ambient.ts';
import type { RuleOf } from '../../rules/registry.ts';
import { NONE } from '../diagrams.ts';
import { doorsOf, isAnyOpen, namedBy } from '../doors.ts';
import type { VerificationFinding } from '../found.ts';
import type { VerificationSubject } from '../subject.ts';
import { STATED_AT_V } from '../../words/volts.ts';
import { about } from '../../rules/subject.ts';

/**
 * What comes on with a door or hatch, and draws much with the key off, the engine stopped and no timer that would end it:
 * for as long as the door stands open, or, where it is remembered, longer.
 */
export function standingDraws(
  subject: VerificationSubject,
  { maxW }: RuleOf<'standing-draw'>,
): VerificationFinding[] {
  const { build, programme, program } = subject;
  const { wired } = program;
  const doors = doorsOf(subject);
  return programme.ranked.flatMap((fn, rank): VerificationFinding[] => {
    const draws = onsOf(fn).map((on) => ({ on, w: drawW(subject, on) }));
    const most = draws.reduce((worst, one) => (one.w > worst.w ? one : worst), { on: '', w: 0 });
    const tied = namedBy(subject, rank, doors);
    if (fn.kind === 'signal' || tied.length === 0 || most.w <= maxW) return [];
    const still = ['ignition', 'engine'].flatMap((id) => wired.placeOf(id) ?? []);
    const reached = subject.reached.of([fn.id]);
    const { program: mine } = reached;
    const d = mine.diagrams;
    const isOn = mine.isOn(most.on);
    // What is on at rest does not come on with a door.
    if (d.and(isOn, reached.atRest) !== NONE) return [];
    const stays = d.all([
      reached.states,
      isOn,
      isAnyOpen(mine, tied),
      ...still.map((at) => mine.present.input(at)[0] ?? NONE),
      subject.quiet(reached),
    ]);
    const where = subject.nearest(stays, reached);
    if (where === null && reached.within !== null)
      return [
        {
          subjects: [about('function', most.on)],
          sentence: `${fn.name} does not stay on with an open door within ${reached.within} events. Longer sequences were not checked.`,
          outcome: 'cannot tell',
        },
      ];
    return where === null
      ? []
      : [
          {
            subjects: [about('function', most.on)],
            sentence: `${activeFunctionNames(build, [most.on])} draws ${Math.round(most.w)} W while a door is open, engine off, without a timer (limit ${maxW} W).`,
            where,
          },
        ];
  });
}

/** What a function by itself draws, by day or at night, whichever is more, W. */
function drawW({ showing }: VerificationSubject, on: string): number {
  return Math.max(
    ...AMBIENTS.map((ambient) =>
      showing
        .driven([on], ambient)
        .reduce((sum, d) => sum + (d.currentA * litMs(d.spans) * STATED_AT_V) / d.cycleMs, 0),
    ),
  );
}
