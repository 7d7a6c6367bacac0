import { z } from 'zod';
import { listOf, RULE_HEAD } from '../../design/rulePack.ts';
import { FACTORY_FUNCTIONS, FactoryFunction } from '../../words/factoryFunction.ts';
import { defineRule } from '../define.ts';
import type { IssueDraft } from '../judgement.ts';
import { lampsAt } from '../layout/atFactoryLamp.ts';
import { pointing } from '../layout/subject.ts';
import { someOf } from '../piece.ts';
import { about } from '../subject.ts';

/** Lamps of the maker's are left as they are: none put into them, before them, or tied to them. */
export const signalUntouched = defineRule({
  kind: 'signal-untouched',
  title: 'Maker’s lamps left alone',
  blank: { signals: ['turn', 'stop', 'tail'] },
  home: 'layout',
  sees: 'document',
  schema: z.strictObject({
    kind: z.literal('signal-untouched'),
    ...RULE_HEAD,
    signals: listOf(FactoryFunction, 'lamp'),
  }),
  sentenceParts: (rule) => [
    'No change to factory lamps or their wiring for ',
    someOf('signals', rule.signals, 'Factory lamps', FACTORY_FUNCTIONS),
  ],
  findIssues: (subject, rule) =>
    subject.lookup.vehicle.factoryLamps
      .filter(({ does }) => rule.signals.includes(does))
      .flatMap((lamp) =>
        lampsAt(subject, lamp).map((p): IssueDraft => {
          const how =
            subject.lookup.fixture(p.fixtureId).kind === 'factory' ? 'is connected to' : 'is placed at';
          const points = pointing([p]);
          return {
            sentence: `${p.label} ${how} the ${lamp.name.toLowerCase()}, which must stay untouched.`,
            ...points,
            subjects: [about('factory lamp', lamp.id), ...points.subjects],
          };
        }),
      ),
});
