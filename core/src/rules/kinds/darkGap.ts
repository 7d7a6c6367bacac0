import { z } from 'zod';
import { darkGapRing } from '../../coverage/ring.ts';
import { bearingsIn, FACE_BEARINGS, faceSectorsWhere, sectorText } from '../../coverage/sectors.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { faceText } from '../../words/face.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule, SHUT } from '../define.ts';
import { faces, facesField, Lamps, lampsField } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

/** The longest time any bearing of a face sees less than the threshold, everything shut, whatever the drift. */
export const darkGap = defineRule({
  kind: 'dark-gap',
  title: 'Longest darkness',
  blank: { faces: ['rear'], thresholdCd: 100, maxMs: 500 },
  home: 'timing',
  sees: 'light',
  schema: z.strictObject({
    kind: z.literal('dark-gap'),
    ...RULE_HEAD,
    faces,
    thresholdCd: positive,
    maxMs: positive,
    lamps: Lamps.default('warning'),
  }),
  sentenceParts: (rule) => [
    'Never below ',
    figure('thresholdCd', rule.thresholdCd, 'Dark below, cd'),
    ' cd from ',
    lampsField(rule.lamps),
    ' for longer than ',
    figure('maxMs', rule.maxMs, 'Longest darkness, ms'),
    ' ms to the ',
    facesField(rule.faces),
    ', everything closed',
  ],
  poses: () => SHUT,
  monotonicity: () => 'helps',
  check: (at, rule) => {
    const lit = at.lit(rule.lamps);
    return rule.faces.map((face) => {
      const bearings = FACE_BEARINGS[face];
      const gaps = darkGapRing(lit, rule.thresholdCd, bearings, {
        enoughMs: rule.maxMs,
        boundOnly: at.isBound,
      });
      const ms = (b: number): number => gaps.ms[b] ?? 0;
      const worst = bearings.reduce((a, b) => (ms(b) > ms(a) ? b : a));
      const longest = ms(worst);
      const margin = Number.isFinite(longest) ? roomBelow(longest, rule.maxMs) : null;
      const long = bearings.filter((b) => ms(b) > rule.maxMs);
      if (long.length === 0) return holds(margin);
      const certain = long.some((b) => gaps.exact[b] === true);
      const sectors = faceSectorsWhere(face, (b) => ms(b) > rule.maxMs);
      const never = !Number.isFinite(longest);
      const what = never
        ? `${certain ? '' : 'possibly '}unlimited`
        : `${certain ? '' : 'up to '}${formatQuantity(longest, 'ms', 'up')} at ${worst}°`;
      const toward = lit.filter(({ drive, share }) => long.some((b) => drive.peakCd * (share[b] ?? 0) > 1));
      return fails({
        outcome: certain ? 'fails' : 'cannot tell',
        subjects: [about('face', face)],
        margin,
        sentence: `dark interval ${faceText[face]}: ${what} (limit ${formatQuantity(rule.maxMs, 'ms')} below ${rule.thresholdCd} cd). Affected: ${sectors.map(sectorText).join(', ')}.`,
        figure: never ? null : { value: longest, unit: 'ms' },
        limits: [atMost(rule.maxMs, 'ms')],
        channels: toward.map(({ drive }) => channelOf(drive)),
        sectors,
        news: sectors.flatMap(bearingsIn),
      });
    });
  },
});
