import { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { lookupOf } from '../../../resolve/lookup.ts';
import { Id } from '../../../words/names.ts';
import { lampsAt } from '../../layout/atFactoryLamp.ts';
import { pointing } from '../../layout/subject.ts';
import { defineRequirement } from '../define.ts';
import { about } from '../../subject.ts';

/** No lamp is put into a factory lamp or before it. */
export const leaveFactoryLamp = defineRequirement({
  kind: 'leave-factory-lamp',
  name: 'Leave a factory lamp alone',
  schema: z.strictObject({ kind: z.literal('leave-factory-lamp'), ...REQUIREMENT_HEAD, lampId: Id }),
  first: (build, id) => {
    const [lamp] = lookupOf(build).vehicle.factoryLamps;
    return lamp === undefined ? null : { kind: 'leave-factory-lamp', id, severity: 'warns', lampId: lamp.id };
  },
  sentence: (build, wish) => {
    const lamp = lookupOf(build).vehicle.factoryLamps.find((l) => l.id === wish.lampId);
    return `Leave the ${(lamp?.name ?? 'deleted factory lamp').toLowerCase()} untouched`;
  },
  check: {
    onDocument: (layout, wish) => {
      const lamp = layout.lookup.vehicle.factoryLamps.find((l) => l.id === wish.lampId);
      if (lamp === undefined)
        return [
          {
            subjects: [about('factory lamp', wish.lampId)],
            sentence: `the factory lamp of this requirement no longer exists.`,
          },
        ];
      return lampsAt(layout, lamp).map((p) => ({
        sentence: `${p.label} is at the ${lamp.name.toLowerCase()}, which must stay untouched.`,
        ...pointing([p]),
      }));
    },
  },
});
