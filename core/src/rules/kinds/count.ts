import { z } from 'zod';
import { mostToward } from '../../coverage/sectors.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf, highestCd } from '../../resolve/channels.ts';
import { faceText } from '../../words/face.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule, SHUT } from '../define.ts';
import {
  countsLamp,
  colours,
  coloursField,
  faces,
  facesField,
  Lamps,
  lampsField,
  Level,
  levelField,
  textOf,
} from '../fields.ts';
import { atLeast, atMost } from '../finding.ts';
import { fails, holds, roomAbove, roomBelow } from '../judgement.ts';
import { figure, oneOf } from '../piece.ts';
import { about } from '../subject.ts';

/** So many lamps of some colours toward each face: at least, or at most. */
export const count = defineRule({
  kind: 'count',
  title: 'Number of lamps',
  blank: { verdict: 'at least', lampCount: 2, level: 'any', colours: ['red'], faces: ['rear'], aboveCd: 10 },
  home: 'layout',
  sees: 'light',
  schema: z.strictObject({
    kind: z.literal('count'),
    ...RULE_HEAD,
    verdict: z.enum(['at least', 'at most'], { error: "must be 'at least' or 'at most'" }),
    lampCount: z.int().min(0).max(200),
    level: Level,
    colours,
    faces,
    /** A lamp counts toward a face to which it sends more than this at some bearing, cd. */
    aboveCd: positive,
    lamps: Lamps.default('warning'),
  }),
  sentenceParts: (rule) => [
    oneOf('verdict', rule.verdict, 'At least or at most', [
      { value: 'at least', text: 'At least' },
      { value: 'at most', text: 'At most' },
    ]),
    ' ',
    figure('lampCount', rule.lampCount, 'Number of lamps', { min: 0, max: 200, whole: true }),
    ' ',
    levelField(rule.level),
    lampsField(rule.lamps),
    ' show ',
    coloursField(rule.colours),
    ' above ',
    figure('aboveCd', rule.aboveCd, 'Counts above, cd'),
    ' cd to the ',
    facesField(rule.faces),
    ', each, everything closed',
  ],
  poses: () => SHUT,
  countsChannel: (drive, rule) => rule.colours.includes(drive.colour) && countsLamp(drive, rule.lamps),
  monotonicity: (rule) => (rule.verdict === 'at least' ? 'helps' : 'hurts'),
  check: (at, rule) => {
    const lit = at.lit(rule.lamps, rule.level).filter(({ drive }) => rule.colours.includes(drive.colour));
    return rule.faces.map((face) => {
      const toward = lit.filter(
        ({ drive, share }) => highestCd(drive) * mostToward(share, face) > rule.aboveCd,
      );
      const found = new Set(toward.map(({ drive }) => drive.placementId)).size;
      const least = rule.verdict === 'at least';
      const margin = rule.lampCount === 0 ? null : (least ? roomAbove : roomBelow)(found, rule.lampCount);
      if (least ? found >= rule.lampCount : found <= rule.lampCount) return holds(margin);
      const level = rule.level === 'any' ? '' : `${rule.level} `;
      const lamps = `${level}${rule.lamps === 'all' ? '' : 'warning '}lamps with ${textOf(rule.colours)}`;
      return fails({
        subjects: [about('face', face)],
        margin,
        sentence: `${lamps} ${faceText[face]}: ${found} (${least ? 'minimum' : 'limit'} ${rule.lampCount}).`,
        figure: { value: found, unit: 'lamps' },
        limits: [(least ? atLeast : atMost)(rule.lampCount, 'lamps')],
        channels: toward.map(({ drive }) => channelOf(drive)),
      });
    });
  },
});
