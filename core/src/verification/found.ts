import type { ChannelRef } from '../design/schema.ts';
import type { Severity } from '../words/severity.ts';
import type { RepresentativeState } from './representative.ts';
import type { VerificationSubject } from './subject.ts';
import type { Subject } from '../rules/subject.ts';

/** Something a check found, in a state that can be reached or in none. */
export interface VerificationFinding {
  /** What it is about, without a figure. */
  readonly subjects: readonly Subject[];
  readonly sentence: string;
  /** Where it is so: nearest to rest. Left out, or null, for what is so in every state, or in none. */
  readonly where?: RepresentativeState | null;
  readonly channels?: readonly ChannelRef[];
  /** Where it is graver or less grave than the check usually says. */
  readonly severity?: Severity;
  /** What could not be looked at whole is not said to hold. */
  readonly outcome?: 'cannot tell';
}

/** A check of the controls over every state that they can reach: everything about it, in one file. */
export interface VerificationCheck {
  readonly kind: string;
  readonly severity: Severity;
  readonly clause: string;
  /** It asks about some functions at a time, or needs no states: it can tell where all states together are too many. */
  readonly alone?: true;
  readonly find: (subject: VerificationSubject) => readonly VerificationFinding[];
}
