import '../withoutEval';
import { contributionsAt, type Contribution } from '@flarik/core/coverage/contributions';
import { litChannels, ringOf, type Ring, type RingOptions } from '@flarik/core/coverage/ring';
import { applyDelta, type Delta } from '@flarik/core/design/delta';
import { checkBuild } from '@flarik/core/rules/check';
import type { CheckResult } from '@flarik/core/rules/finding';
import { floorsIn } from '@flarik/core/rules/floors';
import type { State } from '@flarik/core/state/state';
import * as Comlink from 'comlink';
import { HeldDesign } from './heldDesign';
import { supervision, type Supervised } from './supervision';

export interface RingRequest {
  readonly state: State;
  readonly options: RingOptions;
}

export interface RingAnswer {
  readonly ring: Ring;
  /** What the chosen packs ask for by bearing, cd·s/min; 0 where they ask nothing. */
  readonly floor: Float64Array;
  /** Who lights each bearing most. */
  readonly byBearing: readonly (readonly Contribution[])[];
}

const MOST_NAMED = 6;

const design = new HeldDesign();

const api = {
  rest: (): void => design.drop(),
  take: design.take,
  edit: design.edit,

  /** Findings over all states; or what an edit that is only tried out would bring. */
  check: (tried: Delta | null = null): CheckResult =>
    checkBuild(tried === null ? design.present : applyDelta(design.present, tried)),
  checkState: (state: State): CheckResult => checkBuild(design.present, state),

  ring({ state, options }: RingRequest): RingAnswer {
    const build = design.present;
    const lit = litChannels(build, state, options);
    return {
      ring: ringOf(lit),
      floor: floorsIn(build, state, options.level),
      byBearing: Array.from({ length: 360 }, (_, b) => contributionsAt(lit, b).slice(0, MOST_NAMED)),
    };
  },
};

export type AnalysisApi = typeof api;

Comlink.expose({ ...supervision, ...api } satisfies Supervised);
