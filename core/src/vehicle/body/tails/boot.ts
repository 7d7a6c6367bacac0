import { turnAbout } from '../../../geometry/frame.ts';
import { box, profileAcross } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { both, bothSides, onSides, onView, type XYR } from '../../picture/pen.ts';
import { acrossRect, assemble, keepOut, lamp, lampPair, mirrored, part } from '../assembly.ts';
import type { Stations } from '../dimension.ts';
import { acrossSheet, leaning, PANEL_M, PRIVACY } from '../surfaces.ts';
import { zone, zonePair } from '../zone.ts';
import { plate, rearBumper, rearSkin } from './rearBumper.ts';

/** The boot lid stands a little over the belt. */
const deckZ = (s: Stations): number => s.beltZ + 0.06;

export const bootOutline = (s: Stations): XYR[] => [
  [s.tailX + 0.14, s.floorZ, 0.08],
  [s.tailX, s.floorZ + 0.12, 0.1],
  [s.tailX, s.bumperTopZ, 0.05],
  [s.tailX + 0.05, s.bumperTopZ + 0.02, 0.03],
  [s.tailX + 0.02, deckZ(s) - 0.03, 0.05],
  [s.cabRearX - 0.08, deckZ(s) + 0.02, 0.16],
  [s.roofRearX - 0.02, s.railZ + 0.02, 0.3],
  [s.roofRearX + 0.5, s.roofZ, 0.6],
];

/** Measures that several of its functions need. */
const bootMeasures = (s: Stations) => {
  const w = s.halfWidth;
  const z = deckZ(s);
  const lid = { partId: 'boot' };
  const faceX = s.tailX + 0.06;
  return { w, z, lid, faceX };
};
type BootMeasures = ReturnType<typeof bootMeasures>;

/** The tail of a sedan: fixed rear glass, boot lid, rear lamps. */
export function bootTail(s: Stations): Assembly {
  const m = bootMeasures(s);
  const { z, lid, faceX } = m;
  return assemble(
    rearSkin(s),
    {
      parts: [part('boot', 'Boot lid', 'hatch', turnAbout([s.cabRearX - 0.12, 0, z], [0, 1, 0], 78))],
      solids: bootSolids(s, m),
      zones: bootZones(s, m),
      factoryLamps: bootLamps(s, m),
      keepOuts: [
        keepOut(
          'Boot latch',
          'latch',
          box('latch', [faceX - 0.06, -0.12, s.bumperTopZ], [faceX + 0.1, 0.12, s.bumperTopZ + 0.05], lid),
        ),
      ],
      art: bootArt(s, m),
    },
    plate(faceX - 0.02, s.bumperTopZ + 0.03, 'boot'),
    rearBumper(s),
  );
}

function bootSolids(s: Stations, { w, z, lid, faceX }: BootMeasures): Assembly['solids'] {
  return [
    acrossSheet(
      'rear-glass',
      { x: s.cabRearX, y: w - 0.16, z: z - 0.02 },
      { x: s.roofRearX, y: s.railY - 0.04, z: s.railZ },
      [1, 0, 0],
      { transmission: PRIVACY },
    ),
    ...profileAcross(
      'boot-lid',
      [
        [s.cabRearX - 0.12, z],
        [faceX, z - 0.04],
        [faceX, z - 0.08],
        [s.cabRearX - 0.12, z - 0.05],
      ],
      -(w - 0.2),
      w - 0.2,
      lid,
    ),
    ...profileAcross(
      'boot-face',
      [
        [faceX, z - 0.06],
        [faceX, s.bumperTopZ],
        [faceX + 0.06, s.bumperTopZ],
        [faceX + 0.06, z - 0.06],
      ],
      -(w - 0.2),
      w - 0.2,
      lid,
    ),
    box('parcel-shelf', [s.cabRearX - 0.1, -(w - 0.2), z - 0.09], [s.roofRearX + 0.1, w - 0.2, z - 0.05]),
    ...mirrored([
      box('quarter-left', [s.tailX + 0.14, w - PANEL_M, s.sillZ], [s.doorRearX - 0.005, w, s.beltZ]),
      ...leaning(
        s,
        'pillar-c-left',
        [s.cabRearX + 0.1, s.doorRearX + 0.06],
        [s.roofRearX + 0.05, Math.max(s.doorRearX, s.roofRearX) + 0.08],
      ),
    ]),
  ];
}

function bootZones(s: Stations, { w, z, faceX }: BootMeasures): Assembly['zones'] {
  return [
    ...zonePair({
      id: 'quarter-left',
      name: 'Rear quarter left',
      face: 'left',
      mount: 'panel',
      centre: [s.rearAxleX - 0.62, w + 0.002, s.beltZ - 0.12],
      n: [0, 1, 0],
      widthM: 0.34,
      heightM: 0.12,
      behind: 'Single-wall quarter panel; boot lining inside',
      singleWall: true,
    }),
    zone({
      id: 'rear-glass',
      name: 'Rear shelf',
      face: 'rear',
      mount: 'glass',
      centre: [s.cabRearX + 0.14, 0, z + 0.03],
      n: [-1, 0, 0],
      widthM: 1.2,
      heightM: 0.1,
      behind: 'Parcel shelf inside, behind the rear glass',
    }),
    zone({
      id: 'rear-glass-top',
      name: 'Rear glass top',
      face: 'rear',
      mount: 'glass',
      centre: [s.roofRearX + 0.05, 0, s.railZ - 0.06],
      n: [-1, 0, 0],
      widthM: 1.1,
      heightM: 0.08,
      behind: 'Headliner inside, behind the rear glass',
    }),
    ...zonePair({
      id: 'boot-face-left',
      name: 'Boot face left',
      face: 'rear',
      mount: 'panel',
      partId: 'boot',
      centre: [faceX - 0.002, 0.46, s.bumperTopZ + 0.1],
      n: [-1, 0, 0],
      widthM: 0.3,
      heightM: 0.1,
      behind: 'Double-wall boot lid; plate and latch in the middle',
    }),
    zone({
      id: 'boot-underside',
      name: 'Under the boot lid',
      face: 'inside',
      mount: 'edge',
      partId: 'boot',
      centre: [s.tailX + 0.3, 0, z - 0.09],
      n: [0, 0, -1],
      widthM: 1.2,
      heightM: 0.1,
      behind: 'Inside of the boot lid: covered when closed, faces the rear when open',
    }),
  ];
}

function bootLamps(s: Stations, { w, z, faceX }: BootMeasures): Assembly['factoryLamps'] {
  return [
    ...lampPair('tail-left', 'Left tail and stop lamp', 'stop', [
      [faceX - 0.01, w - 0.38, z - 0.2],
      [s.tailX + 0.3, w, z - 0.22],
      [s.tailX + 0.26, w, z - 0.09],
      [faceX, w - 0.36, z - 0.08],
    ]),
    ...lampPair(
      'turn-rear-left',
      'Left rear turn signal',
      'turn',
      acrossRect(faceX - 0.012, w - 0.34, w - 0.12, z - 0.26, z - 0.21),
    ),
    lamp(
      'stop-centre',
      'High stop lamp',
      'stop',
      acrossRect(s.roofRearX + 0.03, -0.14, 0.14, s.railZ - 0.02, s.railZ),
    ),
  ];
}

function bootArt(s: Stations, { w, z }: BootMeasures): Assembly['art'] {
  return [
    ...onSides((b) => [
      b.stroke(
        'cut',
        [
          [s.cabRearX - 0.1, z - 0.005],
          [s.tailX + 0.12, z - 0.05],
          [s.tailX + 0.12, s.bumperTopZ],
        ],
        'boot',
      ),
      b.stroke('shine', [
        [s.tailX + 0.3, s.beltZ - 0.17],
        [s.doorRearX - 0.1, s.beltZ - 0.18],
      ]),
      b.fill('glass', [
        [s.cabRearX + 0.06, z, 0.03],
        [s.cabRearX + 0.14, z, 0.02],
        [s.roofRearX + 0.06, s.railZ - 0.03, 0.03],
        [s.roofRearX, s.railZ - 0.02, 0.03],
      ]),
    ]),
    ...onView('rear', (b) => {
      const face = both([
        [0, s.bumperTopZ],
        [w - 0.2, s.bumperTopZ, 0.05],
        [w - 0.2, z - 0.05, 0.05],
        [0, z],
      ]);
      return [
        b.fill(
          'glass',
          both([
            [0, z + 0.02],
            [w - 0.18, z + 0.03, 0.06],
            [s.railY - 0.06, s.railZ - 0.02, 0.08],
            [0, s.railZ],
          ]),
        ),
        b.fill('body', face, 'boot'),
        b.fill('opening', face, 'boot'),
      ];
    }),
    ...onView('plan', (b) => [
      b.fill(
        'glass',
        bothSides([
          [s.cabRearX, w - 0.17, 0.06],
          [s.roofRearX, s.railY - 0.05, 0.05],
        ]),
      ),
      b.fill(
        'cut',
        bothSides([
          [s.tailX + 0.05, w - 0.24, 0.1],
          [s.cabRearX - 0.1, w - 0.2, 0.06],
        ]),
        'boot',
      ),
      b.fill(
        'opening',
        bothSides([
          [s.tailX + 0.05, w - 0.24, 0.1],
          [s.cabRearX - 0.1, w - 0.2, 0.06],
        ]),
        'boot',
      ),
    ]),
  ];
}
