import type { Build } from '@flarik/core/design/schema';
import { proving, type Progress, type Proof } from '@flarik/core/proof/prove';
import * as Comlink from 'comlink';

/** The run that is wanted; an older one gives up at its next step. */
let wanted = 0;

const api = {
  /**
   * Looks at every state that the controls can reach.
   * @returns null when it was given up for a newer run, or stopped
   */
  async prove(build: Build, tell: (progress: Progress) => void): Promise<Proof | null> {
    const mine = ++wanted;
    const run = proving(build);
    for (;;) {
      const step = run.next();
      if (step.done === true) return step.value;
      tell(step.value);
      // Between two checks whoever wants something else is heard.
      await new Promise((done) => setTimeout(done));
      if (mine !== wanted) return null;
    }
  },

  stop(): void {
    wanted++;
  },
};
export type ProofApi = typeof api;

Comlink.expose(api);
