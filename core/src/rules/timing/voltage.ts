import { whyWrongVolts } from '../../timing/step.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { pointing } from '../layout/subject.ts';
import type { Said } from '../judgement.ts';

/** Lamps on a voltage they are not made for: they burn out or stay dark, which is no matter of step. */
export const voltageFaults = (subject: LayoutSubject): Said[] =>
  subject.lamps.flatMap((p): Said[] => {
    const fixture = subject.lookup.fixture(p.fixtureId);
    const groups = new Set(p.modules.map((m) => m.groupId));
    const wrong = subject.build.timing.groups.find(
      (g) => groups.has(g.id) && whyWrongVolts(fixture, g.clock) !== null,
    );
    if (wrong === undefined) return [];
    return [
      {
        sentence: `${p.label} is ${whyWrongVolts(fixture, wrong.clock) ?? ''} in sync group ${wrong.name}.`,
        figure: { value: wrong.clock.volts, unit: 'V' },
        ...pointing([p]),
      },
    ];
  });
