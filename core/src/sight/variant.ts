import { litChannels, powerRing } from '../coverage/ring.ts';
import { FACE_BEARINGS } from '../coverage/sectors.ts';
import type { ActiveFunction } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { countsOf, type Counts } from '../resolve/counts.ts';
import { currentOf, type Current } from '../resolve/current.ts';
import { drivenIn } from '../state/driven.ts';
import { checkedFunctionSets, modeOf, stateWith } from '../state/state.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Face } from '../words/face.ts';
import { STATED_AT_V } from '../words/volts.ts';

/** Money of so many minor units is what light is held against. */
const HUNDRED_MINOR = 10_000;

/** The light toward a face, level, with everything shut, cd·s/min: where it is least, and as a mean over its bearings. */
export interface FaceLight {
  readonly least: number;
  readonly mean: number;
}

/** What one way to equip a vehicle comes to, to be held against another. */
export interface Variant {
  /** What is on. */
  readonly on: ActiveFunction;
  readonly light: Readonly<Record<Face, FaceLight>>;
  readonly current: Current;
  /** Power as a mean over time, W. */
  readonly meanW: number;
  readonly counts: Counts;
  /** Light as a mean all round for each hundred of money spent on fixtures, cd·s/min; null where nothing is bought. */
  readonly perHundred: number | null;
}

/** The modes that a build has functions for, the most urgent last; without 0, which warns nobody. */
export const modesOf = (build: Build): number[] =>
  [...new Set(checkedFunctionSets(build).map((on) => modeOf(build, [on])))]
    .filter((mode) => mode > 0)
    .toSorted((a, b) => a - b);

/**
 * What a build comes to in a mode, by the first function that has it.
 * @returns null when it has none
 */
export function variantOf(build: Build, mode: number, ambient: Ambient): Variant | null {
  const on = checkedFunctionSets(build).find((one) => modeOf(build, [one]) === mode);
  if (on === undefined) return null;
  const state = stateWith({ on: [on], ambient });
  const power = powerRing(
    litChannels(build, state, { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 0 }),
  );
  const meanOf = (bearings: Iterable<number>, count: number): number =>
    [...bearings].reduce((sum, b) => sum + (power[b] ?? 0), 0) / count;
  const face = (of: Face): FaceLight => {
    const bearings = FACE_BEARINGS[of];
    return {
      least: Math.min(...bearings.map((b) => power[b] ?? 0)),
      mean: meanOf(bearings, bearings.length),
    };
  };
  const counts = countsOf(build);
  const current = currentOf(drivenIn(build, state));
  return {
    on,
    light: { front: face('front'), right: face('right'), rear: face('rear'), left: face('left') },
    current,
    meanW: current.meanA * STATED_AT_V,
    counts,
    perHundred:
      counts.costMinor === 0 ? null : (meanOf(power.keys(), power.length) * HUNDRED_MINOR) / counts.costMinor,
  };
}
