import { addPartner, addPlacement } from '../../src/arrange/lamps.ts';
import { freeSpot } from '../../src/arrange/freeSpot.ts';
import { assignDefaults } from '../../src/arrange/assignDefaults.ts';
import { withStartingStages } from '../../src/arrange/startingStages.ts';
import type { Build } from '../../src/design/schema.ts';
import { vehicleOf } from '../../src/vehicle/vehicle.ts';
import { emptyBuild } from './places.ts';

/** What is usual on a vehicle: fixtures, and the zones that take them, by whatever body there is. */
const USUAL: readonly (readonly [fixtureId: string, zone: RegExp])[] = [
  ['roof-bar-1200', /^roof$/],
  ['perimeter-head-3', /^grille$/],
  ['perimeter-head-3', /front-bumper/],
  ['perimeter-head-3', /rear-bumper|box-rear|rear-step-left/],
  ['perimeter-head-3', /corner-rear-left|rear-post/],
  ['perimeter-head-3', /wing-left|skirt-left|lamp-panel-left/],
  ['scene-flood', /roof-side-left|box-upper-left/],
  ['door-edge-marker', /door-edge-front-left/],
  ['hatch-lip-head', /hatch-lip/],
  ['perimeter-head-3', /hatch-panel-left/],
  ['cabin-white-red', /cargo-ceiling/],
  ['factory-reverse', /tie-reverse-left/],
];

/** A new build of a body with its usual lamps in pairs, placed as the screen places them, and stages to begin with. */
export function equippedBuild(bodyType: string): Build {
  const { zones } = vehicleOf(emptyBuild(bodyType).vehicle);
  return USUAL.reduce(
    (build, [fixtureId, of], i) => {
      const zone = zones.find(({ id }) => of.test(id));
      if (zone === undefined) return build;
      const [id, twin] = [`lamp-${i}`, `lamp-${i}-x`];
      const across = zone.mirrorId === zone.id;
      const isPair = !across || fixtureId === 'perimeter-head-3';
      const uM = isPair && across ? Math.sign(zone.u[1]) * (zone.widthM / 4) : 0;
      const wanted = { id, fixtureId, zoneId: zone.id, uM, vM: 0 };
      const one = addPlacement(build, { ...wanted, ...freeSpot(build, wanted, isPair) });
      return isPair
        ? assignDefaults(addPartner(one, id, twin), [id, twin], ['stage-2'])
        : assignDefaults(one, [id], ['stage-2']);
    },
    withStartingStages(emptyBuild(bodyType), 'rear-all-white'),
  );
}
