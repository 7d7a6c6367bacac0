import type { Ambient } from '../words/ambient.ts';
import { subjectsKey, type Subject } from '../rules/subject.ts';
import type { Diagram } from './diagrams.ts';
import type { VerificationFinding } from './found.ts';
import type { VerificationSubject } from './subject.ts';

/** What a check finds, of each thing the state nearest to rest. */
export class NearestFound {
  readonly #subject: VerificationSubject;
  readonly #found = new Map<string, VerificationFinding>();

  constructor(subject: VerificationSubject) {
    this.#subject = subject;
  }

  /**
   * Notes that something is wrong in some output states, unless it is known from as near.
   * @param when - functions that are on together, told by their variables
   */
  note(
    subjects: readonly Subject[],
    when: Diagram,
    ambient: Ambient,
    said: Omit<VerificationFinding, 'subjects' | 'where'>,
  ): void {
    const { whole } = this.#subject;
    const about = subjectsKey(subjects);
    const known = this.#found.get(about);
    const depth = known?.where?.events.length ?? Infinity;
    const states = this.#subject.statesWhere(when, ambient);
    const where = this.#subject.nearest(known === undefined ? states : whole.nearerThan(states, depth));
    if (where !== null) this.#found.set(about, { subjects, where, ...said });
  }

  get all(): readonly VerificationFinding[] {
    return [...this.#found.values()];
  }
}
