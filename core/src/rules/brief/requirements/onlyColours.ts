import { z } from 'zod';
import { textOf } from '../../fields.ts';
import { defineRequirement } from '../define.ts';
import { COLOUR_WISH, limitsOfColour, lightText, whereText } from './colourWish.ts';

/** Toward some faces no colour but these, in any state. */
export const onlyColours = defineRequirement({
  kind: 'only-colours',
  name: 'Only these colours to a side',
  schema: z.strictObject({ kind: z.literal('only-colours'), ...COLOUR_WISH }),
  first: (_, id) => ({
    kind: 'only-colours',
    id,
    severity: 'warns',
    colours: ['red', 'amber'],
    faces: ['rear'],
    light: 'any',
  }),
  sentence: (_, wish) => `Only ${lightText(wish)}${textOf(wish.colours)} ${whereText(wish)}`,
  check: limitsOfColour((wish, c) => !wish.colours.includes(c)),
});
