import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { writeIes } from '../fixture/photometry/writeIes.ts';
import { activeFunctionNames } from '../design/controls.ts';
import { drivenIn } from '../state/driven.ts';
import { meanLevel } from '../timing/timeline.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { litChannels, powerRing } from './ring.ts';
import { STATED_AT_V } from '../words/volts.ts';

const STEPS = { c: 5, gamma: 2.5 } as const;

/**
 * The whole vehicle in a state as one upright luminaire, in an IES LM-63 file: the time mean of what every lamp sends
 * past the body, far away. C = 0 is straight ahead, C = 90 the vehicle's left.
 *
 * @param lampId - this lamp alone, where it stands; null takes all
 */
export function iesOfState(whole: Build, state: State, lampId: string | null = null): string {
  const build =
    lampId === null ? whole : { ...whole, placements: whole.placements.filter((p) => p.id === lampId) };
  const { lengthM, widthM, heightM } = vehicleOf(build.vehicle);
  const rings = new Map<number, Float64Array>();
  const meanCd = (cDeg: number, gammaDeg: number): number => {
    const known = rings.get(gammaDeg);
    const ring =
      known ??
      powerRing(
        litChannels(build, state, {
          elevationDeg: gammaDeg - 90,
          colour: null,
          level: 'any',
          upperAboveM: 0,
        }),
      );
    rings.set(gammaDeg, ring);
    return (ring[(360 - cDeg) % 360] ?? 0) / 60;
  };
  const amperes = drivenIn(build, state).reduce((sum, d) => sum + d.currentA * meanLevel(d), 0);
  return writeIes(
    {
      name: `${build.name}, ${activeFunctionNames(build, state.on)}, time mean`,
      watts: amperes * STATED_AT_V,
      sizeM: { width: widthM, length: lengthM, height: heightM },
    },
    meanCd,
    STEPS,
  );
}
