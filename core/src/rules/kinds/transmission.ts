import { z } from 'zod';
import { lensPasses } from '../../design/placement.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { transmissionAlong } from '../../geometry/ray.ts';
import { isWarning } from '../../resolve/channels.ts';
import { placeModules } from '../../resolve/place.ts';
import { numberBetween } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { atLeast } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { oncePerPair } from '../layout/layout.ts';
import { pointing } from '../layout/subject.ts';
import { figure } from '../piece.ts';

/** What glass, cover and coloured lens leave of a warning lamp's light, along its aim. */
export const transmission = defineRule({
  kind: 'transmission',
  title: 'Light lost in glass and covers',
  blank: { leastPercent: 70 },
  home: 'layout',
  sees: 'document',
  schema: z.strictObject({
    kind: z.literal('transmission'),
    ...RULE_HEAD,
    leastPercent: numberBetween(1, 100),
  }),
  sentenceParts: (rule) => [
    'Glass, cover and lens pass at least ',
    figure('leastPercent', rule.leastPercent, 'Least that passes, %', { min: 1, max: 100 }),
    ' % of the light of each warning lamp along its aim, everything closed',
  ],
  findIssues: (subject, rule) => {
    const { lookup } = subject;
    const glass = lookup.vehicle.solids.filter((s) => s.transmission > 0 && s.transmission < 1);
    return oncePerPair(
      subject,
      subject.lamps.flatMap((p): IssueDraft[] => {
        if (!isWarning(lookup.fixture(p.fixtureId))) return [];
        const passed = placeModules(lookup, p, new Set()).flatMap(({ centre, module, frame }) => {
          const setup = p.modules.find((m) => m.id === module.id);
          const body = transmissionAlong(glass, centre, frame.aim) * p.lensTransmission;
          if (setup === undefined) return [];
          return setup.colours.map((c) => ({ colour: c, share: body * lensPasses(p, setup, c) }));
        });
        const least = passed.reduce((a, b) => (b.share < a.share ? b : a), { colour: '', share: Infinity });
        const percent = least.share * 100;
        if (percent >= rule.leastPercent - 1e-9) return [];
        return [
          {
            sentence: `${p.label}: ${Math.floor(percent)} % of its ${least.colour} light passes glass, cover and lens (minimum ${rule.leastPercent} %).`,
            figure: { value: percent, unit: '%' },
            limits: [atLeast(rule.leastPercent, '%')],
            ...pointing([p]),
          },
        ];
      }),
    );
  },
});
