import { z } from 'zod';
import { powerRing } from '../../coverage/ring.ts';
import { bearingsIn, FACE_BEARINGS, faceSectorsWhere, sectorText } from '../../coverage/sectors.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { faceText } from '../../words/face.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule, SHUT } from '../define.ts';
import { ambientsOf, faces, facesField, Lamps, lampsField, When, whenField } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

/** At most so much optical power at any bearing of a face, everything shut: a rear that its crew can work behind. */
export const powerCeiling = defineRule({
  kind: 'power-ceiling',
  title: 'Most optical power',
  blank: { faces: ['rear'], ambient: 'night', maxCdsPerMin: 100_000 },
  home: 'visibility',
  sees: 'light',
  schema: z.strictObject({
    kind: z.literal('power-ceiling'),
    ...RULE_HEAD,
    faces,
    ambient: When,
    maxCdsPerMin: positive,
    lamps: Lamps.default('warning'),
  }),
  sentenceParts: (rule) => [
    'At most ',
    figure('maxCdsPerMin', rule.maxCdsPerMin, 'Most optical power, cd·s/min'),
    ' cd·s/min from ',
    lampsField(rule.lamps),
    ' at any bearing to the ',
    facesField(rule.faces),
    whenField('ambient', rule.ambient),
    ', everything closed',
  ],
  poses: () => SHUT,
  ambients: (rule) => ambientsOf(rule.ambient),
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const lit = at.lit(rule.lamps);
    const power = powerRing(lit);
    return rule.faces.map((face) => {
      const worst = FACE_BEARINGS[face].reduce((a, b) => ((power[b] ?? 0) > (power[a] ?? 0) ? b : a));
      const most = power[worst] ?? 0;
      const margin = roomBelow(most, rule.maxCdsPerMin);
      if (most <= rule.maxCdsPerMin) return holds(margin);
      const sectors = faceSectorsWhere(face, (b) => (power[b] ?? 0) > rule.maxCdsPerMin);
      const toward = lit.filter(({ drive, share }) => drive.peakCd * (share[worst] ?? 0) > 1);
      return fails({
        subjects: [about('face', face)],
        margin,
        sentence: `optical power ${faceText[face]}: ${formatQuantity(most, 'cd·s/min', 'up')} at ${worst}° (limit ${formatQuantity(rule.maxCdsPerMin, 'cd·s/min')}). Affected: ${sectors.map(sectorText).join(', ')}.`,
        figure: { value: most, unit: 'cd·s/min' },
        limits: [atMost(rule.maxCdsPerMin, 'cd·s/min')],
        channels: toward.map(({ drive }) => channelOf(drive)),
        sectors,
        news: sectors.flatMap(bearingsIn),
      });
    });
  },
});
