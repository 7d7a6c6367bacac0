import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { bearingOf } from '../../geometry/direction.ts';
import { isWarning } from '../../resolve/channels.ts';
import { placeModules } from '../../resolve/place.ts';
import { FACES, facesAt } from '../../words/face.ts';
import { numberBetween } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { colours, coloursField, faces, facesField } from '../fields.ts';
import { atLeast, atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { mmDown, mmUp, pointing } from '../layout/subject.ts';
import { oncePerPair } from '../layout/layout.ts';
import { figure } from '../piece.ts';
import { formatNumber } from '../../words/quantity.ts';

const heightM = numberBetween(0, 8);

/** Optical centres of warning lamps between two heights from the ground, by colour and face. */
export const height = defineRule({
  kind: 'height',
  title: 'Height of lamps',
  blank: { colours: ['red'], faces: ['front'], leastM: 0.4, mostM: 2.5 },
  home: 'layout',
  sees: 'document',
  schema: z
    .strictObject({
      kind: z.literal('height'),
      ...RULE_HEAD,
      colours,
      faces,
      leastM: heightM,
      mostM: heightM,
    })
    .refine((r) => r.leastM <= r.mostM, 'leastM must not exceed mostM'),
  sentenceParts: (rule) => [
    'Warning lamps that can show ',
    coloursField(rule.colours),
    ' to the ',
    facesField(rule.faces),
    ' have their optical centre between ',
    figure('leastM', rule.leastM, 'Lowest centre, m', { min: 0, max: 8 }),
    ' and ',
    figure('mostM', rule.mostM, 'Highest centre, m', { min: 0, max: 8 }),
    ' m above ground, everything closed',
  ],
  findIssues: (subject, rule) =>
    oncePerPair(
      subject,
      subject.lamps.flatMap((p): IssueDraft[] => {
        const { lookup } = subject;
        if (!isWarning(lookup.fixture(p.fixtureId))) return [];
        const heights = placeModules(lookup, p, new Set()).flatMap(({ centre, module, frame }) => {
          const setup = p.modules.find((m) => m.id === module.id);
          const toward =
            module.distribution.h50Deg === null ? FACES : facesAt(bearingOf(frame.aim).bearingDeg);
          const counts =
            setup?.colours.some((c) => rule.colours.includes(c) && !setup.disabled.includes(c)) === true &&
            toward.some((face) => rule.faces.includes(face));
          return counts ? [centre[2]] : [];
        });
        const [low, high] = [Math.min(...heights), Math.max(...heights)];
        const between = `permitted ${formatNumber(rule.leastM * 1000)} to ${formatNumber(rule.mostM * 1000)} mm`;
        const limits = [atLeast(rule.leastM * 1000, 'mm'), atMost(rule.mostM * 1000, 'mm')];
        const at = (mm: number, text: string): IssueDraft => ({
          sentence: `${p.label}: optical centre ${text} mm above ground (${between}).`,
          figure: { value: mm, unit: 'mm' },
          limits,
          ...pointing([p]),
        });
        if (low < rule.leastM - 1e-9) return [at(low * 1000, mmDown(low))];
        return high > rule.mostM + 1e-9 ? [at(high * 1000, mmUp(high))] : [];
      }),
    ),
});
