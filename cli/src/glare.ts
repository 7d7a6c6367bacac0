import type { Build } from '@flarik/core/design/schema';
import {
  eyesInLane,
  glareAt,
  LUMINANCE_USED_TO,
  thresholdIncrement,
  type Lane,
} from '@flarik/core/sight/glare';
import { lightsIn } from '@flarik/core/sight/source';
import { stationsOf } from '@flarik/core/sight/stations';
import { stateOf, type Args } from './args.ts';
import type { Output } from './output.ts';

const LANES: readonly Lane[] = ['oncoming', 'following'];

/** What the light does to eyes near the vehicle and on the road. */
export function glare(build: Build, args: Args): Output {
  const state = stateOf(args, build);
  const lights = lightsIn(build, state);
  const usedTo = LUMINANCE_USED_TO[state.ambient];
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
    const percent = thresholdIncrement(highest, usedTo);
    return { ...one, veilCdPerM2: highest, meanVeilCdPerM2: mean, thresholdIncrementPercent: percent, eyeLx };
  });
  if (args.json)
    return {
      exitCode: 0,
      text: JSON.stringify({ build: build.name, state, usedToCdPerM2: usedTo, eyes }, null, 2),
    };
  const lines = eyes.map(
    (e) =>
      `${e.name.padEnd(44)} veil ${e.veilCdPerM2.toFixed(3)} cd/m², ${e.thresholdIncrementPercent.toFixed(1)} % more contrast, ${e.eyeLx.toFixed(2)} lx`,
  );
  return { exitCode: 0, text: lines.join('\n') };
}
