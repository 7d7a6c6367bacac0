import '../withoutEval';
import { VerificationCache } from '@flarik/core/verification/memory';
import { verifying, type Progress, type Verification } from '@flarik/core/verification/prove';
import type { CheckResult } from '@flarik/core/rules/finding';
import * as Comlink from 'comlink';
import { HeldDesign } from './heldDesign';
import { supervision, type Supervised } from './supervision';

const design = new HeldDesign();
let memory = new VerificationCache();

/** The run that is wanted; an older one gives up at its next step. */
let wanted = 0;

const api = {
  rest(): void {
    wanted++;
    design.drop();
    memory = new VerificationCache();
  },
  take: design.take,
  edit: design.edit,

  /**
   * Looks at every state that the controls can reach.
   * @param checked - what is known of the functions by themselves
   * @returns null when it was given up for a newer run, or the worker was given back
   */
  async prove(checked: CheckResult, tell: (progress: Progress) => void): Promise<Verification | null> {
    const mine = ++wanted;
    const run = verifying(design.present, checked, memory);
    for (;;) {
      const step = run.next();
      if (step.done === true) return step.value;
      tell(step.value);
      // Between two checks whoever wants something else is heard.
      await new Promise((done) => setTimeout(done));
      if (mine !== wanted) return null;
    }
  },
};
export type VerificationApi = typeof api;

Comlink.expose({ ...supervision, ...api } satisfies Supervised);
