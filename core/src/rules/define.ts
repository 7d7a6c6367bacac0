import type { z } from 'zod';
import type { RuleData, RuleHead } from '../design/rulePack.ts';
import type { Drive } from '../resolve/channels.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import type { Home } from './finding.ts';
import type { Verdict, IssueDraft } from './judgement.ts';
import type { LayoutSubject } from './layout/subject.ts';
import type { SentencePart } from './piece.ts';
import type { PoseIndependentLimit } from './shown.ts';
import type { Situation } from './situation.ts';

/** A pose, as the stops that stand open. */
export type Pose = readonly string[];

/** What a kind of rule is: everything about it, in one file. */
export type RuleDefinition<S extends z.ZodType<RuleData>> = {
  readonly kind: string;
  readonly schema: S;
  /** What the kind is called where one is chosen. */
  readonly title: string;
  /** What a new rule of the kind says until somebody says otherwise. */
  readonly blank: Omit<z.input<S>, 'kind' | keyof RuleHead>;
  /** What a person reads and edits, from "At most" to the last figure, without stage or service. */
  readonly sentenceParts: (rule: z.output<S>) => readonly SentencePart[];
  /** Where it is put right. */
  readonly home: Home;
} & (OnDocument<z.output<S>> | OnProgramme | InStates<z.output<S>>);

interface OnDocument<R> {
  /** By the document alone, whatever is on. */
  readonly sees: 'document';
  readonly findIssues: (subject: LayoutSubject, rule: R) => readonly IssueDraft[];
}

interface OnProgramme {
  /** What the controls do, over every state that they can reach: the proof looks at it, by the kind's name. */
  readonly sees: 'programme';
  /** Whether it may speak under a condition alone. */
  readonly asksWhen: boolean;
}

interface InStates<R> {
  /** What it depends on: what is driven alone, or the light of it too, which moving parts turn and hide. */
  readonly sees: 'driven' | 'light';
  /** It looks from eyes of its own, not along elevations. */
  readonly fromEyes?: true;
  /** The poses it speaks of; any when not said. What depends on what is driven alone is asked with everything shut. */
  readonly poses?: (rule: R, vehicle: Vehicle) => readonly Pose[];
  /** The light around that it speaks of; any when not said. */
  readonly ambients?: (rule: R) => readonly Ambient[];
  /** What it keeps to whatever stands open: looked for in every combination of open parts besides. */
  readonly limits?: (rule: R, at: Situation) => readonly PoseIndependentLimit[];
  /** One judgement for each thing it speaks of in this state. */
  readonly check: (at: Situation, rule: R) => readonly Verdict[];
  /** Which channels it looks at; those of the lamps that the rule counts when not said. */
  readonly countsChannel?: (drive: Drive, rule: R) => boolean;
  /** What one more such channel does to it, where that is always the same. */
  readonly monotonicity?: (rule: R) => 'helps' | 'hurts' | null;
  /**
   * The lots a channel is of: each is judged by itself, and an empty one says nothing. A lot is called as its troubles are
   * (`about`); after an @ more may follow. All channels are one lot when not said.
   */
  readonly partitions?: (drive: Drive, at: Situation, rule: R) => readonly string[];
  /** It asks whether one function is on alone, besides what lights. */
  readonly asksAlone?: true;
}

/** A kind of rule, ready to be asked about rules as documents hold them. */
export interface RuleKind<S extends z.ZodType<RuleData>> {
  readonly kind: string;
  readonly schema: S;
  readonly title: string;
  readonly home: Home;
  readonly sees: RuleDefinition<S>['sees'];
  /** Whether it is judged state by state: it then speaks of stages. */
  readonly inStates: boolean;
  /** Whether it may speak under a condition alone. */
  readonly asksWhen: boolean;
  /** Whether it looks along elevations. */
  readonly alongElevations: boolean;
  /** The rule read, with what it leaves unsaid filled in; null when it is of another kind. */
  readonly of: (data: RuleData) => z.output<S> | null;
  /** A new rule of the kind. */
  readonly begin: (head: RuleHead) => RuleData;
  readonly sentenceParts: (data: RuleData) => readonly SentencePart[];
  /** What the document alone says; nothing for a kind that looks at states. */
  readonly findIssues: (subject: LayoutSubject, data: RuleData) => readonly IssueDraft[];
  /** The poses the rule speaks of; null when it speaks of any. */
  readonly poses: (data: RuleData, vehicle: Vehicle) => readonly Pose[] | null;
  readonly ambients: (data: RuleData) => readonly Ambient[];
  readonly limits: (data: RuleData, at: Situation) => readonly PoseIndependentLimit[];
  readonly check: (at: Situation, data: RuleData) => readonly Verdict[];
  readonly countsChannel: (drive: Drive, data: RuleData) => boolean;
  readonly monotonicity: (data: RuleData) => 'helps' | 'hurts' | null;
  /** Null where all channels are one lot, which speaks when it is empty, too. */
  readonly partitions: ((drive: Drive, at: Situation, data: RuleData) => readonly string[]) | null;
  /** Whether it asks if one function is on alone, besides what lights. */
  readonly asksAlone: boolean;
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
  const states = d.sees === 'driven' || d.sees === 'light' ? d : null;
  const lots = states?.partitions;
  return {
    kind: d.kind,
    schema: d.schema,
    title: d.title,
    home: d.home,
    sees: d.sees,
    inStates: states !== null,
    asksWhen: d.sees === 'programme' ? d.asksWhen : states !== null,
    alongElevations: d.sees === 'light' && d.fromEyes !== true,
    of: (data) => (data.kind === d.kind ? read(data) : null),
    begin: (head) => ({ kind: d.kind, ...head, ...d.blank }),
    sentenceParts: (data) => d.sentenceParts(read(data)),
    findIssues: (subject, data) => (d.sees === 'document' ? d.findIssues(subject, read(data)) : []),
    poses: (data, vehicle) => states?.poses?.(read(data), vehicle) ?? null,
    ambients: (data) => states?.ambients?.(read(data)) ?? AMBIENTS,
    limits: (data, at) => states?.limits?.(read(data), at) ?? [],
    check: (at, data) => states?.check(at, read(data)) ?? [],
    countsChannel: (drive, data) => {
      const rule = read(data);
      return states?.countsChannel?.(drive, rule) ?? (rule.lamps === 'all' || drive.warns);
    },
    monotonicity: (data) => states?.monotonicity?.(read(data)) ?? null,
    partitions: lots === undefined ? null : (drive, at, data) => lots(drive, at, read(data)),
    asksAlone: states?.asksAlone === true,
  };
}
