import { turnAbout } from '../../../geometry/frame.ts';
import { box, profileAcross } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { both, bothSides, onSides, onView, type XYR } from '../../picture/pen.ts';
import { acrossRect, assemble, keepOut, lamp, lampPair, mirrored, part } from '../assembly.ts';
import type { Stations } from '../dimension.ts';
import { acrossSheet, leaning, PANEL_M, PRIVACY } from '../surfaces.ts';
import { zone, zonePair } from '../zone.ts';
import { plate, rearBumper, rearSkin } from './rearBumper.ts';

/** Lower edge of the hatch. */
const footX = (s: Stations): number => s.tailX + 0.09;

export const hatchOutline = (s: Stations): XYR[] => [
  [s.tailX + 0.14, s.floorZ, 0.08],
  [s.tailX, s.floorZ + 0.14, 0.1],
  [s.tailX, s.bumperTopZ, 0.06],
  [footX(s) - 0.03, s.bumperTopZ + 0.01, 0.03],
  [footX(s) - 0.03, s.beltZ - 0.1, 0.08],
  [s.cabRearX - 0.02, s.beltZ, 0.05],
  [s.roofRearX - 0.03, s.railZ - 0.03, 0.02],
  [s.roofRearX - 0.13, s.railZ - 0.01, 0.02],
  [s.roofRearX - 0.1, s.railZ + 0.05, 0.04],
  [s.roofRearX + 0.5, s.roofZ, 0.6],
];

/** Measures that several of its functions need. */
const hatchMeasures = (s: Stations) => {
  const w = s.halfWidth;
  const x = footX(s);
  const hatch = { partId: 'hatch' };
  const hatchPanel: [number, number][] = [
    [s.cabRearX, s.beltZ],
    [x - 0.01, s.beltZ - 0.12],
    [x, s.bumperTopZ],
    [x + 0.08, s.bumperTopZ],
    [s.cabRearX + 0.08, s.beltZ],
  ];
  return { w, x, hatch, hatchPanel };
};
type HatchMeasures = ReturnType<typeof hatchMeasures>;

/** The tail of an SUV: hatch with glass and spoiler, quarters, rear lamps. */
export function hatchTail(s: Stations): Assembly {
  const m = hatchMeasures(s);
  const { x, hatch } = m;
  return assemble(
    rearSkin(s),
    {
      parts: [part('hatch', 'Hatch', 'hatch', turnAbout([s.roofRearX, 0, s.railZ], [0, 1, 0], 84))],
      solids: hatchSolids(s, m),
      zones: hatchZones(s, m),
      factoryLamps: hatchLamps(s, m),
      keepOuts: [
        keepOut(
          'Hatch latch',
          'latch',
          box('latch', [x - 0.06, -0.12, s.bumperTopZ], [x + 0.1, 0.12, s.bumperTopZ + 0.12], hatch),
        ),
      ],
      art: hatchArt(s, m),
    },
    plate(x, s.beltZ - 0.22, 'hatch'),
    rearBumper(s),
  );
}

function hatchSolids(s: Stations, { w, hatch, hatchPanel }: HatchMeasures): Assembly['solids'] {
  return [
    acrossSheet(
      'hatch-glass',
      { x: s.cabRearX, y: w - 0.16, z: s.beltZ },
      { x: s.roofRearX, y: s.railY - 0.04, z: s.railZ },
      [1, 0, 0],
      { transmission: PRIVACY, ...hatch },
    ),
    ...profileAcross('hatch-panel', hatchPanel, -(w - 0.13), w - 0.13, hatch),
    ...mirrored([
      box('pillar-c-left', [s.doorRearX - 0.2, w - 0.22, s.sillZ], [s.doorRearX + 0.13, w - 0.065, s.beltZ]),
      ...leaning(
        s,
        'pillar-c-left-upper',
        [s.doorRearX - 0.1, s.doorRearX + 0.08],
        [s.doorRearX - 0.1, s.doorRearX + 0.08],
      ),
      box('quarter-left', [s.tailX + 0.14, w - PANEL_M, s.sillZ], [s.doorRearX - 0.005, w, s.beltZ]),
      ...leaning(
        s,
        'quarter-glass-left',
        [s.cabRearX + 0.24, s.doorRearX - 0.1],
        [s.roofRearX + 0.2, s.doorRearX - 0.1],
        { transmission: PRIVACY },
      ),
      ...leaning(
        s,
        'pillar-d-left',
        [s.cabRearX + 0.02, s.cabRearX + 0.24],
        [s.roofRearX + 0.02, s.roofRearX + 0.2],
      ),
    ]),
  ];
}

function hatchZones(s: Stations, { w, x }: HatchMeasures): Assembly['zones'] {
  return [
    ...zonePair({
      id: 'quarter-left',
      name: 'Rear quarter left',
      face: 'left',
      mount: 'panel',
      centre: [s.rearAxleX - 0.42, w + 0.002, s.beltZ - 0.14],
      n: [0, 1, 0],
      widthM: 0.5,
      heightM: 0.16,
      behind: 'Single-wall quarter panel; filler pipe on the right',
      singleWall: true,
      reach: 'behind trim',
    }),
    ...zonePair({
      id: 'quarter-glass-left',
      name: 'Quarter glass left',
      face: 'left',
      mount: 'glass',
      centre: [(s.doorRearX - 0.1 + s.cabRearX + 0.24) / 2, w - 0.13, s.beltZ + 0.22],
      n: [0, 1, 0],
      widthM: Math.min(0.9, s.doorRearX - 0.1 - s.cabRearX - 0.24 - 0.06),
      heightM: 0.2,
      behind: 'Inside, behind privacy glass',
    }),
    zone({
      id: 'spoiler',
      name: 'Spoiler',
      face: 'rear',
      mount: 'panel',
      partId: 'hatch',
      centre: [s.roofRearX - 0.075, 0, s.railZ - 0.03],
      n: [-1, 0, 0],
      widthM: 1.1,
      heightM: 0.09,
      behind: 'Under the spoiler lip, on the hatch',
    }),
    zone({
      id: 'rear-glass',
      name: 'Rear glass',
      face: 'rear',
      mount: 'glass',
      partId: 'hatch',
      centre: [(s.cabRearX + s.roofRearX) / 2 + 0.12, 0, (s.beltZ + s.railZ) / 2 + 0.14],
      n: [-1, 0, 0],
      widthM: 1.1,
      heightM: 0.14,
      behind: 'Hatch frame inside, behind privacy glass',
    }),
    ...zonePair({
      id: 'hatch-panel-left',
      name: 'Hatch panel left',
      face: 'rear',
      mount: 'panel',
      partId: 'hatch',
      centre: [x - 0.012, 0.5, s.beltZ - 0.16],
      n: [-1, 0, 0],
      widthM: 0.5,
      heightM: 0.12,
      behind: 'Double-wall hatch; plate and latch in the middle',
    }),
    zone({
      id: 'hatch-lip',
      name: 'Under the hatch',
      face: 'inside',
      mount: 'edge',
      partId: 'hatch',
      centre: [x + 0.04, 0, s.bumperTopZ - 0.001],
      n: [0, 0, -1],
      widthM: 1.2,
      heightM: 0.08,
      behind: 'Lower edge of the hatch: covered when closed, faces the rear when open',
    }),
  ];
}

function hatchLamps(s: Stations, { w, x }: HatchMeasures): Assembly['factoryLamps'] {
  return [
    ...lampPair('tail-left', 'Left tail and stop lamp', 'stop', [
      [x - 0.01, w - 0.26, s.beltZ - 0.2],
      [s.tailX + 0.3, w, s.beltZ - 0.18],
      [s.tailX + 0.26, w, s.beltZ - 0.02],
      [x + 0.01, w - 0.2, s.beltZ - 0.05],
    ]),
    ...lampPair('turn-rear-left', 'Left rear turn signal', 'turn', [
      [x - 0.01, w - 0.14, s.beltZ - 0.29],
      [s.tailX + 0.26, w, s.beltZ - 0.27],
      [s.tailX + 0.28, w, s.beltZ - 0.2],
      [x - 0.01, w - 0.16, s.beltZ - 0.21],
    ]),
    lamp(
      'stop-centre',
      'High stop lamp',
      'stop',
      acrossRect(s.roofRearX - 0.12, -0.16, 0.16, s.railZ - 0.005, s.railZ + 0.015),
      'hatch',
    ),
  ];
}

function hatchArt(s: Stations, { w, x }: HatchMeasures): Assembly['art'] {
  return [
    ...onSides((b) => [
      b.fill('glass', [
        [s.cabRearX + 0.24, s.beltZ + 0.05, 0.06],
        [s.doorRearX - 0.05, s.beltZ + 0.025, 0.04],
        [s.doorRearX - 0.05, s.railZ - 0.02, 0.04],
        [s.roofRearX + 0.2, s.railZ - 0.04, 0.08],
      ]),
      b.stroke(
        'cut',
        [
          [s.cabRearX, s.beltZ - 0.02],
          [x + 0.06, s.bumperTopZ + 0.02],
        ],
        'hatch',
      ),
    ]),
    ...onView('rear', (b) => {
      const leaf = both([
        [0, s.bumperTopZ],
        [w - 0.15, s.bumperTopZ, 0.06],
        [w - 0.15, s.beltZ - 0.02, 0.05],
        [s.railY - 0.02, s.railZ, 0.08],
        [0, s.railZ],
      ]);
      return [
        b.fill('cut', leaf, 'hatch'),
        b.fill('opening', leaf, 'hatch'),
        b.fill(
          'glass',
          both([
            [0, s.beltZ + 0.02],
            [w - 0.18, s.beltZ + 0.03, 0.06],
            [s.railY - 0.06, s.railZ - 0.035, 0.06],
            [0, s.railZ - 0.02],
          ]),
          'hatch',
        ),
        b.fill(
          'shade',
          both([
            [0, s.railZ - 0.02],
            [s.railY - 0.04, s.railZ - 0.04, 0.02],
            [s.railY - 0.07, s.railZ + 0.035, 0.02],
            [0, s.railZ + 0.05],
          ]),
          'hatch',
        ),
        b.stroke(
          'shine',
          [
            [-(w - 0.28), s.beltZ - 0.02],
            [w - 0.28, s.beltZ - 0.02],
          ],
          'hatch',
        ),
      ];
    }),
    ...onView('plan', (b) => [
      b.fill(
        'glass',
        bothSides([
          [s.cabRearX - 0.01, w - 0.17, 0.05],
          [s.roofRearX - 0.01, s.railY - 0.05, 0.05],
        ]),
        'hatch',
      ),
      b.fill(
        'opening',
        bothSides([
          [x, w - 0.15, 0.05],
          [s.roofRearX - 0.01, s.railY - 0.05, 0.05],
        ]),
        'hatch',
      ),
    ]),
  ];
}
