import type { z } from 'zod';
import type { RuleData, RuleHead } from '../design/rulePack.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import type { Home } from './finding.ts';
import type { Judgement } from './judgement.ts';
import type { Piece } from './piece.ts';
import type { LightLimit } from './shown.ts';
import type { Situation } from './situation.ts';

/** A pose, as the stops that stand open. */
export type Pose = readonly string[];

/** What a kind of rule is: everything about it, in one file. */
export interface RuleDefinition<S extends z.ZodType<RuleData>> {
  readonly kind: string;
  readonly schema: S;
  /** What the kind is called where one is chosen. */
  readonly title: string;
  /** What a new rule of the kind says until somebody says otherwise. */
  readonly blank: Omit<z.input<S>, 'kind' | keyof RuleHead>;
  /** What a person reads and edits, from "At most" to the last figure, without stage or service. */
  readonly says: (rule: z.output<S>) => readonly Piece[];
  /** Where it is put right. */
  readonly home: Home;
  /** What it depends on: what is driven alone, or the light of it too, which moving parts turn and hide. */
  readonly sees: 'driven' | 'light';
  /** The poses it speaks of; any when not said. What depends on what is driven alone is asked with everything shut. */
  readonly poses?: (rule: z.output<S>, vehicle: Vehicle) => readonly Pose[];
  /** The light around that it speaks of; any when not said. */
  readonly ambients?: (rule: z.output<S>) => readonly Ambient[];
  /** What it limits whatever stands open: looked for in every combination of open parts besides. */
  readonly limits?: (rule: z.output<S>, at: Situation) => readonly LightLimit[];
  /** One judgement for each thing it speaks of in this state. */
  readonly check: (at: Situation, rule: z.output<S>) => readonly Judgement[];
}

/** A kind of rule, ready to be asked about rules as documents hold them. */
export interface RuleKind<S extends z.ZodType<RuleData>> {
  readonly kind: string;
  readonly schema: S;
  readonly title: string;
  readonly home: Home;
  readonly sees: 'driven' | 'light';
  /** The rule read, with what it leaves unsaid filled in; null when it is of another kind. */
  readonly of: (data: RuleData) => z.output<S> | null;
  /** A new rule of the kind. */
  readonly begin: (head: RuleHead) => RuleData;
  readonly says: (data: RuleData) => readonly Piece[];
  /** The poses the rule speaks of; null when it speaks of any. */
  readonly poses: (data: RuleData, vehicle: Vehicle) => readonly Pose[] | null;
  readonly ambients: (data: RuleData) => readonly Ambient[];
  readonly limits: (data: RuleData, at: Situation) => readonly LightLimit[];
  readonly check: (at: Situation, data: RuleData) => readonly Judgement[];
}

/** Everything shut. */
export const SHUT: readonly Pose[] = [[]];

/** Makes a kind of rule out of its definition. */
export function defineRule<S extends z.ZodType<RuleData>>(d: RuleDefinition<S>): RuleKind<S> {
  const known = new WeakMap<RuleData, z.output<S>>();
  const read = (data: RuleData): z.output<S> => {
    const rule = known.get(data) ?? d.schema.parse(data);
    known.set(data, rule);
    return rule;
  };
  return {
    kind: d.kind,
    schema: d.schema,
    title: d.title,
    home: d.home,
    sees: d.sees,
    of: (data) => (data.kind === d.kind ? read(data) : null),
    begin: (head) => ({ kind: d.kind, ...head, ...d.blank }),
    says: (data) => d.says(read(data)),
    poses: (data, vehicle) => d.poses?.(read(data), vehicle) ?? null,
    ambients: (data) => d.ambients?.(read(data)) ?? AMBIENTS,
    limits: (data, at) => d.limits?.(read(data), at) ?? [],
    check: (at, data) => d.check(at, read(data)),
  };
}
