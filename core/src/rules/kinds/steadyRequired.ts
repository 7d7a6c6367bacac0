import { z } from 'zod';
import { FACE_BEARINGS } from '../../coverage/sectors.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { apartDeg } from '../../geometry/direction.ts';
import { channelOf, highestCd } from '../../resolve/channels.ts';
import { Colour, COLOURS } from '../../words/colour.ts';
import { Face, FACES, faceText } from '../../words/face.ts';
import { positive, numberBetween } from '../../words/numbers.ts';
import { defineRule, SHUT } from '../define.ts';
import { countsLamp, Lamps, lampsField } from '../fields.ts';
import { atLeast } from '../finding.ts';
import { fails, holds, roomAbove } from '../judgement.ts';
import { figure, oneOf } from '../piece.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

const plain = (values: readonly string[]) => values.map((value) => ({ value, text: value }));

/** A steady light of one colour straight out of a face. */
export const steadyRequired = defineRule({
  kind: 'steady-required',
  title: 'Steady light',
  blank: { colour: 'red', face: 'front', minCd: 100, withinDeg: 5 },
  home: 'timing',
  sees: 'light',
  schema: z.strictObject({
    kind: z.literal('steady-required'),
    ...RULE_HEAD,
    colour: Colour,
    face: Face,
    /** In all, cd. */
    minCd: positive,
    /** From straight out of the face, either way. */
    withinDeg: numberBetween(0, 45),
    lamps: Lamps.default('warning'),
  }),
  sentenceParts: (rule) => [
    'Steady ',
    oneOf('colour', rule.colour, 'Colour', plain(COLOURS)),
    ' light of at least ',
    figure('minCd', rule.minCd, 'Least intensity, cd'),
    ' cd combined from ',
    lampsField(rule.lamps),
    ' to the ',
    oneOf('face', rule.face, 'Side', plain(FACES)),
    ', within ',
    figure('withinDeg', rule.withinDeg, 'To either side of straight ahead, degrees', { min: 0, max: 45 }),
    '° of straight ahead, everything closed',
  ],
  poses: () => SHUT,
  countsChannel: (drive, rule) =>
    drive.steady && drive.colour === rule.colour && countsLamp(drive, rule.lamps),
  monotonicity: () => 'helps',
  check: (at, rule) => {
    const middle = FACES.indexOf(rule.face) * 90;
    const bearings = FACE_BEARINGS[rule.face].filter((b) => apartDeg(b, middle) <= rule.withinDeg);
    const lit = at.lit(rule.lamps).filter(({ drive }) => drive.steady && drive.colour === rule.colour);
    const cdAt = (b: number): number =>
      lit.reduce((sum, { drive, share }) => sum + highestCd(drive) * (share[b] ?? 0), 0);
    const least = Math.min(...bearings.map(cdAt));
    const margin = roomAbove(least, rule.minCd);
    if (margin >= 0) return [holds(margin)];
    return [
      fails({
        subjects: [about('face', rule.face), about('colour', rule.colour)],
        margin,
        sentence: `steady ${rule.colour} ${faceText[rule.face]}: ${formatQuantity(least, 'cd', 'down')} (minimum ${formatQuantity(rule.minCd, 'cd')}).`,
        figure: { value: least, unit: 'cd' },
        limits: [atLeast(rule.minCd, 'cd')],
        channels: lit.map(({ drive }) => channelOf(drive)),
      }),
    ];
  },
});
