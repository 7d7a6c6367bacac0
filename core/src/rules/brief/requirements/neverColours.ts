import { z } from 'zod';
import { textOf } from '../../fields.ts';
import { defineRequirement } from '../define.ts';
import { COLOUR_WISH, limitsOfColour, lightText, whereText } from './colourWish.ts';

/** Toward some faces none of these colours, in any state. */
export const neverColours = defineRequirement({
  kind: 'never-colours',
  name: 'Never these colours to a side',
  schema: z.strictObject({ kind: z.literal('never-colours'), ...COLOUR_WISH }),
  first: (_, id) => ({
    kind: 'never-colours',
    id,
    severity: 'warns',
    colours: ['white'],
    faces: ['rear'],
    light: 'any',
  }),
  sentence: (_, wish) => `No ${lightText(wish)}${textOf(wish.colours)} ${whereText(wish)}`,
  check: limitsOfColour((wish, c) => wish.colours.includes(c)),
});
