import type { ConstraintKind } from '../design/brief.ts';
import type { State } from '../state/state.ts';
import type { Sector } from '../coverage/sectors.ts';
import type { Rule, Severity } from './pack.ts';

/** A measured or required value, in SI or the rule's own unit. */
export interface Quantity {
  readonly value: number;
  readonly unit:
    | 'cd'
    | 'cd·s/min'
    | 'ms'
    | '/min'
    | '/s'
    | 'A'
    | 'pulses'
    | 'rhythms'
    | 'mm'
    | '%'
    | '°'
    | 'holes'
    | 'lamps'
    | 'outputs'
    | 'money';
}

export interface Limit extends Quantity {
  readonly sense: 'at least' | 'at most';
}

/** What to look at: the channels at fault, where it is seen, in which state. */
export interface Evidence {
  /** Null when it is so in every state. */
  readonly state: State | null;
  readonly channelIds: readonly string[];
  readonly sectors: readonly Sector[];
}

/** What one rule says of one state. */
export interface Fault {
  readonly sentence: string;
  /** Null when nothing was measured because nothing was there. */
  readonly figure: Quantity | null;
  readonly limits: readonly Limit[];
  readonly evidence: Evidence;
}

/** The checks of the layout, which need no pack. */
export type LayoutKind =
  | 'overlap'
  | 'off-zone'
  | 'keep-out'
  | 'hole'
  | 'fixing'
  | 'near-signal'
  | 'blocked'
  | 'turned-away'
  | 'balance'
  | 'reach'
  | 'asymmetry';

/** The checks of the timing, which need no pack. */
export type TimingKind = 'free-runner';

/** What kind of rule found it: one of a pack, a wish of the brief, or a check of the layout or the timing. */
export type FindingKind = Rule['kind'] | ConstraintKind | LayoutKind | TimingKind;

/** A rule that is broken. */
export interface Finding extends Fault {
  /** The same for the same fault from one check to the next. */
  readonly id: string;
  readonly packId: string;
  readonly packName: string;
  readonly ruleId: string;
  readonly kind: FindingKind;
  readonly severity: Severity;
  readonly clause: string;
}

/** How one rule came out over all states it speaks to. */
export interface RuleOutcome {
  readonly packId: string;
  readonly ruleId: string;
  /** "silent": the rule does not speak to this service. */
  readonly verdict: 'holds' | 'broken' | 'silent';
  readonly statesChecked: number;
}

export interface CheckResult {
  readonly findings: readonly Finding[];
  readonly outcomes: readonly RuleOutcome[];
}

export const SEVERITIES: readonly Severity[] = ['blocks', 'warns', 'advises', 'notes'];

/** Findings that stop the build from being signed off. */
export const blocking = (findings: readonly Finding[]): Finding[] =>
  findings.filter((f) => f.severity === 'blocks');
