import type { ProgramEvent } from '../controls/program.ts';

/** A question that is not answered, and why. The others go on. */
export class CannotTell extends Error {
  constructor(why: string) {
    super(why);
    this.name = 'CannotTell';
  }
}

/** One that needs more room or time than it may have. */
export class OverBudget extends CannotTell {
  constructor(what: string) {
    super(what);
    this.name = 'OverBudget';
  }
}

/** One whose counterexample did not lead where it should when it was replayed: the search itself is wrong. */
export class NotReplayed extends CannotTell {
  constructor(events: readonly ProgramEvent[]) {
    super(
      `a counterexample could not be replayed, which is a fault of Flarik itself: ${JSON.stringify(events)}`,
    );
    this.name = 'NotReplayed';
  }
}
