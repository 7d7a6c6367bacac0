import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { ControlProgram } from '../../src/controls/program.ts';
import type { Condition, InputEvent } from '../../src/design/condition.ts';
import type { ControlFunction } from '../../src/design/functions.ts';
import { defaultControls } from '../../src/design/usualControls.ts';

const Cond: z.ZodType<Condition> = z.lazy(() =>
  z.union([
    z.tuple([z.literal('all')], Cond).transform(([kind, ...of]) => ({ kind, of })),
    z.tuple([z.literal('any')], Cond).transform(([kind, ...of]) => ({ kind, of })),
    z.tuple([z.literal('not'), Cond]).transform(([kind, of]) => ({ kind, of })),
    z
      .tuple([z.literal('is'), z.string(), z.array(z.string())])
      .transform(([kind, input, values]) => ({ kind, input, values })),
    z.tuple([z.literal('on'), z.string()]).transform(([kind, functionId]) => ({ kind, functionId })),
  ]),
);
const Event: z.ZodType<InputEvent> = z.union([
  z
    .tuple([z.literal('set'), z.string(), z.string()])
    .transform(([, input, value]): InputEvent => ({ kind: 'arrives', input, value })),
  z
    .tuple([z.literal('press'), z.string(), z.enum(['short', 'long'])])
    .transform(([kind, control, press]): InputEvent => ({ kind, control, press })),
]);
const File = z.object({
  inputs: z.record(z.string(), z.array(z.string())),
  presses: z.array(z.string()),
  forbid: z.array(Cond),
  functions: z.array(
    z.object({
      id: z.string(),
      way: z.enum(['while', 'latched', 'cycle']),
      cond: Cond.optional(),
      k: z.int().optional(),
      sets: z.array(Event).default([]),
      clears: z.array(Event).default([]),
      toggles: z.array(Event).default([]),
      steps: z.array(Event).default([]),
      enabledBy: Cond.nullable().default(null),
      forgets: z.boolean().default(false),
      after: z.int().default(0),
      stays: z.int().default(0),
      timeout: z.int().default(0),
    }),
  ),
});

/** The small programme of check figures, and the keys that only give presses. */
export function checkProgramme(): {
  readonly programme: ControlProgram;
  readonly presses: readonly string[];
} {
  const file = File.parse(
    JSON.parse(readFileSync(new URL('./controls-check.json', import.meta.url), 'utf8')),
  );
  const nothing = { cues: [], dims: [], loads: [] };
  const functions = file.functions.map((f): ControlFunction => {
    const timeoutMs = f.timeout;
    const { sets, clears, toggles, steps } = f;
    return {
      id: f.id,
      name: f.id,
      label: '',
      kind: 'warning',
      mode: null,
      shows: Array.from({ length: f.way === 'cycle' ? (f.k ?? 2) - 1 : 1 }, () => nothing),
      when:
        f.way === 'while'
          ? { way: 'while', condition: f.cond ?? { kind: 'all', of: [] }, afterMs: f.after, staysMs: f.stays }
          : f.way === 'latched'
            ? { way: 'latched', sets, clears, toggles, timeoutMs }
            : { way: 'cycle', sets, clears, steps, wraps: 'off', timeoutMs },
      enabledBy: f.enabledBy,
      forgets: f.forgets,
      choiceId: null,
      mayStay: false,
      withoutMaster: false,
    };
  });
  const never = file.forbid.map((c) => ({ when: c, then: { kind: 'not' as const, of: c } }));
  const inputs = Object.entries(file.inputs).map(([id, values]) => ({
    id,
    name: id,
    values,
    source: 'own' as const,
    byHand: true,
  }));
  return {
    programme: new ControlProgram(inputs, { ...defaultControls(), panels: [], functions, never }),
    presses: file.presses,
  };
}
