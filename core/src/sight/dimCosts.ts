import type { Approach } from '../design/approach.ts';
import { onKey, readOn } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { Approaches } from './approach.ts';
import { metresPerSecond } from './stopping.ts';

/** What a function that dims light, or takes it away, costs whoever comes along an approach. */
export interface DimCost {
  readonly functionId: string;
  readonly name: string;
  /** With it on, and with it off, the vehicle is seen from so far, m. */
  readonly withM: number;
  readonly withoutM: number;
  /** So much later it is seen, s. */
  readonly lostS: number;
}

/** Less is not told, m. */
const TOLD_M = 1;

/** What each such function costs in a state, whether it is on there or not; the dearest first. */
export function dimCosts(build: Build, state: State, approach: Approach): DimCost[] {
  const seenM = (on: readonly string[]): number =>
    new Approaches(build, { ...state, on }).result(approach).sightings[0].seenM;
  return build.controls.functions
    .filter(({ shows }) =>
      shows.some(({ dims, cues }) => dims.length > 0 || cues.some((cue) => cue.show === 'dark')),
    )
    .map(({ id, name }): DimCost => {
      const without = state.on.filter((on) => readOn(on).id !== id);
      const mine = state.on.find((on) => readOn(on).id === id) ?? onKey(id, 1);
      const withM = seenM([...without, mine]);
      const withoutM = seenM(without);
      return {
        functionId: id,
        name,
        withM,
        withoutM,
        lostS: (withoutM - withM) / metresPerSecond(approach.speedKmh),
      };
    })
    .filter(({ withM, withoutM }) => withoutM - withM >= TOLD_M)
    .toSorted((a, b) => b.lostS - a.lostS);
}
