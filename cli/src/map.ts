import { directionMap, MAP_QUANTITIES, type MapQuantity } from '@flarik/core/coverage/map';
import type { Build } from '@flarik/core/design/schema';
import { InputError } from '@flarik/core/words/errors';
import { colourOf, stateOf, type Args } from './args.ts';
import { runToCompletion } from '@flarik/core/words/inSteps';
import type { Output } from './output.ts';

/** The light toward every direction, a row for each elevation. */
export function map(build: Build, args: Args): Output {
  const state = stateOf(args, build);
  const colour = colourOf(args);
  const quantity = quantityOf(args);
  const options = { colour, level: 'any', upperAboveM: 0 } as const;
  const { elevationsDeg, values } = runToCompletion(directionMap(build, state, options, quantity));
  const rows = elevationsDeg.map((elevationDeg, row) => ({
    elevationDeg,
    values: Array.from(values.subarray(row * 360, row * 360 + 360)),
  }));
  if (args.json)
    return {
      exitCode: 0,
      text: JSON.stringify({ build: build.name, state, colour, quantity, rows }),
    };
  if (!args.csv) throw new InputError('', 'a map is given as --csv or as --json');
  const head = ['elevation', ...Array.from({ length: 360 }, (_, b) => String(b))];
  const lines = rows.map((row) => [String(row.elevationDeg), ...row.values.map((v) => v.toFixed(1))]);
  return { exitCode: 0, text: [head, ...lines].map((cells) => cells.join(',')).join('\n') };
}

function quantityOf({ quantity = 'power' }: Args): MapQuantity {
  const known = MAP_QUANTITIES.find((one) => one === quantity);
  if (known === undefined)
    throw new InputError('--quantity', `must be one of ${MAP_QUANTITIES.join(', ')}, not '${quantity}'`);
  return known;
}
