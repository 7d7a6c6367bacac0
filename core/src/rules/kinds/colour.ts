import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { COLOURS, type Colour } from '../../words/colour.ts';
import { faceText } from '../../words/face.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import {
  countsLamp,
  colours,
  coloursField,
  faces,
  facesField,
  Lamps,
  lampsField,
  Light,
  lightField,
  PhotometricBasis,
  ofField,
  ofText,
} from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure, oneOf } from '../piece.ts';
import { peakAgainstLimit, type LightLimit } from '../shown.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

const Schema = z.strictObject({
  kind: z.literal('colour'),
  ...RULE_HEAD,
  /** "only" permits just these colours; "never" forbids them. */
  verdict: z.enum(['only', 'never'], { error: "must be 'only' or 'never'" }),
  colours,
  faces,
  light: Light,
  /** Light counts as shown to a face above this, cd. */
  aboveCd: positive,
  of: PhotometricBasis.default('sum'),
  lamps: Lamps.default('warning'),
});

/** Colours permitted or forbidden toward a face, by stage and by steady or flashing, whatever stands open. */
export const colour = defineRule({
  kind: 'colour',
  title: 'Colours to a side',
  blank: { verdict: 'only', colours: ['red'], faces: ['rear'], light: 'any', aboveCd: 10 },
  home: 'layout',
  sees: 'light',
  schema: Schema,
  sentenceParts: (rule) => [
    oneOf('verdict', rule.verdict, 'Only these or none of these', [
      { value: 'only', text: 'Only' },
      { value: 'never', text: 'No' },
    ]),
    ' ',
    coloursField(rule.colours),
    ' ',
    lightField(rule.light),
    ' above ',
    figure('aboveCd', rule.aboveCd, 'Counts above, cd'),
    ' cd ',
    ofField(rule.of),
    ' to the ',
    facesField(rule.faces),
    ' from ',
    lampsField(rule.lamps),
    ', any door position',
  ],
  limits,
  countsChannel: (drive, rule) =>
    limits(rule).some((l) => l.colour === drive.colour && l.counts(drive)) && countsLamp(drive, rule.lamps),
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const may =
      rule.verdict === 'only'
        ? `Permitted: ${rule.colours.join(', ')}`
        : `Not permitted: ${rule.colours.join(', ')}`;
    const kind = rule.light === 'any' ? '' : `${rule.light} `;
    return limits(rule).map((limit) => {
      const shown = peakAgainstLimit(at, limit);
      const margin = roomBelow(shown.cd, rule.aboveCd);
      if (shown.cd <= rule.aboveCd) return holds(margin);
      const drives = shown.channels.map(({ drive }) => drive);
      return fails({
        outcome: shown.exact ? 'fails' : 'cannot tell',
        subjects: limit.subjects,
        margin,
        sentence: `${kind}${limit.colour} ${faceText[limit.face]}: ${shown.exact ? '' : 'up to '}${formatQuantity(shown.cd, 'cd', 'up')} ${ofText(rule.of)} at ${shown.bearing}° (limit ${formatQuantity(rule.aboveCd, 'cd')}), from ${at.lampsText(drives)}. ${may}.`,
        figure: { value: shown.cd, unit: 'cd' },
        limits: [atMost(rule.aboveCd, 'cd')],
        channels: drives.map(channelOf),
        sectors: shown.sectors,
        news: shown.adding,
      });
    });
  },
});

function limits(rule: z.output<typeof Schema>): LightLimit[] {
  const listed = new Set<Colour>(rule.colours);
  const forbidden = COLOURS.filter((c) => listed.has(c) === (rule.verdict === 'never'));
  return rule.faces.flatMap((face) =>
    forbidden.map((c) => ({
      subjects: [about('face', face), about('colour', c)],
      colour: c,
      face,
      aboveCd: rule.aboveCd,
      of: rule.of,
      lamps: rule.lamps,
      counts: (drive) => rule.light === 'any' || drive.steady === (rule.light === 'steady'),
    })),
  );
}
