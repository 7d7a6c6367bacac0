import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { eyesInLane, Glares, ADAPTATION_LUMINANCE, thresholdIncrement } from '../../sight/glare.ts';
import { lightsIn } from '../../sight/source.ts';
import { positive } from '../../words/numbers.ts';
import { AmbientLevel } from '../../words/weather.ts';
import { defineRule } from '../define.ts';
import { ambientAt, aroundField } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure, oneOf } from '../piece.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

/** Who drives past the vehicle, or after it, is not dazzled by more than so much (CIE 146, CIE 140). */
export const glare = defineRule({
  kind: 'glare',
  title: 'Glare to traffic',
  blank: { lane: 'following', around: 'night', maxPercent: 1000 },
  home: 'visibility',
  sees: 'light',
  fromEyes: true,
  schema: z.strictObject({
    kind: z.literal('glare'),
    ...RULE_HEAD,
    lane: z.enum(['oncoming', 'following'], { error: 'must be oncoming or following' }),
    around: AmbientLevel,
    maxPercent: positive,
  }),
  sentenceParts: (rule) => [
    'Threshold increment for the ',
    oneOf('lane', rule.lane, 'Driver', [
      { value: 'oncoming', text: 'oncoming driver' },
      { value: 'following', text: 'following driver' },
    ]),
    ' is at most ',
    figure('maxPercent', rule.maxPercent, 'Threshold increment, %'),
    ' % ',
    aroundField(rule.around),
    ' at 10 to 200 m, peak',
  ],
  ambients: (rule) => ambientAt(rule.around),
  countsChannel: () => true,
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const glares = new Glares(lightsIn(at.build, at.state));
    const worst = eyesInLane(rule.lane, at.build.traffic)
      .map((eye) => ({
        ...eye,
        percent: thresholdIncrement(glares.highestVeil(eye), ADAPTATION_LUMINANCE[rule.around]),
      }))
      .reduce((a, b) => (b.percent > a.percent ? b : a));
    const margin = roomBelow(worst.percent, rule.maxPercent);
    if (worst.percent <= rule.maxPercent) return [holds(margin)];
    const channels = at.channelsOfMost(glares.at(worst).byLamp);
    return [
      fails({
        subjects: [about('lane', rule.lane)],
        margin,
        sentence: `glare, ${rule.lane} driver at ${worst.distanceM} m: threshold increment ${formatQuantity(worst.percent, '%', 'up')} (limit ${rule.maxPercent} %). Main source: ${at.lampsText(channels)}.`,
        figure: { value: worst.percent, unit: '%' },
        limits: [atMost(rule.maxPercent, '%')],
        channels,
      }),
    ];
  },
});
