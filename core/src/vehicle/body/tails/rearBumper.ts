import { prism } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { both, onSides, onView, rect } from '../../picture/pen.ts';
import { acrossRect, assemble, lamp, lampPair } from '../assembly.ts';
import type { Stations } from '../dimension.ts';
import { bumperPlan } from '../front.ts';
import { zone, zonePair } from '../zone.ts';

/** A car's rear bumper with its corners and reversing lamps. */
export function rearBumper(s: Stations): Assembly {
  const w = s.halfWidth;
  const cut = w - 0.4;
  const z = (s.floorZ + s.bumperTopZ) / 2 + 0.08;
  return assemble({
    solids: [prism('rear-bumper', bumperPlan(s, s.tailX, 1), [0, 0, s.bumperTopZ - 0.01 - s.floorZ])],
    zones: [
      zone({
        id: 'rear-bumper',
        name: 'Rear bumper',
        face: 'rear',
        mount: 'panel',
        centre: [s.tailX - 0.002, 0, z],
        n: [-1, 0, 0],
        widthM: 2 * cut - 0.02,
        heightM: 0.18,
        behind: 'Bumper skin; parking sensors beside',
      }),
      ...zonePair({
        id: 'corner-rear-left',
        name: 'Rear left corner',
        face: 'corner',
        mount: 'panel',
        centre: [s.tailX + 0.138, (cut + w - 0.03) / 2, z],
        n: [-(w - 0.03 - cut), 0.28, 0],
        widthM: 0.36,
        heightM: 0.18,
        behind: 'Bumper skin, hollow',
      }),
    ],
    factoryLamps: lampPair(
      'reverse-left',
      'Left reversing lamp',
      'reverse',
      acrossRect(s.tailX, cut + 0.1, cut + 0.26, s.floorZ + 0.18, s.floorZ + 0.23),
    ),
    art: [
      ...onSides((b) => [
        b.stroke('cut', [
          [s.tailX + 0.02, s.bumperTopZ - 0.01],
          [s.rearAxleX - s.wheelRadius - 0.12, s.bumperTopZ - 0.03],
        ]),
      ]),
      ...onView('rear', (b) => [
        b.fill(
          'shade',
          both([
            [0, s.floorZ + 0.02],
            [w - 0.18, s.floorZ + 0.02, 0.04],
            [w - 0.12, s.floorZ + 0.12, 0.04],
            [0, s.floorZ + 0.12],
          ]),
        ),
        b.stroke('cut', [
          [-w + 0.03, s.bumperTopZ - 0.02],
          [w - 0.03, s.bumperTopZ - 0.02],
        ]),
      ]),
    ],
  });
}

/** The rear of a car's skin, filled, as seen from behind. */
export const rearSkin = (s: Stations): Partial<Assembly> => ({
  art: onView('rear', (b) => [
    b.fill(
      'body',
      both([
        [0, s.floorZ],
        [s.halfWidth - 0.16, s.floorZ, 0.1],
        [s.halfWidth - 0.02, s.floorZ + 0.14, 0.08],
        [s.halfWidth, s.bumperTopZ, 0.1],
        [s.halfWidth, s.beltZ - 0.14, 0.12],
        [s.halfWidth - 0.03, s.beltZ, 0.1],
        [s.railY + 0.02, s.railZ - 0.03, 0.1],
        [s.railY - 0.12, s.roofZ, 0.16],
        [0, s.roofZ],
      ]),
    ),
  ]),
});

/** Number plate with its lamp, on a part or on the body. */
export const plate = (x: number, z: number, partId: string | null, y = 0): Partial<Assembly> => ({
  factoryLamps: [
    lamp(
      'plate',
      'Number-plate lamp',
      'plate',
      acrossRect(x - 0.03, y - 0.07, y + 0.07, z + 0.12, z + 0.135),
      partId,
    ),
  ],
  art: onView('rear', (b) => [b.fill('trim', rect(-y - 0.26, -y + 0.26, z, z + 0.11, 0.015), partId)]),
});
