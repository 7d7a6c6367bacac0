import type { Build } from '@flarik/core/design/schema';
import type { State } from '@flarik/core/state/state';
import { litChannels, ringOf, type Ring, type RingOptions } from '@flarik/core/coverage/ring';
import { checkBuild } from '@flarik/core/rules/check';
import type { CheckResult } from '@flarik/core/rules/finding';
import { floorToward } from '@flarik/core/rules/kinds/powerFloor';
import { meanLevel } from '@flarik/core/timing/timeline';
import * as Comlink from 'comlink';

export interface RingRequest {
  readonly build: Build;
  readonly state: State;
  readonly options: RingOptions;
}

/** A lamp's part in what is seen from a bearing. */
export interface Contribution {
  readonly placementId: string;
  readonly peakCd: number;
  readonly powerCdsPerMin: number;
  readonly colours: readonly string[];
}

export interface RingAnswer {
  readonly ring: Ring;
  /** What the chosen packs ask for by bearing, cd·s/min; 0 where they ask nothing. */
  readonly floor: Float64Array;
  readonly byBearing: readonly (readonly Contribution[])[];
}

function contributions(lit: ReturnType<typeof litChannels>, bearing: number): Contribution[] {
  const sums = new Map<string, { peakCd: number; power: number; colours: Set<string> }>();
  for (const { drive, share } of lit) {
    const cd = drive.peakCd * (share[bearing] ?? 0);
    if (cd < 0.5) continue;
    const sum = sums.get(drive.placementId) ?? { peakCd: 0, power: 0, colours: new Set() };
    sum.peakCd += cd;
    sum.power += cd * 60 * meanLevel(drive);
    sum.colours.add(drive.colour);
    sums.set(drive.placementId, sum);
  }
  return [...sums]
    .map(([placementId, { peakCd, power, colours }]) => ({
      placementId,
      peakCd,
      powerCdsPerMin: power,
      colours: [...colours],
    }))
    .toSorted((a, b) => b.powerCdsPerMin - a.powerCdsPerMin)
    .slice(0, 6);
}

const api = {
  /** Findings over all states, and those of the state being looked at. */
  check: (build: Build): CheckResult => checkBuild(build),
  checkState: (build: Build, state: State): CheckResult => checkBuild(build, state),

  ring({ build, state, options }: RingRequest): RingAnswer {
    const lit = litChannels(build, state, options);
    const floors = build.rulePacks.flatMap((pack) =>
      pack.rules.flatMap((rule) =>
        rule.kind === 'power-floor' && (rule.services.length === 0 || rule.services.includes(build.service))
          ? [rule]
          : [],
      ),
    );
    const bearings = Array.from({ length: 360 }, (_, b) => b);
    return {
      ring: ringOf(lit),
      floor: Float64Array.from(bearings, (b) =>
        floorToward(floors, b, state.stage, state.ambient, options.level),
      ),
      byBearing: bearings.map((b) => contributions(lit, b)),
    };
  },
};

export type AnalysisApi = typeof api;

Comlink.expose(api);
