import type { Sector } from '../coverage/sectors.ts';
import type { TestStep } from '../design/controls.ts';
import type { ChannelRef } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import type { Severity } from '../words/severity.ts';
import type { Subject } from './subject.ts';

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
    | 'm'
    | '%'
    | '°'
    | 'V'
    | 'holes'
    | 'lamps'
    | 'outputs'
    | 'lx'
    | 's'
    | 'money';
}

export interface Limit extends Quantity {
  readonly sense: 'at least' | 'at most';
}

export const atLeast = (value: number, unit: Quantity['unit']): Limit => ({ value, unit, sense: 'at least' });
export const atMost = (value: number, unit: Quantity['unit']): Limit => ({ value, unit, sense: 'at most' });

/** What to look at: the channels at fault, where it is seen, in which state. */
export interface Evidence {
  /** Null when it is so in every state. */
  readonly state: State | null;
  readonly channels: readonly ChannelRef[];
  readonly sectors: readonly Sector[];
  /** The shortest way from rest to that state, by the controls; empty where it was not asked for. */
  readonly steps: readonly TestStep[];
}

/** The step of the work in which something is put right. */
export type Home = 'brief' | 'layout' | 'timing' | 'controls' | 'visibility';

/** A rule that is broken, or of which it cannot be told whether it is. */
export interface Finding {
  readonly outcome: 'fails' | 'cannot tell';
  /** Rule, what it is about and state, without a figure: the same for the same fault from one check to the next. */
  readonly id: string;
  /** What it is about: things by their ids, words of the model. */
  readonly subjects: readonly Subject[];
  readonly packId: string;
  readonly packName: string;
  readonly ruleId: string;
  readonly kind: string;
  readonly home: Home;
  readonly severity: Severity;
  readonly clause: string;
  readonly sentence: string;
  /** Null when nothing was measured because nothing was there. */
  readonly figure: Quantity | null;
  readonly limits: readonly Limit[];
  readonly evidence: Evidence;
}

/** How one rule came out over all states it speaks to. */
export interface RuleOutcome {
  readonly packId: string;
  readonly ruleId: string;
  /** "silent": the rule does not speak to this build. */
  readonly verdict: 'holds' | 'broken' | 'cannot tell' | 'silent';
  /** The least room to a limit as a share of it, negative beyond it; null where nothing was measured. */
  readonly margin: number | null;
  readonly statesChecked: number;
  /** The margin is a bound: there is at least so much room, and perhaps more. */
  readonly isBound?: true;
  /** Why it cannot be told. */
  readonly why?: string;
}

export interface CheckResult {
  readonly findings: readonly Finding[];
  readonly outcomes: readonly RuleOutcome[];
}

/** Findings that stop the build from being signed off: what may be broken and blocks is not signed off either. */
export const blocking = (findings: readonly Finding[]): Finding[] =>
  findings.filter((f) => f.severity === 'blocks');

/** Who asks, how grave it is when it fails, and where it is put right. */
export type Head = Pick<Finding, 'packId' | 'packName' | 'ruleId' | 'kind' | 'severity' | 'clause' | 'home'>;
