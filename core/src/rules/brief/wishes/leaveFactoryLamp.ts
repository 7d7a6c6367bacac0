import { z } from 'zod';
import { WISH_HEAD } from '../../../design/brief.ts';
import { lookupOf } from '../../../resolve/lookup.ts';
import { Id } from '../../../words/names.ts';
import { pointing } from '../../layout/subject.ts';
import { defineWish } from '../define.ts';

/** A factory lamp is touched by a lamp put into it or before it, m. */
const BEFORE_M = 0.02;

/** No lamp is put into a factory lamp or before it. */
export const leaveFactoryLamp = defineWish({
  kind: 'leave-factory-lamp',
  name: 'Leave a factory lamp alone',
  schema: z.strictObject({ kind: z.literal('leave-factory-lamp'), ...WISH_HEAD, lampId: Id }),
  first: (build, id) => {
    const [lamp] = lookupOf(build).vehicle.factoryLamps;
    return lamp === undefined ? null : { kind: 'leave-factory-lamp', id, severity: 'warns', lampId: lamp.id };
  },
  sentence: (build, wish) => {
    const lamp = lookupOf(build).vehicle.factoryLamps.find((l) => l.id === wish.lampId);
    return `Leave the ${(lamp?.name ?? wish.lampId).toLowerCase()} untouched`;
  },
  check: {
    onDocument: (layout, wish) => {
      const lamp = layout.lookup.vehicle.factoryLamps.find((l) => l.id === wish.lampId);
      if (lamp === undefined)
        return [
          {
            about: wish.lampId,
            sentence: `this vehicle has no factory lamp '${wish.lampId}', which is to stay untouched.`,
          },
        ];
      const bounds = [0, 1, 2].map((axis) => {
        const values = lamp.outline.map((corner) => corner[axis] ?? 0);
        return [Math.min(...values) - BEFORE_M, Math.max(...values) + BEFORE_M] as const;
      });
      return layout.standing().flatMap(({ p, housing }) => {
        const meets = bounds.every(([low, high], axis) => {
          const values = housing.corners.map((corner) => corner[axis] ?? 0);
          return Math.max(...values) > low && Math.min(...values) < high;
        });
        if (!meets) return [];
        return [
          {
            sentence: `"${p.label}" stands at the ${lamp.name.toLowerCase()}, which is to stay untouched.`,
            ...pointing([p]),
          },
        ];
      });
    },
  },
});
