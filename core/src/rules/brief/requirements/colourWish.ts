import type { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { channelOf } from '../../../resolve/channels.ts';
import { COLOURS, type Colour } from '../../../words/colour.ts';
import { faceText, type Face } from '../../../words/face.ts';
import { colours, faces, Light, textOf } from '../../fields.ts';
import { atMost } from '../../finding.ts';
import { fails, holds, roomBelow, type Verdict } from '../../judgement.ts';
import { peakAgainstLimit, type LightLimit } from '../../shown.ts';
import type { Situation } from '../../situation.ts';
import { about } from '../../subject.ts';
import { formatQuantity } from '../../../words/quantity.ts';

/** Light counts as shown to a face above this, cd. */
const SHOWN_CD = 5;

/** What the two wishes about colours say. */
export const COLOUR_WISH = {
  ...REQUIREMENT_HEAD,
  colours,
  faces,
  light: Light.default('any'),
};
type ColourWish = z.output<z.ZodObject<typeof COLOUR_WISH>>;

export const lightText = ({ light }: ColourWish): string => (light === 'any' ? '' : `${light} `);
export const whereText = ({ faces: named }: ColourWish): string => `to the ${textOf(named)}`;

/** How a wish about colours is checked: toward its faces, all lamps together but for signals, whatever stands open. */
export function limitsOfColour(isForbidden: (wish: ColourWish, colour: Colour) => boolean) {
  const limits = (wish: ColourWish): LightLimit[] =>
    wish.faces.flatMap((face: Face) =>
      COLOURS.filter((c) => isForbidden(wish, c)).map((colour) => ({
        subjects: [about('face', face), about('colour', colour)],
        colour,
        face,
        aboveCd: SHOWN_CD,
        of: 'sum',
        lamps: 'all',
        counts: (drive) =>
          (wish.light === 'any' || drive.steady === (wish.light === 'steady')) && !drive.signals,
      })),
    );
  return {
    limits,
    inState: (at: Situation, wish: ColourWish): Verdict[] =>
      limits(wish).map((limit) => judged(at, wish, limit)),
  };
}

function judged(at: Situation, wish: ColourWish, limit: LightLimit): Verdict {
  const shown = peakAgainstLimit(at, limit);
  const margin = roomBelow(shown.cd, SHOWN_CD);
  if (shown.cd <= SHOWN_CD) return holds(margin);
  const drives = shown.channels.map(({ drive }) => drive);
  return fails({
    outcome: shown.exact ? 'fails' : 'cannot tell',
    subjects: limit.subjects,
    margin,
    sentence: `${lightText(wish)}${limit.colour} ${faceText[limit.face]}: ${shown.exact ? '' : 'up to '}${formatQuantity(shown.cd, 'cd', 'up')} combined at ${shown.bearing}° (limit ${SHOWN_CD} cd), from ${at.lampsText(drives)}.`,
    figure: { value: shown.cd, unit: 'cd' },
    limits: [atMost(SHOWN_CD, 'cd')],
    channels: drives.map(channelOf),
    sectors: shown.sectors,
    news: shown.adding,
  });
}
