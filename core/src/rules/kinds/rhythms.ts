import { z } from 'zod';
import { BEARINGS } from '../../coverage/field.ts';
import { bearingsIn, sectorsWhere, sectorText } from '../../coverage/sectors.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf, highestCd, rhythmOf, type Drive } from '../../resolve/channels.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule, SHUT } from '../define.ts';
import { Lamps, lampsField } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { flashes } from '../rhythmsOf.ts';
import { about } from '../subject.ts';

/**
 * How many different rhythms are seen from one direction: many at once distract and tell nothing. One pattern on
 * clocks that drift is a rhythm on each.
 */
export const rhythms = defineRule({
  kind: 'rhythms',
  title: 'Rhythms at once',
  blank: { aboveCd: 10, most: 3 },
  home: 'timing',
  sees: 'light',
  schema: z.strictObject({
    kind: z.literal('rhythms'),
    ...RULE_HEAD,
    /** Lamps that send more than this toward a bearing count there, cd. */
    aboveCd: positive,
    most: z.int().min(1).max(100),
    lamps: Lamps.default('warning'),
  }),
  sentenceParts: (rule) => [
    'At most ',
    figure('most', rule.most, 'Most rhythms', { min: 1, max: 100, whole: true }),
    rule.most === 1 ? ' different rhythm' : ' different rhythms',
    ' seen from one direction, from ',
    lampsField(rule.lamps),
    ', modules above ',
    figure('aboveCd', rule.aboveCd, 'Counts above, cd'),
    ' cd, everything closed',
  ],
  poses: () => SHUT,
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const lit = at.lit(rule.lamps).filter(({ drive }) => flashes(drive));
    const drivesAt = (b: number): Drive[] =>
      lit.filter(({ drive, share }) => highestCd(drive) * (share[b] ?? 0) > rule.aboveCd).map((l) => l.drive);
    const count = Array.from(
      { length: BEARINGS },
      (_, b) => new Set(drivesAt(b).map((d) => `${rhythmOf(d)} ${d.clockId}`)).size,
    );
    const most = Math.max(...count);
    const margin = roomBelow(most, rule.most);
    if (most <= rule.most) return [holds(margin)];
    const sectors = sectorsWhere((b) => (count[b] ?? 0) > rule.most);
    const worst = count.indexOf(most);
    return [
      fails({
        subjects: [about('topic', 'rhythms')],
        margin,
        sentence: `different rhythms visible at ${worst}°: ${most} (limit ${rule.most}). Affected: ${sectors.map(sectorText).join(', ')}.`,
        figure: { value: most, unit: 'rhythms' },
        limits: [atMost(rule.most, 'rhythms')],
        channels: drivesAt(worst).map(channelOf),
        sectors,
        news: sectors.flatMap(bearingsIn),
      }),
    ];
  },
});
