import type { z } from 'zod';
import type { RequirementData } from '../../design/brief.ts';
import type { Build } from '../../design/schema.ts';
import type { Verdict, IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import type { LightLimit } from '../shown.ts';
import type { Situation } from '../situation.ts';

/** What the agency may wish for, as it is checked: on the document, or on the light in every state. */
type Check<W> =
  | { readonly onDocument: (subject: LayoutSubject, wish: W) => readonly IssueDraft[] }
  | {
      readonly inState: (at: Situation, wish: W) => readonly Verdict[];
      /** What it limits whatever stands open. */
      readonly limits: (wish: W) => readonly LightLimit[];
    }
  | {
      /** Over every state that the controls can reach: the proof looks at it, not this check. */
      readonly proved: true;
    };

/** What a kind of wish is: everything about it, in one file. */
export interface RequirementDefinition<S extends z.ZodType<RequirementData>> {
  readonly kind: string;
  /** How it is called where one is chosen. */
  readonly name: string;
  readonly schema: S;
  /** One as it is first put down, to be adjusted; null when the build has nothing it could name. */
  readonly first: (build: Build, id: string) => RequirementData | null;
  readonly sentence: (build: Build, wish: z.output<S>) => string;
  readonly check: Check<z.output<S>>;
}

/** A kind of wish, ready to be asked about wishes as documents hold them. */
export interface RequirementKind<S extends z.ZodType<RequirementData>> {
  readonly kind: string;
  readonly name: string;
  readonly schema: S;
  readonly first: (build: Build, id: string) => RequirementData | null;
  readonly sentence: (build: Build, data: RequirementData) => string;
  readonly check: Check<RequirementData>;
}

/** Makes a kind of wish out of its definition. */
export function defineRequirement<S extends z.ZodType<RequirementData>>(
  d: RequirementDefinition<S>,
): RequirementKind<S> {
  const known = new WeakMap<RequirementData, z.output<S>>();
  const read = (data: RequirementData): z.output<S> => {
    const wish = known.get(data) ?? d.schema.parse(data);
    known.set(data, wish);
    return wish;
  };
  const { check } = d;
  return {
    kind: d.kind,
    name: d.name,
    schema: d.schema,
    first: d.first,
    sentence: (build, data) => d.sentence(build, read(data)),
    check:
      'inState' in check
        ? {
            inState: (at, data) => check.inState(at, read(data)),
            limits: (data) => check.limits(read(data)),
          }
        : 'proved' in check
          ? check
          : { onDocument: (subject, data) => check.onDocument(subject, read(data)) },
  };
}
