import { z } from 'zod';
import type { LitChannel } from '../../coverage/ring.ts';
import { bearingsIn, FACE_BEARINGS, sectorsWhere, sectorText } from '../../coverage/sectors.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf, highestCd } from '../../resolve/channels.ts';
import { MOST_FLASHES_A_SECOND, mostInASecond, risesOf } from '../../timing/patternFigures.ts';
import { clockParts } from '../../timing/timeline.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule, SHUT } from '../define.ts';
import { faces, facesField, Lamps, lampsField } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { flashes } from '../rhythmsOf.ts';
import { about } from '../subject.ts';

/**
 * How many flashes begin in any second as seen from one direction, in the worst alignment of what drifts: too urgent
 * for a parked stage, or too many for those whom flashing can harm.
 */
export const flashesASecond = defineRule({
  kind: 'flashes-a-second',
  title: 'Flashes in any second',
  blank: { faces: ['rear'], aboveCd: 10, most: 3 },
  home: 'timing',
  sees: 'light',
  schema: z.strictObject({
    kind: z.literal('flashes-a-second'),
    ...RULE_HEAD,
    faces,
    /** Lamps that send more than this toward a bearing count there, cd. */
    aboveCd: positive,
    most: z.int().min(1).max(100),
    lamps: Lamps.default('warning'),
  }),
  sentenceParts: (rule) => [
    'At most ',
    figure('most', rule.most, 'Most flashes in a second', { min: 1, max: 100, whole: true }),
    rule.most === 1 ? ' flash' : ' flashes',
    ' in any second to the ',
    facesField(rule.faces),
    ', from ',
    lampsField(rule.lamps),
    ', modules above ',
    figure('aboveCd', rule.aboveCd, 'Counts above, cd'),
    ' cd, everything closed',
  ],
  poses: () => SHUT,
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const looked = [...new Set(rule.faces.flatMap((face) => FACE_BEARINGS[face]))];
    const lit = at
      .lit(rule.lamps)
      .filter(({ drive }) => flashes(drive))
      .map((one) => ({ ...one, cd: highestCd(one.drive) }));
    const counted = new Map<string, Count>();
    const isSeen = ({ cd, share }: (typeof lit)[number], b: number): boolean =>
      cd * (share[b] ?? 0) > rule.aboveCd;
    const seen = (b: number): LitChannel[] => lit.filter((one) => isSeen(one, b));
    const most = new Map(
      looked.map((b) => {
        // The same channels are seen from many bearings: they are told apart by a bit each.
        const bits = new Int32Array(Math.ceil(lit.length / 32));
        for (const [i, one] of lit.entries())
          if (isSeen(one, b)) bits[i >> 5] = (bits[i >> 5] ?? 0) | (1 << (i & 31));
        const key = bits.join();
        const known = counted.get(key) ?? busiestSecond(seen(b));
        counted.set(key, known);
        return [b, known] as const;
      }),
    );
    const count = (b: number): number => most.get(b)?.most ?? 0;
    const worst = looked.reduce((a, b) => (count(b) > count(a) ? b : a));
    const figure = count(worst);
    const margin = roomBelow(figure, rule.most);
    if (figure <= rule.most) return [holds(margin)];
    const certain = looked.some((b) => count(b) > rule.most && most.get(b)?.exact === true);
    const sectors = sectorsWhere((b) => count(b) > rule.most);
    const danger =
      rule.most <= MOST_FLASHES_A_SECOND ? ' Flashing at 3 to 30 per second can cause seizures.' : '';
    return [
      fails({
        outcome: certain ? 'fails' : 'cannot tell',
        subjects: rule.faces.map((face) => about('face', face)),
        margin,
        sentence: `flashes in one second at ${worst}°: ${certain ? '' : 'up to '}${figure} (limit ${rule.most}). Affected: ${sectors.map(sectorText).join(', ')}.${danger}`,
        figure: { value: figure, unit: '/s' },
        limits: [atMost(rule.most, '/s')],
        channels: seen(worst).map(({ drive }) => channelOf(drive)),
        sectors,
        news: sectors.flatMap(bearingsIn),
      }),
    ];
  },
});

interface Count {
  readonly most: number;
  readonly exact: boolean;
}

/** Clocks that drift have their busiest seconds together some time, so those add up. */
function busiestSecond(seen: readonly LitChannel[]): Count {
  let most = 0;
  let exact = true;
  for (const { members, cycleMs, linked } of clockParts(seen.map((l) => l.drive))) {
    const rises = new Set<number>();
    for (const drive of members)
      for (const rise of risesOf(drive.spans, drive.cycleMs))
        for (let start = 0; start < cycleMs; start += drive.cycleMs) rises.add(start + rise);
    most += mostInASecond([...rises], cycleMs);
    exact &&= !linked;
  }
  return { most, exact };
}
