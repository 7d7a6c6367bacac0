import type { Build } from '@flarik/core/design/schema';
import { areaLight, groundGrid, lightOf, workAreasOf, type AreaLight } from '@flarik/core/sight/ground';
import { lightsIn, sourcesOf } from '@flarik/core/sight/source';
import { outlineOf } from '@flarik/core/sight/stations';
import { Surfaces } from '@flarik/core/sight/surfaces';
import { lampsLighting, placeOf, interreflectedLx, workPlaceLx } from '@flarik/core/sight/workPlace';
import { vehicleOf } from '@flarik/core/vehicle/vehicle';
import { figureOf, stateOf, type Args } from './args.ts';
import { runToCompletion } from '@flarik/core/words/inSteps';
import type { Output } from './output.ts';

const BEYOND_M = 15;
/** Enough to work by, lx. */
const ENOUGH_LX = 10;

/** Light to work by on the ground around the vehicle. */
export function ground(build: Build, args: Args): Output {
  const state = stateOf(args, build);
  const stepM = figureOf(args.grid, '--grid', 0.25, [0.1, 5]);
  const outline = outlineOf(vehicleOf(build.vehicle));
  const lamps = sourcesOf(lightsIn(build, state), 'steady');
  const grid = runToCompletion(groundGrid(lamps, outline, { stepM, beyondM: BEYOND_M }));
  const areas = workAreasOf(outline).map(({ id, name, ...area }) => ({
    id,
    name,
    ...areaLight(grid, area, ENOUGH_LX),
    byLamp: lampsLighting(lamps, placeOf(area)),
  }));
  const surfaces = Surfaces.of(build, state.open);
  const places = build.workPlaces.map((place) => ({
    id: place.id,
    name: place.name,
    ...lightOf(workPlaceLx(lamps, place), ENOUGH_LX),
    thrownBackLx: interreflectedLx(surfaces, lamps, place),
    byLamp: lampsLighting(lamps, place),
  }));
  const rows = Array.from({ length: grid.rows }, (_, row) =>
    Array.from(grid.lx.subarray(row * grid.columns, (row + 1) * grid.columns)),
  );
  if (args.json)
    return {
      exitCode: 0,
      text: JSON.stringify({ build: build.name, state, ...grid, lx: rows, areas, workPlaces: places }),
    };
  if (args.csv) {
    const xs = Array.from({ length: grid.columns }, (_, i) => (grid.fromX + i * stepM).toFixed(2));
    const lines = rows.map((row, i) =>
      [(grid.fromY + i * stepM).toFixed(2), ...row.map((v) => v.toFixed(2))].join(','),
    );
    return { exitCode: 0, text: [['y\\x', ...xs].join(','), ...lines].join('\n') };
  }
  const textOf = ({ name, meanLx, leastLx, evenness, aboveShare }: AreaLight & { name: string }): string =>
    `${name.padEnd(22)} mean ${meanLx.toFixed(1)} lx, least ${leastLx.toFixed(1)} lx, least against mean ${evenness.toFixed(2)}, ${Math.round(100 * aboveShare)} % above ${ENOUGH_LX} lx`;
  const lines = [
    ...areas.map(textOf),
    ...places.map((place) => `${textOf(place)}; ${place.thrownBackLx.toFixed(1)} lx added by reflection`),
  ];
  return { exitCode: 0, text: lines.join('\n') };
}
