import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf, type Drive } from '../../resolve/channels.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { countsLamp, Lamps, lampsField, PhotometricBasis, ofField, ofText } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { peakAgainstLimit, type LightLimit } from '../shown.ts';
import type { Situation } from '../situation.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

const Schema = z.strictObject({
  kind: z.literal('white-rear'),
  ...RULE_HEAD,
  aboveCd: positive,
  of: PhotometricBasis.default('sum'),
  lamps: Lamps.default('warning'),
});

/** No white to the rear except from reversing lamps that burn steadily, whatever stands open. */
export const whiteRear = defineRule({
  kind: 'white-rear',
  title: 'White to the rear',
  blank: { aboveCd: 40 },
  home: 'layout',
  sees: 'light',
  schema: Schema,
  sentenceParts: (rule) => [
    'No white above ',
    figure('aboveCd', rule.aboveCd, 'Counts above, cd'),
    ' cd ',
    ofField(rule.of),
    ' to the rear from ',
    lampsField(rule.lamps),
    ' except steady reversing lamps, any door position',
  ],
  limits: (rule, at) => [limit(at, rule)],
  countsChannel: (drive, rule) => drive.colour === 'white' && countsLamp(drive, rule.lamps),
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const shown = peakAgainstLimit(at, limit(at, rule));
    const margin = roomBelow(shown.cd, rule.aboveCd);
    if (shown.cd <= rule.aboveCd) return [holds(margin)];
    const drives = shown.channels.map(({ drive }) => drive);
    const flashed = drives.every((d) => isReversing(at, d));
    const what = flashed
      ? 'flashing white to the rear from the reversing lamps'
      : `white to the rear from ${at.lampsText(drives)}`;
    const but = flashed ? 'Reversing lamps must be steady' : 'Only steady reversing lamps are exempt';
    return [
      fails({
        outcome: shown.exact ? 'fails' : 'cannot tell',
        subjects: [about('topic', flashed ? 'reversing' : 'white')],
        margin,
        sentence: `${what}: ${shown.exact ? '' : 'up to '}${formatQuantity(shown.cd, 'cd', 'up')} ${ofText(rule.of)} at ${shown.bearing}° (limit ${formatQuantity(rule.aboveCd, 'cd')}). ${but}.`,
        figure: { value: shown.cd, unit: 'cd' },
        limits: [atMost(rule.aboveCd, 'cd')],
        channels: drives.map(channelOf),
        sectors: shown.sectors,
        news: shown.adding,
      }),
    ];
  },
});

const limit = (at: Situation, { aboveCd, of, lamps }: z.output<typeof Schema>): LightLimit => ({
  subjects: [about('topic', 'white')],
  colour: 'white',
  face: 'rear',
  aboveCd,
  of,
  lamps,
  counts: (drive) => !(drive.steady && isReversing(at, drive)),
});

/** Whether a channel is the vehicle's own reversing lamp, tied in. */
const isReversing = (at: Situation, { placementId }: Drive): boolean => {
  const zoneId = at.placement(placementId)?.zoneId;
  return at.lookup.vehicle.zones.some((z) => z.id === zoneId && z.tiesIn === 'reverse');
};
