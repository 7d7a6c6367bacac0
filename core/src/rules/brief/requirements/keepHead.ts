import { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { Id } from '../../../words/names.ts';
import { pointing } from '../../layout/subject.ts';
import { defineRequirement } from '../define.ts';
import { about } from '../../subject.ts';

/** A head that is there already stays: where it is, or anywhere on the vehicle. */
export const keepHead = defineRequirement({
  kind: 'keep-head',
  name: 'Keep a head',
  schema: z.strictObject({
    kind: z.literal('keep-head'),
    ...REQUIREMENT_HEAD,
    placementId: Id,
    where: z
      .enum(['where it is', 'anywhere'], { error: "must be 'where it is' or 'anywhere'" })
      .default('where it is'),
  }),
  first: ({ placements: [head] }, id) =>
    head === undefined
      ? null
      : { kind: 'keep-head', id, severity: 'warns', placementId: head.id, where: 'where it is' },
  sentence: ({ placements }, wish) => {
    const label = placements.find((p) => p.id === wish.placementId)?.label ?? 'deleted lamp';
    return wish.where === 'anywhere' ? `Keep "${label}", there or elsewhere` : `Keep "${label}" where it is`;
  },
  check: {
    onDocument: ({ build }, wish) => {
      const p = build.placements.find((candidate) => candidate.id === wish.placementId);
      if (p?.status === 'kept' || (p?.status === 'reused' && wish.where === 'anywhere')) return [];
      const wanted = wish.where === 'anywhere' ? 'kept or reused' : 'kept';
      const what = p === undefined ? 'no longer exists' : `status is ${p.status}, required: ${wanted}`;
      return [
        {
          ...pointing(p === undefined ? [] : [p]),
          subjects: [about('lamp', wish.placementId)],
          sentence: `lamp to be kept, ${p?.label ?? 'deleted lamp'}: ${what}.`,
        },
      ];
    },
  },
});
