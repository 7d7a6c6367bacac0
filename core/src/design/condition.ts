import { z } from 'zod';
import { Id } from '../words/names.ts';

/** A value of an input, as "open" or "2". */
export const InputValue = z
  .string({ error: 'must be text' })
  .min(1, 'must not be empty')
  .max(40, 'must be at most 40 characters')
  .regex(/^[^<>\p{Control}]*$/u, 'must be one line without < or >');

/** An `all` or `any` has no more parts. */
export const MOST_OF = 12;
const Several = z.lazy(() => z.array(Condition).min(1, 'must name at least one').max(MOST_OF));

/** What must be so: about inputs, and about functions that are on. Data, shown and edited as a sentence. */
export type Condition =
  | { readonly kind: 'all'; readonly of: readonly Condition[] }
  | { readonly kind: 'any'; readonly of: readonly Condition[] }
  | { readonly kind: 'not'; readonly of: Condition }
  | { readonly kind: 'is'; readonly input: string; readonly values: readonly string[] }
  | { readonly kind: 'on'; readonly functionId: string };
export const Condition: z.ZodType<Condition, Condition> = z.lazy(() =>
  z.discriminatedUnion(
    'kind',
    [
      z.strictObject({ kind: z.literal('all'), of: Several }),
      z.strictObject({ kind: z.literal('any'), of: Several }),
      z.strictObject({ kind: z.literal('not'), of: Condition }),
      z.strictObject({
        kind: z.literal('is'),
        input: Id,
        values: z.array(InputValue).min(1, 'must name at least one value').max(16),
      }),
      z.strictObject({ kind: z.literal('on'), functionId: Id }),
    ],
    { error: "must be of kind 'all', 'any', 'not', 'is' or 'on'" },
  ),
);

/** A condition goes no deeper: whoever reads it must still follow. */
export const MOST_DEPTH = 6;

/** How deep conditions lie in each other; counting ends beyond the limit. */
export function depthOf(c: Condition, deeper = MOST_DEPTH): number {
  if (deeper === 0) return 1;
  switch (c.kind) {
    case 'all':
    case 'any':
      return 1 + Math.max(...c.of.map((part) => depthOf(part, deeper - 1)));
    case 'not':
      return 1 + depthOf(c.of, deeper - 1);
    case 'is':
    case 'on':
      return 1;
  }
}

/** Every part of a condition that names an input or a function. */
export function* leavesOf(c: Condition): Generator<Leaf> {
  switch (c.kind) {
    case 'all':
    case 'any':
      for (const part of c.of) yield* leavesOf(part);
      return;
    case 'not':
      yield* leavesOf(c.of);
      return;
    case 'is':
    case 'on':
      yield c;
  }
}

type Leaf = Extract<Condition, { kind: 'is' | 'on' }>;

/** A condition with something else in place of its parts that name an input or a function; one `any` within another is one list. */
export function withLeaves(c: Condition, put: (leaf: Leaf) => Condition): Condition {
  switch (c.kind) {
    case 'any': {
      const of = c.of.map((part) => withLeaves(part, put));
      const flat = of.flatMap((part, i) =>
        part.kind === 'any' && c.of[i]?.kind !== 'any' ? part.of : [part],
      );
      return { kind: 'any', of: flat.length <= MOST_OF ? flat : of };
    }
    case 'all':
      return { kind: 'all', of: c.of.map((part) => withLeaves(part, put)) };
    case 'not':
      return { kind: 'not', of: withLeaves(c.of, put) };
    case 'is':
    case 'on':
      return put(c);
  }
}

/** What happens at once: a key is pressed, two are, or an input arrives at a value. */
export const InputEvent = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({
      kind: z.literal('press'),
      control: Id,
      press: z.enum(['short', 'long'], { error: 'must be short or long' }),
    }),
    z.strictObject({ kind: z.literal('chord'), controls: z.tuple([Id, Id]) }),
    z.strictObject({ kind: z.literal('arrives'), input: Id, value: InputValue }),
  ],
  { error: "must be of kind 'press', 'chord' or 'arrives'" },
);
export type InputEvent = z.infer<typeof InputEvent>;
