import { lensPasses } from '@flarik/core/design/placement';
import { hasHousing, housingOf } from '@flarik/core/coverage/housings';
import type { Solid } from '@flarik/core/geometry/solid';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { placeModules } from '@flarik/core/resolve/place';
import type { Build } from '@flarik/core/design/schema';
import { InputError } from '@flarik/core/words/errors';
import { channelIdOf } from '@flarik/core/resolve/channels';
import { posedSolids } from '@flarik/core/vehicle/vehicle';
import { openOf, type Args } from './args.ts';
import type { Output } from './output.ts';

const FORMULA =
  'I = peakCd · lensTransmission · lensOfColour · 2^−(|H/h50Deg|^power + |V/v50Deg|^power), 0 where |H| or |V| exceeds 90°; with h50Deg null the same at every H; H = atan2(d·right, d·aim), V = asin(d·up)';

/** Everything other software needs to check our figures: solids, housings, and channels with place, aim, lens and beam. */
export function geometry(build: Build, args: Args): Output {
  if (!args.json) throw new InputError('geometry', 'prints JSON only: add --json');
  const lookup = lookupOf(build);
  const { vehicle } = lookup;
  const open = new Set(openOf(args, vehicle));
  const shape = ({ vertices, faces }: Pick<Solid, 'vertices' | 'faces'>) => ({ verticesM: vertices, faces });
  const solids = posedSolids(vehicle, open).map(({ id, partId, transmission, ...solid }) => ({
    id,
    partId,
    transmission,
    ...shape(solid),
  }));
  // A lamp is hidden by the housings of all others, never by its own.
  const housings = build.placements
    .filter(hasHousing)
    .map((p) => ({ lamp: p.id, label: p.label, ...shape(housingOf(lookup, p, [...open])) }));
  const channels = build.placements.filter(hasHousing).flatMap((p) =>
    placeModules(lookup, p, open).flatMap(({ module, centre, frame }, i) => {
      const setup = p.modules[i];
      if (setup === undefined) return [];
      const outputs = lookup.outputs(lookup.fixture(p.fixtureId), setup);
      const file = lookup.attached(p.fixtureId, module.id);
      return setup.colours.map((colour, slot) => ({
        id: channelIdOf({ placementId: p.id, moduleId: module.id, slot: slot + 1 }),
        label: p.label,
        colour,
        peakCd: outputs[colour]?.peakCd ?? 0,
        lensTransmission: p.lensTransmission,
        lensOfColour: lensPasses(p, setup, colour),
        positionM: centre,
        aim: frame.aim,
        up: frame.up,
        right: frame.right,
        distribution:
          file === null
            ? { ...module.distribution, formula: FORMULA }
            : {
                table: { ...file.table, cd: file.table.cd.map((row) => [...row]) },
                axis: file.axis,
                formula:
                  'I = peakCd · lensTransmission · lensOfColour · table / its greatest value, bilinear, 0 outside; see docs/how-it-works.md',
              },
      }));
    }),
  );
  const axes =
    'ISO 8855: x forward, y left, z up; origin on the ground midway between front and rear; metres';
  return {
    exitCode: 0,
    text: JSON.stringify(
      { build: build.name, axes, open: [...open], solids, housings, mesh: build.vehicle.mesh, channels },
      null,
      2,
    ),
  };
}
