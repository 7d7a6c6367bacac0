import type { Ambient } from '../words/ambient.ts';
import { subjectsKey, type Subject } from '../rules/subject.ts';
import type { Diagram } from './diagrams.ts';
import type { Found } from './found.ts';
import type { ProofSubject } from './subject.ts';

/** What a check finds, of each thing the state nearest to rest. */
export class NearestFound {
  readonly #subject: ProofSubject;
  readonly #found = new Map<string, Found>();

  constructor(subject: ProofSubject) {
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
    said: Omit<Found, 'subjects' | 'where'>,
  ): void {
    const { whole } = this.#subject;
    const about = subjectsKey(subjects);
    const known = this.#found.get(about);
    const depth = known?.where?.events.length ?? Infinity;
    const states = this.#subject.statesWhere(when, ambient);
    const where = this.#subject.nearest(known === undefined ? states : whole.nearerThan(states, depth));
    if (where !== null) this.#found.set(about, { subjects, where, ...said });
  }

  get all(): readonly Found[] {
    return [...this.#found.values()];
  }
}
