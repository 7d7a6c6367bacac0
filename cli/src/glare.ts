import type { Build } from '@flarik/core/design/schema';
import {
  eyeLightByFunction,
  eyesInLane,
  glareAt,
  ADAPTATION_LUMINANCE,
  thresholdIncrement,
  type Lane,
} from '@flarik/core/sight/glare';
import { lightsIn } from '@flarik/core/sight/source';
import { driverOf, stationsOf } from '@flarik/core/sight/stations';
import { activeFunctionNames } from '@flarik/core/design/controls';
import { vehicleOf } from '@flarik/core/vehicle/vehicle';
import { figureOf, stateOf, type Args } from './args.ts';
import type { Output } from './output.ts';

/** What an eye may be said to be used to, cd/m². */
const MAY_BE_USED_TO = [0.1, 20_000] as const;
const LANES: readonly Lane[] = ['oncoming', 'following'];

/** What the light does to eyes near the vehicle and on the road. */
export function glare(build: Build, args: Args): Output {
  const state = stateOf(args, build);
  const lights = lightsIn(build, state);
  const usedTo = figureOf(args.usedTo, '--adaptation', ADAPTATION_LUMINANCE[state.ambient], MAY_BE_USED_TO);
  const eyes = [
    ...stationsOf(build).map(({ name, eye, view }) => ({ name, eye, view })),
    ...LANES.flatMap((lane) =>
      eyesInLane(lane, build.traffic).map(({ distanceM, eye, view }) => ({
        name: `${lane} driver, ${distanceM} m`,
        eye,
        view,
      })),
    ),
  ].map((one) => {
    const { highest, mean, eyeLx } = glareAt(lights, one);
    return {
      ...one,
      veilCdPerM2: highest,
      meanVeilCdPerM2: mean,
      thresholdIncrementPercent: thresholdIncrement(highest, usedTo),
      meanThresholdIncrementPercent: thresholdIncrement(mean, usedTo),
      eyeLx,
    };
  });
  const driver = driverOf(vehicleOf(build.vehicle), build.traffic);
  const direct = driver === null ? [] : eyeLightByFunction(lights, driver);
  if (args.json)
    return {
      exitCode: 0,
      text: JSON.stringify({ build: build.name, state, usedToCdPerM2: usedTo, eyes, direct }, null, 2),
    };
  return {
    exitCode: 0,
    text: [
      ...eyes.map(
        (e) =>
          `${e.name.padEnd(44)} veil ${e.veilCdPerM2.toFixed(3)} cd/m², ${e.thresholdIncrementPercent.toFixed(1)} % threshold increment (average ${e.meanThresholdIncrementPercent.toFixed(1)} %), ${e.eyeLx.toFixed(2)} lx`,
      ),
      ...direct.map(
        ({ on, eyeLx }) => `${activeFunctionNames(build, [on])}: ${eyeLx.toFixed(2)} lx at the driver’s eye`,
      ),
    ].join('\n'),
  };
}
