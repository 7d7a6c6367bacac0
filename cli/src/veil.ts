import type { Build } from '@flarik/core/design/schema';
import { bouncesAt } from '@flarik/core/sight/bounce';
import { reflectionsAt } from '@flarik/core/sight/reflections';
import { lightsIn } from '@flarik/core/sight/source';
import { driverOf, solidsIn } from '@flarik/core/sight/stations';
import { Surfaces } from '@flarik/core/sight/surfaces';
import { veilOf } from '@flarik/core/sight/veil';
import { partText } from '@flarik/core/vehicle/partText';
import { vehicleOf } from '@flarik/core/vehicle/vehicle';
import { InputError } from '@flarik/core/words/errors';
import { figureOf, stateOf, type Args } from './args.ts';
import type { Output } from './output.ts';

/** What fog, road, body and cab throw back to the driver, and what is seen in own glass and mirrors. */
export function veil(build: Build, args: Args): Output {
  const state = stateOf(args, build);
  const opticalRangeM = figureOf(args.visibility, '--visibility', 80, [20, 2000]);
  const vehicle = vehicleOf(build.vehicle);
  const driver = driverOf(vehicle, build.traffic);
  if (driver === null) throw new InputError('', 'this body has no driver’s seat');
  const lights = lightsIn(build, state);
  const solids = solidsIn(vehicle, state.open);
  const found = veilOf(lights, solids, driver.eye, opticalRangeM);
  const bounces = bouncesAt(Surfaces.of(build, state.open), lights, driver.eye);
  const reflections = reflectionsAt(build, state.open, lights, driver);
  if (args.json)
    return {
      exitCode: 0,
      text: JSON.stringify(
        { build: build.name, state, opticalRangeM, eye: driver.eye, ...found, bounces, reflections },
        null,
        2,
      ),
    };
  const labelOf = (id: string): string => build.placements.find((p) => p.id === id)?.label ?? 'deleted lamp';
  const figures = ({ highest, mean }: { highest: number; mean: number }): string =>
    `${highest.toFixed(3)} cd/m² peak, ${mean.toFixed(3)} cd/m² average`;
  return {
    exitCode: 0,
    text: [
      `all: ${figures(found)}`,
      `white alone: ${figures(found.white)}`,
      ...found.byLamp.map(({ placementId, ...one }) => `${labelOf(placementId)}: ${figures(one)}`),
      ...bounces.map(
        ({ surface, bearingDeg, elevationDeg, ...one }) =>
          `reflected by ${partText(surface)} at ${bearingDeg}°, ${elevationDeg}°: ${figures(one)}`,
      ),
      ...reflections.map(
        ({ mirror, eyeLx, ...one }) =>
          `seen in ${mirror}, ${eyeLx.toFixed(3)} lx at the eye: ${figures(one)}`,
      ),
    ].join('\n'),
  };
}
