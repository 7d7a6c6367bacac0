import { activeFunctionNames, readOn, type ActiveFunction } from '../../design/controls.ts';
import { AMBIENTS, type Ambient } from '../../words/ambient.ts';
import { NONE, type Diagram } from '../diagrams.ts';
import type { VerificationCheck } from '../found.ts';
import type { RepresentativeState } from '../representative.ts';
import type { VerificationSubject } from '../subject.ts';
import { about } from '../../rules/subject.ts';

/** With the ignition off and all timers ended, what still lights or runs and is not marked that it may stay: said once. */
export const leftOn: VerificationCheck = {
  kind: 'left-on',
  severity: 'warns',
  clause: 'Nothing is left on with the key off',
  find: (subject) => {
    const { diagrams: d, program, whole } = subject;
    const end = d.all([
      program.holds({ kind: 'is', input: 'ignition', values: ['off'] }),
      subject.quiet(whole),
    ]);
    const left: { readonly on: ActiveFunction; readonly where: RepresentativeState }[] = [];
    const known = new Set<string>();
    for (const on of subject.showing.ons) {
      const { id, mayStay } = subject.functionOf(on);
      if (mayStay || known.has(id)) continue;
      const states = d.any(AMBIENTS.map((ambient) => d.and(doing(subject, on, ambient), end)));
      const where = states === NONE ? null : subject.nearest(states);
      if (where === null) continue;
      known.add(id);
      left.push({ on, where });
    }
    const inOrder = left.toSorted((a, b) => a.where.events.length - b.where.events.length);
    const [first] = inOrder;
    if (first === undefined) return [];
    const ons = inOrder.map(({ on }) => on);
    const who = activeFunctionNames(subject.build, ons);
    return [
      {
        subjects: ons.map((on) => about('function', readOn(on).id)),
        sentence: `${who} ${ons.length === 1 ? 'stays' : 'stay'} on with the ignition off and ${ons.length === 1 ? 'is' : 'are'} not marked as permitted.`,
        where: first.where,
      },
    ];
  },
};

/** The states reached in which a function lights or runs something. */
function doing(subject: VerificationSubject, on: ActiveFunction, ambient: Ambient): Diagram {
  const { diagrams: d, program } = subject;
  if (subject.isLoading(on)) return d.and(subject.statesIn(ambient), program.isOn(on));
  const lit = subject.cells.flatMap((cell) =>
    cell.ambient === ambient
      ? cell.answers.flatMap(({ when, drives }) =>
          drives.some((of) => of.some((drive) => drive.on === on)) ? [when] : [],
        )
      : [],
  );
  return subject.statesWhere(d.any(lit), ambient);
}
