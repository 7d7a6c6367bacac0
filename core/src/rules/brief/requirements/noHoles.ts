import { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { fixingOf, holesOf } from '../../../resolve/place.ts';
import { Id } from '../../../words/names.ts';
import { atMost } from '../../finding.ts';
import { pointing } from '../../layout/subject.ts';
import { defineRequirement } from '../define.ts';
import { zonesText } from '../words.ts';

/** No holes in some zones; in none at all when no zone is named. */
export const noHoles = defineRequirement({
  kind: 'no-holes',
  name: 'No holes',
  schema: z.strictObject({ kind: z.literal('no-holes'), ...REQUIREMENT_HEAD, zoneIds: z.array(Id).max(80) }),
  first: (_, id) => ({ kind: 'no-holes', id, severity: 'warns', zoneIds: [] }),
  sentence: (build, wish) =>
    wish.zoneIds.length === 0 ? 'No holes at all' : `No holes in ${zonesText(build, wish.zoneIds)}`,
  check: {
    onDocument: (subject, wish) =>
      subject.standing().flatMap(({ p, placed: { fixture, zone } }) => {
        if (wish.zoneIds.length > 0 && !wish.zoneIds.includes(zone.id)) return [];
        const holes = holesOf(fixture, zone, p);
        if (holes === 0) return [];
        return [
          {
            sentence: `${p.label}: ${holes} holes in ${zone.name} (mounting: ${fixingOf(zone, p)}).`,
            figure: { value: holes, unit: 'holes' as const },
            limits: [atMost(0, 'holes')],
            ...pointing([p]),
          },
        ];
      }),
  },
});
