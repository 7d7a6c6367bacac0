import { turnAbout } from '../../geometry/frame.ts';
import { box, profileAcross, type Solid } from '../../geometry/solid.ts';
import type { Assembly, MovingPart } from '../types.ts';
import { bothSides, onSides, onView, rect, type XYR } from '../picture/pen.ts';
import { assemble, keepOutPair, mirrored, partPair, part } from './assembly.ts';
import type { Stations } from './dimension.ts';
import { DOOR_GLASS, leaning, PANEL_M, PRIVACY } from './surfaces.ts';
import { zone, zonePair } from './zone.ts';

export interface CabinStyle {
  readonly doors: 2 | 4;
  /** Width of the mirrors, m. */
  readonly mirrorM?: number;
  /** Room on the roof for a bar; false where a box stands right behind a low cab. */
  readonly roofZone?: boolean;
}

const OPEN_DEG = 66;

/** Measures that several of its functions need. */
const cabinMeasures = (s: Stations, doors: CabinStyle['doors'], mirrorM: number) => {
  const w = s.halfWidth;
  // Front and rear edge of the roof slope down to the rail, as far as there is roof.
  const roofEdge = Math.min(0.35, 0.45 * (s.roofFrontX - s.roofRearX));
  const headFrontX = Math.min(s.roofFrontX - 0.08, s.doorFrontX - 0.06);
  const four = doors === 4;
  return { w, roofEdge, headFrontX, four, mirrorM };
};
type CabinMeasures = ReturnType<typeof cabinMeasures>;

/** Doors with their glass and mirrors, pillars, seats and roof. */
export function cabin(s: Stations, { doors, mirrorM = 0.22, roofZone = true }: CabinStyle): Assembly {
  const m = cabinMeasures(s, doors, mirrorM);
  const { w, headFrontX, four } = m;
  const hinge = (id: string, name: string, x: number): MovingPart[] =>
    partPair(part(id, name, 'door', turnAbout([x, w, 0], [0, 0, 1], -OPEN_DEG)));
  return assemble({
    parts: [
      ...hinge('door-front-left', four ? 'Front left door' : 'Left door', s.doorFrontX),
      ...(four ? hinge('door-rear-left', 'Rear left door', s.pillarX) : []),
    ],
    solids: cabinSolids(s, m),
    zones: cabinZones(s, roofZone, m),
    keepOuts: keepOutPair(
      'Left curtain airbag',
      'airbag',
      box('airbag-left', [s.doorRearX, s.railY - 0.14, s.railZ - 0.1], [headFrontX, s.railY - 0.02, s.railZ]),
    ),
    art: [...sideArt(s, four, headFrontX), ...endArt(s, mirrorM), ...planArt(s, four, headFrontX, mirrorM)],
  });
}

/** Doors, mirror, pillars and seat of the left side. */
function leftSolids(s: Stations, { w, headFrontX, four, mirrorM }: CabinMeasures): Solid[] {
  const front = { partId: 'door-front-left' };
  const rear = { partId: 'door-rear-left' };
  const panel = (id: string, x0: number, x1: number, traits: { partId: string }): Solid =>
    box(id, [x0, w - PANEL_M, s.sillZ], [x1, w, s.beltZ], traits);
  return [
    panel('door-front-left-panel', s.pillarX, s.doorFrontX, front),
    ...leaning(
      s,
      'door-front-left-glass',
      [s.pillarX + 0.06, s.doorFrontX - 0.06],
      [s.pillarX + 0.06, headFrontX],
      { ...front, transmission: DOOR_GLASS },
    ),
    box(
      'mirror-left',
      [s.doorFrontX - 0.14, w + 0.02, s.beltZ - 0.03],
      [s.doorFrontX, w + 0.02 + mirrorM, s.beltZ + 0.15],
      front,
    ),
    ...leaning(s, 'pillar-a-left', [s.doorFrontX - 0.06, s.cowlX - 0.02], [headFrontX, s.roofFrontX]),
    box('front-seat-left', [s.pillarX - 0.16, 0.16, s.sillZ], [s.pillarX - 0.02, 0.66, s.beltZ + 0.2]),
    ...(four
      ? [
          panel('door-rear-left-panel', s.doorRearX, s.pillarX - 0.01, rear),
          ...leaning(
            s,
            'door-rear-left-glass',
            [s.doorRearX + 0.08, s.pillarX - 0.06],
            [Math.max(s.doorRearX, s.roofRearX) + 0.08, s.pillarX - 0.06],
            { ...rear, transmission: PRIVACY },
          ),
          box('pillar-b-left', [s.pillarX - 0.1, w - 0.2, s.sillZ], [s.pillarX + 0.12, w - 0.065, s.beltZ]),
          ...leaning(
            s,
            'pillar-b-left-upper',
            [s.pillarX - 0.06, s.pillarX + 0.06],
            [s.pillarX - 0.06, s.pillarX + 0.06],
          ),
        ]
      : []),
  ];
}

function cabinSolids(s: Stations, m: CabinMeasures): Assembly['solids'] {
  const { w, roofEdge, four } = m;
  return [
    ...mirrored(leftSolids(s, m)),
    ...(four
      ? [
          box(
            'rear-seat',
            [s.doorRearX - 0.02, -(w - 0.3), s.sillZ],
            [s.doorRearX + 0.1, w - 0.3, s.beltZ + 0.12],
          ),
        ]
      : []),
    ...profileAcross(
      'roof',
      [
        [s.roofFrontX, s.railZ],
        [s.roofFrontX - roofEdge, s.roofZ],
        [s.roofRearX + roofEdge, s.roofZ],
        [s.roofRearX, s.railZ],
      ],
      -s.railY,
      s.railY,
    ),
    box('floor', [Math.max(s.tailX + 0.15, s.cabRearX), -(w - 0.05), s.floorZ], [s.cowlX, w - 0.05, s.sillZ]),
  ];
}

function cabinZones(s: Stations, roofZone: boolean, { w, four, mirrorM }: CabinMeasures): Assembly['zones'] {
  return [
    ...zonePair({
      id: 'mirror-left',
      name: 'Mirror left',
      face: 'corner',
      mount: 'mirror',
      partId: 'door-front-left',
      centre: [s.doorFrontX + 0.03, w + 0.02 + mirrorM / 2, s.beltZ + 0.02],
      n: [1, 0.8, 0],
      widthM: 0.2,
      heightM: 0.1,
      behind: 'Mirror base casting',
    }),
    ...zonePair({
      id: 'sill-left',
      name: 'Sill left',
      face: 'left',
      mount: 'panel',
      centre: [(s.doorFrontX + s.doorRearX) / 2, w + 0.002, s.sillZ - 0.07],
      n: [0, 1, 0],
      widthM: s.doorFrontX - s.doorRearX - (four ? 0.45 : 0.1),
      heightM: 0.1,
      behind: 'Sill box section: corrosion protection at every hole',
    }),
    ...(roofZone
      ? [
          ...zonePair({
            id: 'roof-side-left',
            name: 'Roof side left',
            face: 'left',
            mount: 'panel',
            centre: [(s.roofFrontX + s.roofRearX) / 2 - (four ? 0.05 : 0), s.railY + 0.004, s.railZ + 0.05],
            n: [0, 1, 0],
            widthM: Math.min(1.2, s.roofFrontX - s.roofRearX - 0.3),
            heightM: 0.1,
            behind: 'Roof rail; curtain airbag below: bracket to the rail only',
            fixings: ['bracket'],
          }),
          zone({
            id: 'roof',
            name: 'Roof',
            face: 'top',
            mount: 'roof',
            centre: [
              four ? s.pillarX + 0.02 : (s.roofFrontX - 0.35 + s.roofRearX + 0.35) / 2,
              0,
              s.roofZ + 0.002,
            ],
            n: [0, 0, 1],
            widthM: 2 * s.railY - 0.32,
            heightM: Math.min(0.5, Math.max(0.3, s.roofFrontX - s.roofRearX - 0.7)),
            behind: 'Roof skin; strap or rail mount, one cable gland',
          }),
        ]
      : []),
    ...zonePair(doorEdge(s, 'front', s.pillarX)),
    ...(four ? zonePair(doorEdge(s, 'rear', s.doorRearX)) : []),
  ];
}

/** The inner face of a door near its free edge: covered by the pillar when shut, faces the rear when open. */
const doorEdge = (s: Stations, which: 'front' | 'rear', edgeX: number) => ({
  id: `door-edge-${which}-left`,
  name: `${which === 'front' ? 'Front' : 'Rear'} left door edge`,
  face: 'inside' as const,
  mount: 'edge' as const,
  partId: `door-${which}-left`,
  centre: [edgeX + 0.06, s.halfWidth - 0.062, s.beltZ - 0.3] as const,
  n: [0, -1, 0] as const,
  widthM: 0.1,
  heightM: 0.3,
  behind: 'Door shell; window channel above',
});

function sideArt(s: Stations, four: boolean, headFrontX: number): Assembly['art'] {
  const arch = s.wheelRadius + 0.065;
  const frontDoor: XYR[] = [
    [s.pillarX, s.sillZ, 0.03],
    [s.doorFrontX, s.sillZ, 0.05],
    [s.doorFrontX + 0.02, s.beltZ, 0.04],
    [headFrontX + 0.05, s.railZ, 0.06],
    [s.pillarX, s.railZ, 0.04],
  ];
  // A rear door over the wheel follows its arch.
  const overWheel = s.doorRearX < s.rearAxleX + arch;
  const rearDoor: XYR[] = [
    ...(overWheel
      ? ([
          [s.rearAxleX + arch * 0.9, s.sillZ, 0.03],
          [s.pillarX, s.sillZ, 0.03],
        ] satisfies XYR[])
      : ([
          [s.doorRearX, s.sillZ, 0.03],
          [s.pillarX, s.sillZ, 0.03],
        ] satisfies XYR[])),
    [s.pillarX, s.railZ, 0.04],
    [Math.max(s.doorRearX, s.roofRearX + 0.05), s.railZ, 0.06],
    [s.doorRearX, s.beltZ, 0.04],
    ...(overWheel ? ([[s.doorRearX, s.wheelRadius + arch * 0.8, 0.2]] satisfies XYR[]) : []),
  ];
  const handle = (x: number): XYR[] => rect(x, x + 0.17, s.beltZ - 0.12, s.beltZ - 0.09, 0.015);
  return onSides((b) => [
    b.stroke('shine', [
      [s.doorRearX - 0.1, s.beltZ - 0.18],
      [s.doorFrontX, s.beltZ - 0.17],
    ]),
    b.fill(
      'glass',
      [
        [s.pillarX + 0.05, s.beltZ + 0.02, 0.03],
        [s.doorFrontX - 0.02, s.beltZ + 0.02, 0.03],
        [headFrontX + 0.03, s.railZ - 0.03, 0.06],
        [s.pillarX + 0.05, s.railZ - 0.02, 0.04],
      ],
      'door-front-left',
    ),
    b.fill('cut', frontDoor, 'door-front-left'),
    b.fill('opening', frontDoor, 'door-front-left'),
    b.fill('trim', handle(s.pillarX + 0.06), 'door-front-left'),
    ...(four
      ? [
          b.fill(
            'glass',
            [
              [s.doorRearX + 0.05, s.beltZ + 0.025, 0.04],
              [s.pillarX - 0.05, s.beltZ + 0.02, 0.03],
              [s.pillarX - 0.05, s.railZ - 0.02, 0.04],
              [Math.max(s.doorRearX, s.roofRearX) + 0.06, s.railZ - 0.025, 0.06],
            ],
            'door-rear-left',
          ),
          b.fill('cut', rearDoor, 'door-rear-left'),
          b.fill('opening', rearDoor, 'door-rear-left'),
          b.fill('trim', handle(s.doorRearX + 0.06), 'door-rear-left'),
        ]
      : []),
    b.fill('shade', rect(s.doorRearX + 0.02, s.doorFrontX - 0.02, s.floorZ + 0.02, s.sillZ - 0.015, 0.02)),
  ]);
}

/** The mirror as it stands beside the glass, painted last of the side. */
export const mirrorArt = (s: Stations): Partial<Assembly> => ({
  art: onSides((b) => [
    b.fill(
      'shade',
      rect(s.doorFrontX - 0.16, s.doorFrontX + 0.01, s.beltZ, s.beltZ + 0.15, 0.05),
      'door-front-left',
    ),
  ]),
});

function endArt(s: Stations, mirrorM: number): Assembly['art'] {
  const w = s.halfWidth;
  const mirrors = (k: 1 | -1): XYR[] => [
    [k * (w - 0.01), s.beltZ, 0.02],
    [k * (w + mirrorM - 0.02), s.beltZ - 0.02, 0.04],
    [k * (w + mirrorM + 0.02), s.beltZ + 0.15, 0.05],
    [k * (w + 0.04), s.beltZ + 0.14, 0.04],
  ];
  return (['front', 'rear'] as const).flatMap((view) =>
    onView(view, (b) =>
      ([1, -1] as const).map((k) =>
        b.fill(
          'shade',
          mirrors(k),
          (k === 1) === (view === 'front') ? 'door-front-left' : 'door-front-right',
        ),
      ),
    ),
  );
}

function planArt(s: Stations, four: boolean, headFrontX: number, mirrorM: number): Assembly['art'] {
  const w = s.halfWidth;
  const rearX = Math.max(s.doorRearX - (four ? 0.05 : 0.1), s.cabRearX + 0.03);
  return onView('plan', (b) =>
    ([1, -1] as const).flatMap((k) => [
      b.fill(
        'shade',
        [
          [s.doorFrontX + 0.01, k * (w - 0.01)],
          [s.doorFrontX + 0.01, k * (w + mirrorM), 0.05],
          [s.doorFrontX - 0.13, k * (w + mirrorM + 0.02), 0.04],
          [s.doorFrontX - 0.11, k * (w + 0.02)],
        ],
        k === 1 ? 'door-front-left' : 'door-front-right',
      ),
      b.fill('glass', [
        [s.doorFrontX - 0.02, k * (w - 0.035), 0.03],
        [rearX, k * (w - 0.035), 0.03],
        [Math.max(rearX, s.roofRearX + 0.05), k * (s.railY + 0.02), 0.02],
        [headFrontX, k * (s.railY + 0.02), 0.02],
      ]),
      ...(four
        ? [
            b.fill('body', [
              [s.pillarX - 0.05, k * (w - 0.03)],
              [s.pillarX + 0.05, k * (w - 0.03)],
              [s.pillarX + 0.05, k * s.railY],
              [s.pillarX - 0.05, k * s.railY],
            ]),
          ]
        : []),
      b.stroke('shine', [
        [s.roofFrontX - 0.2, k * (s.railY - 0.08)],
        [s.roofRearX + 0.2, k * (s.railY - 0.08)],
      ]),
    ]),
  );
}

/** The roof's edge from above. */
export const roofArt = (s: Stations): Partial<Assembly> => ({
  art: onView('plan', (b) => [
    b.fill(
      'cut',
      bothSides([
        [s.roofFrontX, s.railY - 0.02, 0.05],
        [s.roofFrontX - 0.1, s.railY, 0.05],
        [s.roofRearX + 0.1, s.railY, 0.05],
        [s.roofRearX, s.railY - 0.05, 0.05],
      ]),
    ),
  ]),
});
