import type { Build } from '@flarik/core/design/schema';
import { litChannels, ringOf } from '@flarik/core/coverage/ring';
import { colourOf, elevationOf, stateOf, type Args } from './args.ts';
import type { Output } from './output.ts';

/** Effective intensity and optical power for each bearing. */
export function coverage(build: Build, args: Args): Output {
  const state = stateOf(args, build);
  const elevationDeg = elevationOf(args);
  const colour = colourOf(args);
  const { effectiveCd, powerCdsPerMin } = ringOf(
    litChannels(build, state, { elevationDeg, colour, level: 'any', upperAboveM: 0 }),
  );
  const bearings = Array.from(effectiveCd, (cd, bearingDeg) => ({
    bearingDeg,
    effectiveCd: cd,
    powerCdsPerMin: powerCdsPerMin[bearingDeg] ?? 0,
  }));
  if (args.json)
    return {
      exitCode: 0,
      text: JSON.stringify({ build: build.name, state, elevationDeg, colour, bearings }, null, 2),
    };
  const rows = bearings.map((b) =>
    [
      String(b.bearingDeg).padStart(7),
      b.effectiveCd.toFixed(1).padStart(13),
      b.powerCdsPerMin.toFixed(0).padStart(15),
    ].join(' '),
  );
  return { exitCode: 0, text: ['bearing  effective cd        cd·s/min', ...rows].join('\n') };
}
