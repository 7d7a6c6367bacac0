import { box, profileAcross, prism } from '../../geometry/solid.ts';
import { turnAbout } from '../../geometry/frame.ts';
import { mirrorY, type Vec3 } from '../../geometry/vec.ts';
import type { Assembly } from '../types.ts';
import { both, bothSides, onSides, onView, rect, type XYR } from '../picture/pen.ts';
import { acrossRect, assemble, keepOut, lampPair, mirrored, part } from './assembly.ts';
import type { Stations } from './dimension.ts';
import { acrossSheet, PANEL_M, WINDSCREEN } from './surfaces.ts';
import { zone, zonePair } from './zone.ts';

/** Plan of a bumper with its corners cut off; `inward` is +1 toward the front. */
export function bumperPlan(s: Stations, endX: number, inward: 1 | -1): Vec3[] {
  const w = s.halfWidth;
  const cut = w - 0.4;
  const front: Vec3[] = [
    [endX, cut, s.floorZ],
    [endX + inward * 0.28, w - 0.03, s.floorZ],
    [endX + inward * 0.42, w - 0.03, s.floorZ],
  ];
  return [...front, ...front.toReversed().map(mirrorY)];
}

/** Where lamps go on a front wing: over the wheel, between the head lamp and the door. */
function wingPlace(s: Stations): { x: number; widthM: number } {
  const [from, to] = [s.cowlX - 0.14, s.noseX - 0.42];
  const widthM = Math.min(0.7, to - from);
  const x = Math.min(Math.max(s.frontAxleX - 0.1, from + widthM / 2), to - widthM / 2);
  return { x, widthM };
}

/** Measures that several of its functions need. */
const frontMeasures = (s: Stations) => {
  const w = s.halfWidth;
  const cut = w - 0.4;
  const grilleZ = s.noseZ - 0.12;
  const bumperZ = (s.floorZ + s.bumperTopZ) / 2 + 0.05;
  const wing = wingPlace(s);
  return { w, cut, grilleZ, bumperZ, wing };
};
type FrontMeasures = ReturnType<typeof frontMeasures>;

/** The nose of a bonneted vehicle: engine, bumper, bonnet, wings, windscreen, dashboard; its lamps and zones. */
export function bonnetedFront(s: Stations): Assembly {
  const m = frontMeasures(s);
  const { w, cut, grilleZ } = m;
  const engine: [number, number][] = [
    [s.noseX - 0.06, s.floorZ + 0.24],
    [s.noseX - 0.12, s.noseZ - 0.03],
    [s.cowlX, s.beltZ - 0.05],
    [s.cowlX, s.floorZ],
    [s.noseX - 0.35, s.floorZ],
  ];
  const behindLamps: [number, number][] = [
    [s.noseX - 0.43, s.floorZ],
    [s.noseX - 0.43, s.noseZ - 0.03],
    [s.cowlX, s.beltZ - 0.05],
    [s.cowlX, s.floorZ],
  ];
  const bonnet: [number, number][] = [
    [s.noseX - 0.13, s.noseZ - 0.02],
    [s.noseX - 0.16, s.noseZ],
    [s.cowlX, s.beltZ],
    [s.cowlX, s.beltZ - 0.04],
  ];
  return assemble(
    {
      parts: [part('bonnet', 'Bonnet', 'bonnet', turnAbout([s.cowlX, 0, s.beltZ], [0, 1, 0], -52))],
      solids: [
        ...profileAcross('nose', engine, -cut, cut),
        ...mirrored(profileAcross('nose-side-left', behindLamps, cut, w - 0.1)),
        prism('front-bumper', bumperPlan(s, s.noseX, -1), [0, 0, s.bumperTopZ - 0.02 - s.floorZ]),
        ...profileAcross('bonnet', bonnet, -(w - 0.14), w - 0.14, { partId: 'bonnet' }),
        box('dashboard', [s.cowlX - 0.36, -(w - 0.1), s.sillZ], [s.cowlX, w - 0.1, s.beltZ - 0.08]),
        ...mirrored([
          box('wing-left', [s.cowlX - 0.16, w - PANEL_M, s.bumperTopZ - 0.06], [s.noseX - 0.42, w, s.beltZ]),
        ]),
      ],
      zones: frontZones(s, m),
      factoryLamps: frontLamps(s, m),
      keepOuts: [
        keepOut(
          'Radar behind the badge',
          'radar',
          prism(
            'radar',
            [
              [s.noseX + 0.03, -0.09, grilleZ - 0.06],
              [s.noseX + 0.03, 0.09, grilleZ - 0.06],
              [s.noseX + 0.7, 0.3, grilleZ - 0.06],
              [s.noseX + 0.7, -0.3, grilleZ - 0.06],
            ],
            [0, 0, 0.13],
          ),
        ),
      ],
      art: [...sideArt(s), ...frontArt(s), ...planArt(s)],
    },
    windscreen(s),
  );
}

function frontZones(s: Stations, { w, cut, grilleZ, bumperZ, wing }: FrontMeasures): Assembly['zones'] {
  return [
    zone({
      id: 'grille',
      name: 'Grille',
      face: 'front',
      mount: 'panel',
      centre: [s.noseX - 0.08, 0, grilleZ],
      n: [1, 0, 0],
      widthM: 2 * cut - 0.02,
      heightM: 0.16,
      behind: 'Radiator grille bars: bracket, no drilling into the cooler',
      fixings: ['bracket'],
    }),
    zone({
      id: 'front-bumper',
      name: 'Front bumper',
      face: 'front',
      mount: 'panel',
      centre: [s.noseX + 0.002, 0, bumperZ],
      n: [1, 0, 0],
      widthM: 2 * cut - 0.02,
      heightM: 0.2,
      behind: 'Bumper skin, foam and beam',
    }),
    ...zonePair({
      id: 'corner-front-left',
      name: 'Front left corner',
      face: 'corner',
      mount: 'panel',
      centre: [s.noseX - 0.138, (cut + w - 0.03) / 2, bumperZ + 0.02],
      n: [w - 0.03 - cut, 0.28, 0],
      widthM: 0.36,
      heightM: 0.2,
      behind: 'Bumper skin, hollow; washer hose',
    }),
    ...zonePair({
      id: 'wing-left',
      name: 'Front wing left',
      face: 'left',
      mount: 'panel',
      centre: [wing.x, w + 0.002, s.beltZ - 0.16],
      n: [0, 1, 0],
      widthM: wing.widthM,
      heightM: 0.14,
      behind: 'Single-wall wing; wheel-house liner',
      singleWall: true,
      reach: 'behind trim',
    }),
  ];
}

function frontLamps(s: Stations, { w, cut }: FrontMeasures): Assembly['factoryLamps'] {
  return [
    ...lampPair('head-left', 'Left head lamp', 'head', [
      [s.noseX - 0.07, cut + 0.02, s.noseZ - 0.16],
      [s.noseX - 0.3, w, s.noseZ - 0.1],
      [s.noseX - 0.42, w, s.noseZ - 0.02],
      [s.noseX - 0.12, cut, s.noseZ - 0.05],
    ]),
    ...lampPair('turn-front-left', 'Left front turn signal', 'turn', [
      [s.noseX - 0.1, cut + 0.08, s.noseZ - 0.21],
      [s.noseX - 0.3, w, s.noseZ - 0.16],
      [s.noseX - 0.32, w, s.noseZ - 0.12],
      [s.noseX - 0.1, cut + 0.08, s.noseZ - 0.17],
    ]),
    ...lampPair(
      'fog-left',
      'Left front fog lamp',
      'fog',
      acrossRect(s.noseX - 0.02, cut - 0.16, cut - 0.02, s.floorZ + 0.06, s.floorZ + 0.12),
    ),
  ];
}

/** The windscreen with what sits behind it: the zone at its top and the camera in its middle. */
export function windscreen(s: Stations): Partial<Assembly> {
  const w = s.halfWidth;
  const topX = s.roofFrontX - 0.02;
  return {
    solids: [
      acrossSheet(
        'windscreen',
        { x: s.cowlX, y: w - 0.12, z: s.beltZ },
        { x: s.roofFrontX, y: s.railY - 0.03, z: s.railZ },
        [-1, 0, 0],
        { transmission: WINDSCREEN },
      ),
    ],
    zones: [
      zone({
        id: 'windscreen',
        name: 'Windscreen top',
        face: 'front',
        mount: 'glass',
        centre: [topX, 0, s.railZ - 0.09],
        n: [1, 0, 0],
        widthM: 2 * s.railY - 0.42,
        heightM: 0.1,
        behind: 'Headliner, behind the windscreen; keep the camera at the middle clear',
      }),
    ],
    keepOuts: [
      keepOut(
        'Camera behind the windscreen',
        'camera',
        box('camera', [topX - 0.1, -0.07, s.railZ - 0.19], [topX + 0.16, 0.07, s.railZ - 0.02]),
      ),
    ],
  };
}

const sideArt = (s: Stations): Assembly['art'] =>
  onSides((b) => [
    b.stroke(
      'cut',
      [
        [s.cowlX, s.beltZ],
        [s.noseX - 0.2, s.noseZ - 0.02],
      ],
      'bonnet',
    ),
    b.stroke('cut', [
      [s.frontAxleX + s.wheelRadius + 0.1, s.bumperTopZ - 0.06],
      [s.noseX - 0.05, s.bumperTopZ - 0.05],
    ]),
    b.stroke('cut', [
      [s.doorFrontX + 0.02, s.beltZ - 0.01],
      [s.doorFrontX, s.sillZ],
    ]),
  ]);

function frontArt(s: Stations): Assembly['art'] {
  const w = s.halfWidth;
  const g = w - 0.4;
  return onView('front', (b) => {
    const bonnet = both([
      [0, s.noseZ],
      [w - 0.24, s.noseZ - 0.01, 0.06],
      [w - 0.13, s.beltZ - 0.02, 0.05],
      [0, s.beltZ],
    ]);
    return [
      b.fill(
        'body',
        both([
          [0, s.floorZ],
          [w - 0.16, s.floorZ, 0.1],
          [w - 0.02, s.floorZ + 0.14, 0.08],
          [w, s.bumperTopZ, 0.1],
          [w, s.beltZ - 0.14, 0.12],
          [w - 0.03, s.beltZ, 0.1],
          [s.railY + 0.02, s.railZ - 0.03, 0.1],
          [s.railY - 0.12, s.roofZ, 0.16],
          [0, s.roofZ],
        ]),
      ),
      b.fill(
        'glass',
        both([
          [0, s.beltZ],
          [w - 0.13, s.beltZ + 0.02, 0.05],
          [s.railY - 0.02, s.railZ - 0.035, 0.06],
          [0, s.railZ - 0.02],
        ]),
      ),
      b.fill('body', bonnet, 'bonnet'),
      b.fill('opening', bonnet, 'bonnet'),
      ...[-1, 1].map((k) =>
        b.stroke(
          'shine',
          [
            [k * (g - 0.08), s.noseZ + 0.02],
            [k * (g - 0.16), s.beltZ - 0.02],
          ],
          'bonnet',
        ),
      ),
      b.fill(
        'shade',
        both([
          [0, s.noseZ - 0.21],
          [g - 0.03, s.noseZ - 0.2, 0.04],
          [g + 0.01, s.noseZ - 0.04, 0.04],
          [0, s.noseZ - 0.03],
        ]),
      ),
      ...[0.05, 0.1, 0.15].map((dz) =>
        b.stroke('cut', [
          [-(g - 0.04), s.noseZ - 0.2 + dz],
          [g - 0.04, s.noseZ - 0.2 + dz],
        ]),
      ),
      b.fill(
        'shade',
        both([
          [0, s.floorZ + 0.03],
          [g - 0.2, s.floorZ + 0.03, 0.04],
          [g - 0.14, s.floorZ + 0.13, 0.04],
          [0, s.floorZ + 0.13],
        ]),
      ),
      b.fill('trim', rect(-0.26, 0.26, s.floorZ + 0.16, s.floorZ + 0.26, 0.02)),
      b.stroke('cut', [
        [-w + 0.03, s.bumperTopZ - 0.03],
        [w - 0.03, s.bumperTopZ - 0.03],
      ]),
    ];
  });
}

/** Bonnet and windscreen from above. */
function planArt(s: Stations): Assembly['art'] {
  const w = s.halfWidth;
  const lid = bothSides([
    [s.cowlX + 0.04, w - 0.22],
    [s.noseX - 0.42, w - 0.26, 0.1],
    [s.noseX - 0.16, w - 0.43, 0.1],
    [s.noseX - 0.12, 0],
  ] satisfies XYR[]);
  return onView('plan', (b) => [
    b.fill('body', lid, 'bonnet'),
    b.fill('opening', lid, 'bonnet'),
    ...[-1, 1].map((k) =>
      b.stroke(
        'shine',
        [
          [s.cowlX + 0.02, k * (w - 0.56)],
          [s.noseX - 0.22, k * (w - 0.62)],
        ],
        'bonnet',
      ),
    ),
    b.fill(
      'glass',
      bothSides([
        [s.cowlX, w - 0.12, 0.06],
        [s.roofFrontX, s.railY - 0.02, 0.05],
      ]),
    ),
  ]);
}
