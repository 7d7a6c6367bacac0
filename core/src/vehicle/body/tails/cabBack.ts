import { box } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { both, onView, type XYR } from '../../picture/pen.ts';
import { assemble, lamp, acrossRect, mirrored } from '../assembly.ts';
import type { Stations } from '../dimension.ts';
import { acrossSheet, leaning, PRIVACY } from '../surfaces.ts';
import { zone } from '../zone.ts';

/** The flank's outline of a cab that ends upright, from its foot to its roof. */
export const cabBackOutline = (s: Stations, footZ = s.floorZ): XYR[] => [
  [s.cabRearX, footZ, 0.03],
  [s.cabRearX, s.beltZ, 0.04],
  [s.roofRearX, s.railZ, 0.12],
  [s.roofRearX + 0.12, s.roofZ, 0.16],
];

/** The back of a cab: a wall with a window over it. */
export function cabBack(s: Stations, { glass = true } = {}): Assembly {
  const w = s.halfWidth;
  return assemble({
    solids: [
      box('cab-back', [s.cabRearX, -(w - 0.06), s.floorZ], [s.cabRearX + 0.05, w - 0.06, s.beltZ]),
      acrossSheet(
        'cab-back-upper',
        { x: s.cabRearX, y: w - 0.1, z: s.beltZ },
        { x: s.roofRearX, y: s.railY - 0.03, z: s.railZ },
        [1, 0, 0],
        glass ? { transmission: PRIVACY } : {},
      ),
      ...mirrored([
        ...leaning(
          s,
          'pillar-c-left',
          [s.cabRearX, s.doorRearX + 0.08],
          [s.roofRearX, Math.max(s.doorRearX, s.roofRearX) + 0.08],
        ),
        box('cab-corner-left', [s.cabRearX, w - 0.08, s.floorZ], [s.doorRearX - 0.005, w, s.beltZ]),
      ]),
    ],
    zones: glass
      ? [
          zone({
            id: 'rear-glass',
            name: 'Cab rear glass',
            face: 'rear',
            mount: 'glass',
            centre: [s.roofRearX + 0.06, 0, s.railZ - 0.1],
            n: [-1, 0, 0],
            widthM: 1.1,
            heightM: 0.12,
            behind: 'Headliner inside, behind the cab’s rear glass',
          }),
        ]
      : [],
    factoryLamps: [
      lamp(
        'stop-centre',
        'High stop and cargo lamp',
        'cargo',
        acrossRect(s.roofRearX - 0.01, -0.16, 0.16, s.railZ + 0.01, s.railZ + 0.04),
      ),
    ],
    art: onView('rear', (b) => [
      b.fill(
        'body',
        both([
          [0, s.floorZ],
          [w - 0.05, s.floorZ, 0.05],
          [w, s.beltZ - 0.1, 0.08],
          [w - 0.03, s.beltZ, 0.08],
          [s.railY + 0.02, s.railZ - 0.03, 0.1],
          [s.railY - 0.12, s.roofZ, 0.14],
          [0, s.roofZ],
        ]),
      ),
      ...(glass
        ? [
            b.fill(
              'glass',
              both([
                [0, s.beltZ + 0.05],
                [w - 0.22, s.beltZ + 0.05, 0.06],
                [s.railY - 0.1, s.railZ - 0.05, 0.06],
                [0, s.railZ - 0.04],
              ]),
            ),
          ]
        : []),
    ]),
  });
}
