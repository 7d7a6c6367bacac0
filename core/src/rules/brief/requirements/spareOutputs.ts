import { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { outputsNeeded } from '../../../resolve/outputs.ts';
import { atLeast } from '../../finding.ts';
import { defineRequirement } from '../define.ts';
import { about } from '../../subject.ts';

/** Of a controller's outputs some stay free; channels that every function lights alike share one. */
export const spareOutputs = defineRequirement({
  kind: 'spare-outputs',
  name: 'Leave outputs spare',
  schema: z.strictObject({
    kind: z.literal('spare-outputs'),
    ...REQUIREMENT_HEAD,
    outputs: z.int().min(1).max(512),
    spare: z.int().min(0).max(512),
  }),
  first: (_, id) => ({ kind: 'spare-outputs', id, severity: 'warns', outputs: 64, spare: 8 }),
  sentence: (_, wish) => `At least ${wish.spare} of ${wish.outputs} outputs stay spare`,
  check: {
    onDocument: ({ build }, wish) => {
      const used = outputsNeeded(build);
      const spare = wish.outputs - used;
      if (spare >= wish.spare) return [];
      return [
        {
          subjects: [about('topic', 'outputs')],
          sentence: `${used} of ${wish.outputs} outputs used, ${Math.max(0, spare)} spare (minimum ${wish.spare}).`,
          figure: { value: spare, unit: 'outputs' as const },
          limits: [atLeast(wish.spare, 'outputs')],
        },
      ];
    },
  },
});
