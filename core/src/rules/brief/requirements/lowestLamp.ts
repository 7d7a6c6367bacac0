import { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { bearingOf } from '../../../geometry/direction.ts';
import { housingCorners, placeModules } from '../../../resolve/place.ts';
import { FACES, facesAt } from '../../../words/face.ts';
import { numberBetween } from '../../../words/numbers.ts';
import { faces, textOf } from '../../fields.ts';
import { atLeast } from '../../finding.ts';
import { mmDown, pointing, type LayoutSubject, type StandingLamp } from '../../layout/subject.ts';
import { defineRequirement } from '../define.ts';

/** No lamp toward some faces stands lower than a height. */
export const lowestLamp = defineRequirement({
  kind: 'lowest-lamp',
  name: 'Nothing below a height',
  schema: z.strictObject({
    kind: z.literal('lowest-lamp'),
    ...REQUIREMENT_HEAD,
    heightM: numberBetween(0, 4),
    faces: faces.default([...FACES]),
  }),
  first: (_, id) => ({
    kind: 'lowest-lamp',
    id,
    severity: 'warns',
    heightM: 0.4,
    faces: [...FACES],
  }),
  sentence: (_, wish) => {
    const where = wish.faces.length === FACES.length ? '' : ` to the ${textOf(wish.faces)}`;
    return `Nothing${where} below ${Math.round(wish.heightM * 1000)} mm from the ground`;
  },
  check: {
    onDocument: (subject, wish) =>
      subject.standing().flatMap((lamp) => {
        const { p, placed } = lamp;
        const lowest = Math.min(...housingCorners(placed).map((corner) => corner[2]));
        if (lowest >= wish.heightM - 1e-9 || !facesOf(subject, lamp).some((f) => wish.faces.includes(f)))
          return [];
        return [
          {
            sentence: `${p.label}: lower edge at ${mmDown(lowest)} mm (minimum ${Math.round(wish.heightM * 1000)} mm).`,
            figure: { value: lowest * 1000, unit: 'mm' as const },
            limits: [atLeast(wish.heightM * 1000, 'mm')],
            ...pointing([p]),
          },
        ];
      }),
  },
});

/** The faces a lamp's modules look out of; one that shines all round looks out of every face. */
const facesOf = ({ lookup }: LayoutSubject, { p }: StandingLamp) =>
  placeModules(lookup, p, new Set()).flatMap(({ module, frame }) =>
    module.distribution.h50Deg === null ? FACES : facesAt(bearingOf(frame.aim).bearingDeg),
  );
