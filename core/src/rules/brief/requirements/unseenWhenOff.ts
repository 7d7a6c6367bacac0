import { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { atMost } from '../../finding.ts';
import { pointing } from '../../layout/subject.ts';
import { defineRequirement } from '../define.ts';
import { about } from '../../subject.ts';

/** A lens or pane that passes no more than this looks dark when nothing burns behind it. */
const DARK = 0.55;

/** Few lamps can be seen when off: not covered, not behind dark glass, not behind a smoked lens. */
export const unseenWhenOff = defineRequirement({
  kind: 'unseen-when-off',
  name: 'Unseen when off',
  schema: z.strictObject({
    kind: z.literal('unseen-when-off'),
    ...REQUIREMENT_HEAD,
    atMost: z.int().min(0).max(200),
  }),
  first: (_, id) => ({ kind: 'unseen-when-off', id, severity: 'warns', atMost: 0 }),
  sentence: (_, wish) =>
    wish.atMost === 0 ? 'Unseen when off' : `At most ${wish.atMost} lamps seen when off`,
  check: {
    onDocument: (subject, wish) => {
      const seen = subject
        .standing()
        .filter(
          ({ p, placed: { zone } }) =>
            zone.face !== 'inside' &&
            p.lensTransmission > DARK &&
            zone.mount !== 'factory' &&
            !(zone.mount === 'glass' && zone.face !== 'front'),
        );
      if (seen.length <= wish.atMost) return [];
      const names = seen.slice(0, 3).map(({ p }) => p.label);
      const more = seen.length > 3 ? ` and ${seen.length - 3} more` : '';
      return [
        {
          ...pointing(seen.map(({ p }) => p)),
          subjects: [about('topic', 'seen')],
          sentence: `lamps visible when off: ${names.join(', ')}${more}.`,
          figure: { value: seen.length, unit: 'lamps' as const },
          limits: [atMost(wish.atMost, 'lamps')],
        },
      ];
    },
  },
});
