import { slideBy } from '../../../geometry/frame.ts';
import { box, profileAcross } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { both, onSides, onView, rect, type XYR } from '../../picture/pen.ts';
import { acrossRect, assemble, lampPair, mirrored, partPair, part } from '../assembly.ts';
import type { Stations } from '../dimension.ts';
import { barnDoorOutline, barnDoors, wallWith } from '../openings.ts';
import { zone, zonePair } from '../zone.ts';
import { plate, rearBumper } from './rearBumper.ts';

export const vanOutline = (s: Stations): XYR[] => [
  [s.tailX + 0.12, s.floorZ, 0.06],
  [s.tailX, s.floorZ + 0.12, 0.08],
  [s.tailX, s.bumperTopZ, 0.05],
  [s.tailX + 0.04, s.bumperTopZ + 0.02, 0.02],
  [s.tailX + 0.06, s.railZ - 0.1, 0.2],
  [s.tailX + 0.14, s.roofZ, 0.14],
];

/** Measures that several of its functions need. */
const vanMeasures = (s: Stations) => {
  const w = s.halfWidth;
  const x0 = s.tailX + 0.06;
  const x1 = s.pillarX - 0.04;
  const topZ = s.railZ;
  const door = { x0: x1 - 1.15, x1: x1 - 0.05, z0: s.sillZ, z1: Math.min(topZ - 0.2, s.sillZ + 1.75) };
  const id = 'door-slide-left';
  const sit = s.beltZ - 0.02;
  // Above the bumper, whose corners are hollow.
  const barnZ0 = s.bumperTopZ;
  const barnZ1 = topZ - 0.14;
  return { w, x0, x1, topZ, door, id, sit, barnZ0, barnZ1 };
};
type VanMeasures = ReturnType<typeof vanMeasures>;

/** The load room of a panel van: flanks, a sliding door on each, barn doors. */
export function vanBody(s: Stations): Assembly {
  const m = vanMeasures(s);
  const { w, x0, id, barnZ0, barnZ1 } = m;
  return assemble(
    {
      art: onView('rear', (b) => [
        b.fill(
          'body',
          both([
            [0, s.floorZ],
            [w - 0.1, s.floorZ, 0.08],
            [w, s.bumperTopZ, 0.1],
            [w, s.beltZ, 0.3],
            [s.railY + 0.02, s.railZ, 0.16],
            [s.railY - 0.14, s.roofZ, 0.14],
            [0, s.roofZ],
          ]),
        ),
      ]),
    },
    {
      parts: partPair(part(id, 'Sliding door left', 'door', slideBy([-1.1, 0.09, 0]))),
      solids: vanSolids(s, m),
      zones: vanZones(s, m),
      factoryLamps: [
        ...lampPair(
          'tail-left',
          'Left tail and stop lamp',
          'stop',
          acrossRect(x0 - 0.02, w - 0.13, w - 0.02, s.beltZ - 0.2, s.beltZ + 0.12),
        ),
        ...lampPair(
          'turn-rear-left',
          'Left rear turn signal',
          'turn',
          acrossRect(x0 - 0.02, w - 0.13, w - 0.02, s.beltZ - 0.32, s.beltZ - 0.21),
        ),
      ],
      art: vanArt(s, m),
    },
    barnDoors(x0 - 0.04, w - 0.12, barnZ0, barnZ1),
    plate(x0 - 0.03, s.bumperTopZ + 0.04, 'barn-door-left', 0.45),
    rearBumper(s),
  );
}

function vanSolids(s: Stations, { w, x0, x1, topZ, door, id, barnZ0 }: VanMeasures): Assembly['solids'] {
  return [
    box('load-floor', [x0, -w + 0.06, barnZ0 - 0.04], [x1, w - 0.06, barnZ0]),
    ...profileAcross(
      'load-roof',
      [
        [x0, topZ],
        [x0 + 0.1, s.roofZ],
        [s.roofRearX + 0.4, s.roofZ],
        [s.roofRearX + 0.4, topZ],
      ],
      -s.railY,
      s.railY,
    ),
    box('bulkhead', [x1 - 0.04, -w + 0.08, s.sillZ], [x1, w - 0.08, topZ - 0.1], { transmission: 0.2 }),
    ...mirrored([
      ...wallWith('van-side-left', w, { x0, x1, z0: barnZ0, z1: topZ }, [door]),
      box(id, [door.x0, w - 0.05, door.z0], [door.x1, w, door.z1], { partId: id }),
    ]),
  ];
}

function vanZones(s: Stations, { w, x0, x1, topZ, door, sit }: VanMeasures): Assembly['zones'] {
  return [
    ...zonePair({
      id: 'quarter-left',
      name: 'Van side, rear left',
      face: 'left',
      mount: 'panel',
      centre: [(x0 + door.x0) / 2, w + 0.002, sit - 0.14],
      n: [0, 1, 0],
      widthM: Math.max(0.4, door.x0 - x0 - 0.3),
      heightM: 0.16,
      behind: 'Single-wall side panel between ribs',
      singleWall: true,
    }),
    ...zonePair({
      id: 'van-upper-left',
      name: 'Van side, upper left',
      face: 'left',
      mount: 'panel',
      centre: [(x0 + x1) / 2, w + 0.002, topZ - 0.09],
      n: [0, 1, 0],
      widthM: x1 - x0 - 0.3,
      heightM: 0.14,
      behind: 'Cant rail over the sliding door’s track',
    }),
    zone({
      id: 'van-rear-upper',
      name: 'Over the rear doors',
      face: 'rear',
      mount: 'panel',
      centre: [x0 - 0.005, 0, topZ - 0.04],
      n: [-1, 0, 0],
      widthM: 2 * s.railY - 0.2,
      heightM: 0.14,
      behind: 'Header over the rear doors',
    }),
    zone({
      id: 'van-roof-rear',
      name: 'Roof, rear',
      face: 'top',
      mount: 'roof',
      centre: [s.tailX + 0.55, 0, s.roofZ + 0.002],
      n: [0, 0, 1],
      widthM: 2 * s.railY - 0.34,
      heightM: 0.5,
      behind: 'Roof skin between ribs; one cable gland',
    }),
  ];
}

function vanArt(
  s: Stations,
  { w, x0, x1, topZ, door, id, sit, barnZ0, barnZ1 }: VanMeasures,
): Assembly['art'] {
  return [
    ...onSides((b) => [
      b.fill('cut', rect(door.x0, door.x1, door.z0, door.z1, 0.06), id),
      b.fill('opening', rect(door.x0, door.x1, door.z0, door.z1, 0.06), id),
      b.fill('trim', rect(door.x1 - 0.22, door.x1 - 0.06, sit - 0.1, sit - 0.07, 0.01), id),
      b.stroke('cut', [
        [x0 + 0.1, sit],
        [door.x0, sit],
      ]),
      b.stroke('shine', [
        [x0 + 0.1, sit - 0.25],
        [s.doorFrontX, sit - 0.25],
      ]),
      b.stroke('shine', [
        [x0 + 0.15, topZ - 0.02],
        [s.roofFrontX - 0.3, topZ - 0.02],
      ]),
      b.fill('cut', rect(x0 + 0.12, door.x0 - 0.12, sit + 0.1, Math.min(topZ - 0.25, sit + 0.75), 0.08)),
    ]),
    ...onView('rear', (b) =>
      (['left', 'right'] as const).flatMap((side) => {
        const leafId = `barn-door-${side}`;
        const sign = side === 'left' ? -1 : 1;
        const leaf = barnDoorOutline(side, w - 0.14, barnZ0, barnZ1);
        return [
          b.fill('opening', leaf, leafId),
          b.fill('cut', leaf, leafId),
          b.fill(
            'glass',
            rect(sign * 0.14, sign * (w - 0.3), barnZ0 + (barnZ1 - barnZ0) * 0.58, barnZ1 - 0.16, 0.05),
            leafId,
          ),
          b.fill('trim', rect(sign * 0.04, sign * 0.07, s.beltZ - 0.25, s.beltZ, 0.01), leafId),
        ];
      }),
    ),
    ...onView('plan', (b) => [
      b.fill('cut', rect(x0 + 0.08, s.roofFrontX - 0.05, -s.railY, s.railY, 0.08)),
      ...[0.15, 0.35, 0.55, 0.75].map((k) =>
        b.stroke('shine', [
          [x0 + (x1 - x0) * k, -s.railY + 0.1],
          [x0 + (x1 - x0) * k, s.railY - 0.1],
        ]),
      ),
    ]),
  ];
}
