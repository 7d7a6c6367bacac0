import type { Issue } from '../rules/judgement.ts';
import type { State } from '../state/state.ts';
import type { Asked } from './asked.ts';
import type { RepresentativeState } from './representative.ts';

/** Something a rule says of a state that the controls bring about. */
export interface RuleTrouble {
  readonly asked: Asked;
  readonly trouble: Issue;
  readonly where: RepresentativeState;
  readonly state: State;
  /** Nearest to rest, or worse than that one. */
  readonly which: 'reached' | 'worst';
}

/** Whether a trouble is told already of a function by itself. */
export type Known = (asked: Asked, about: string, mode: number) => boolean;
