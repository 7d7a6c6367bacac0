import { voltageMismatch } from '../../timing/step.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { pointing } from '../layout/subject.ts';
import type { IssueDraft } from '../judgement.ts';

/** Lamps on a voltage they are not made for: they burn out or stay dark, which is no matter of step. */
export const voltageFaults = (subject: LayoutSubject): IssueDraft[] =>
  subject.lamps.flatMap((p): IssueDraft[] => {
    const fixture = subject.lookup.fixture(p.fixtureId);
    const groups = new Set(p.modules.map((m) => m.groupId));
    const wrong = subject.build.timing.groups.find(
      (g) => groups.has(g.id) && voltageMismatch(fixture, g.clock) !== null,
    );
    if (wrong === undefined) return [];
    return [
      {
        sentence: `${p.label} is ${voltageMismatch(fixture, wrong.clock) ?? ''} in sync group ${wrong.name}.`,
        figure: { value: wrong.clock.volts, unit: 'V' },
        ...pointing([p]),
      },
    ];
  });
