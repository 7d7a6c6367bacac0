import type { ControlProgram } from '../controls/program.ts';
import { ReachableSet } from './reachable.ts';

/** Nodes that the diagrams of functions with all they depend on may have. */
const MOST_CONE_NODES = 1_500_000;

/** What a program can reach, as a whole, and of some functions with all that they depend on. */
export class ReachedPrograms {
  readonly whole: ReachableSet;
  readonly #programme: ControlProgram;
  readonly #cones = new Map<string, ReachableSet>();

  constructor(programme: ControlProgram) {
    this.#programme = programme;
    this.whole = new ReachableSet(programme);
  }

  /**
   * What tells all of some functions: the whole where it was reached whole, else these functions with their cone of influence,
   * which go the same way whatever the others do.
   */
  of(functionIds: Iterable<string>): ReachableSet {
    if (this.whole.within === null) return this.whole;
    const key = [...functionIds].toSorted().join();
    const known =
      this.#cones.get(key) ?? new ReachableSet(this.#programme.about(key.split(',')), MOST_CONE_NODES);
    this.#cones.set(key, known);
    return known.within !== null && known.within <= this.whole.within ? this.whole : known;
  }
}
