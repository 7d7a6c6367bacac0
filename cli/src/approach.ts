import type { Build } from '@flarik/core/design/schema';
import { Approaches } from '@flarik/core/sight/approach';
import { usualApproaches } from '@flarik/core/sight/usualApproaches';
import { reflectiveFromM } from '@flarik/core/sight/reflective';
import { approachText, reflectiveText, timeMarginText } from '@flarik/core/sight/words';
import { stateOf, type Args } from './args.ts';
import type { Output } from './output.ts';

/** Who drives toward the vehicle, and whether it is seen in time; the least to spare first. */
export function approach(build: Build, args: Args): Output {
  const state = stateOf(args, build);
  const approaches = new Approaches(build, state);
  const list = [...build.approaches, ...usualApproaches(build.brief.duty)];
  const rows = list
    .map((one) => ({
      ...approaches.result(one),
      reflectiveM:
        one.around === 'day' || build.vehicle.reflectors.length === 0
          ? null
          : reflectiveFromM(build, state.open, one),
    }))
    .toSorted((a, b) => a.sightings[0].marginS - b.sightings[0].marginS);
  if (args.json)
    return {
      exitCode: 0,
      text: JSON.stringify({ build: build.name, on: state.on, open: state.open, approaches: rows }, null, 2),
    };
  const lines = rows.map((row) => {
    const others = row.sightings.slice(1).map((one) => `${one.observer} ${timeMarginText(one)}`);
    const dark = row.reflectiveM === null ? '' : ` Lamps off: ${reflectiveText(row.reflectiveM)}.`;
    return `${approachText(row)} ${others.join(', ')}.${dark}`;
  });
  return { exitCode: 0, text: lines.join('\n') };
}
