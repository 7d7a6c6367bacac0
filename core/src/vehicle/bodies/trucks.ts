import { box } from '../../geometry/solid.ts';
import { onSides, onView, rect } from '../body/art/pen.ts';
import { assemble, mirrored } from '../body/assembly.ts';
import { cabin, mirrorArt, roofArt } from '../body/cabin.ts';
import { bodyType, type BodyType, type Range, type Stations } from '../body/dimension.ts';
import { flatFront } from '../body/flatFront.ts';
import { bonnetedFront } from '../body/front.ts';
import { chassis, tyres, wheelHouses, wheels } from '../body/gear.ts';
import { hull } from '../body/hull.ts';
import { stationsOf } from '../body/stations.ts';
import { boxBody } from '../body/tails/box.ts';
import { cabBack, cabBackOutline } from '../body/tails/cabBack.ts';
import { flatBed } from '../body/tails/flat.ts';
import { vanBody, vanOutline } from '../body/tails/van.ts';
import { zonePair } from '../body/zone.ts';
import type { Assembly } from '../types.ts';

const OPTIONS = ['bumper-guard', 'wide-mirrors', 'front-blade', 'deck-visor', 'tail-lift', 'mast-board'];

/** A light truck's bonneted two-door cab. */
const LIGHT_CAB = {
  widthM: [1.9, 2.1, 2.02],
  cabHeightM: [1.95, 2.35, 2.12],
  wheelbaseM: [3.2, 4.8, 4.0],
  frontOverhangM: [0.8, 1.2, 0.95],
  bonnetHeightM: [1.2, 1.5, 1.36],
  bonnetLengthM: [1.0, 1.6, 1.3],
  windscreenRakeDeg: [35, 58, 47],
  cabLengthM: [2.4, 3.4, 2.85],
  groundClearanceM: [0.22, 0.4, 0.28],
} satisfies Record<string, Range>;

type LightCab = Readonly<Record<keyof typeof LIGHT_CAB | 'lengthM', number>>;

const lightStations = (d: LightCab, outerY: number, topZ: number): Stations =>
  stationsOf(d, {
    doors: 2,
    cabHeightM: d.cabHeightM,
    cabRear: { fromNoseM: d.cabLengthM },
    rearRakeDeg: 3,
    doorRear: { cabRearPlusM: 0.16 },
    wheelRadius: 0.39,
    bumperTopZ: 0.8,
    sillM: 0.3,
    leanInM: 0.16,
    outerY,
    topZ,
  });

/** A bonneted cab before a body that stands by itself. */
function lightTruck(
  s: Stations,
  body: Assembly,
  { roofZone, glass }: { roofZone: boolean; glass: boolean },
): Assembly & { readonly stations: Stations } {
  const gear = { dual: true, outerY: s.outerY - 0.04 };
  return {
    ...assemble(
      tyres(s, gear),
      chassis(s),
      cabBack(s, { glass }),
      body,
      hull(s, 'bonneted', cabBackOutline(s), s.cabRearX),
      wheelHouses(s),
      bonnetedFront(s),
      cabin(s, { doors: 2, mirrorM: 0.28, roofZone }),
      roofArt(s),
      wheels(s, gear),
      mirrorArt(s),
    ),
    stations: s,
  };
}

export const PANEL_VAN: BodyType = bodyType({
  id: 'panel-van',
  name: 'Panel van',
  what: 'Low or high roof by its height; sliding doors, barn doors that pin at 90°, 180° or 270°',
  ranges: {
    lengthM: [4.8, 7, 5.95],
    widthM: [1.85, 2.1, 2.02],
    heightM: [1.9, 2.85, 2.55],
    wheelbaseM: [2.9, 4.4, 3.66],
    frontOverhangM: [0.85, 1.15, 1],
    bonnetHeightM: [1.1, 1.45, 1.3],
    bonnetLengthM: [0.8, 1.3, 1.02],
    windscreenRakeDeg: [28, 55, 36],
    groundClearanceM: [0.15, 0.3, 0.19],
  },
  options: ['bumper-guard', 'wide-mirrors', 'roof-rack', 'ladder-rack', 'rear-desk', 'tail-lift'],
  workOut: (d) => {
    const s = stationsOf(d, {
      doors: 2,
      cabHeightM: d.heightM,
      cabRear: { fromTailM: 0.06 },
      rearRakeDeg: 2,
      doorRear: { cabRearPlusM: d.lengthM - 0.06 - d.bonnetLengthM - 1.25 },
      wheelRadius: 0.36,
      bumperTopZ: 0.62,
      sillM: 0.28,
      leanInM: 0.12,
    });
    const van = vanBody(s);
    return {
      ...assemble(
        tyres(s),
        { ...van, art: van.art.filter((shape) => shape.view === 'rear') },
        hull(s, 'bonneted', vanOutline(s), s.tailX),
        wheelHouses(s),
        bonnetedFront(s),
        { art: van.art.filter((shape) => shape.view !== 'rear') },
        cabin(s, { doors: 2, mirrorM: 0.28 }),
        wheels(s),
        mirrorArt(s),
      ),
      stations: s,
    };
  },
});

export const BOX_AMBULANCE: BodyType = bodyType({
  id: 'box-ambulance',
  name: 'Box ambulance',
  what: 'A patient box on a light truck: side doors, compartments, barn doors pinned open when loading',
  ranges: {
    ...LIGHT_CAB,
    lengthM: [6, 7.6, 6.9],
    heightM: [2.5, 3, 2.8],
    boxWidthM: [2.2, 2.55, 2.42],
    deckHeightM: [0.7, 1, 0.82],
  },
  options: OPTIONS.filter((o) => o !== 'tail-lift'),
  workOut: (d) => {
    const y = d.boxWidthM / 2;
    const s = lightStations(d, y, d.heightM);
    const x1 = s.cabRearX - 0.05;
    const skirtZ = 0.5;
    const axle = s.rearAxleX;
    return lightTruck(
      s,
      boxBody({
        x0: s.tailX + 0.14,
        x1,
        y,
        skirtZ,
        floorZ: d.deckHeightM,
        topZ: d.heightM,
        compartments: [
          {
            id: 'front',
            name: 'Front compartment',
            x0: x1 - 0.62,
            x1: x1 - 0.1,
            z0: skirtZ + 0.16,
            z1: d.heightM - 0.5,
          },
          {
            id: 'rear',
            name: 'Rear compartment',
            x0: s.tailX + 0.26,
            x1: axle - s.wheelRadius - 0.16,
            z0: skirtZ + 0.16,
            z1: skirtZ + 1.2,
          },
        ],
        sideDoor: { x0: x1 - 1.5, x1: x1 - 0.74, z0: skirtZ + 0.12, z1: d.heightM - 0.4 },
        rear: 'barn',
      }),
      { roofZone: false, glass: false },
    );
  },
});

export const BOX_TRUCK: BodyType = bodyType({
  id: 'box-truck',
  name: 'Box truck',
  what: 'A plain box with a roller door on a light truck',
  ranges: {
    ...LIGHT_CAB,
    lengthM: [6, 8.6, 7.2],
    heightM: [2.6, 3.6, 3.1],
    boxWidthM: [2.1, 2.5, 2.35],
    deckHeightM: [0.8, 1.1, 0.95],
  },
  options: OPTIONS,
  workOut: (d) => {
    const y = d.boxWidthM / 2;
    const s = lightStations(d, y, d.heightM);
    return lightTruck(
      s,
      boxBody({
        x0: s.tailX + 0.1,
        x1: s.cabRearX - 0.08,
        y,
        skirtZ: d.deckHeightM - 0.2,
        floorZ: d.deckHeightM,
        topZ: d.heightM,
        compartments: [],
        sideDoor: null,
        rear: 'roller',
      }),
      { roofZone: false, glass: false },
    );
  },
});

export const FLAT_BED: BodyType = bodyType({
  id: 'flat-bed',
  name: 'Cab-chassis with flat bed',
  what: 'Two doors, a flat deck with a headboard',
  ranges: {
    ...LIGHT_CAB,
    lengthM: [5.6, 8.2, 6.7],
    boxWidthM: [2, 2.5, 2.3],
    deckHeightM: [0.85, 1.2, 1.02],
  },
  options: [...OPTIONS, 'headache-rack', 'ladder-rack', 'tool-boxes'],
  workOut: (d) => {
    const s = lightStations(d, d.boxWidthM / 2, d.cabHeightM);
    return lightTruck(s, flatBed(s, d.deckHeightM), { roofZone: true, glass: true });
  },
});

/** A heavy upright cab with its bumper standing out before it. */
const FLAT_CAB = {
  widthM: [2.3, 2.55, 2.48],
  heightM: [2.7, 3.4, 3.05],
  cabHeightM: [2.6, 3.1, 2.82],
  wheelbaseM: [4, 5.6, 4.75],
  frontOverhangM: [1.6, 2.6, 2.1],
  bonnetHeightM: [1.45, 1.75, 1.6],
  bonnetLengthM: [0.35, 0.9, 0.55],
  windscreenRakeDeg: [0, 14, 5],
  cabLengthM: [3.2, 4.4, 3.75],
  groundClearanceM: [0.28, 0.5, 0.36],
} satisfies Record<string, Range>;

type FlatCab = Readonly<Record<keyof typeof FLAT_CAB | 'lengthM', number>>;

const flatStations = (d: FlatCab): Stations =>
  stationsOf(d, {
    doors: 4,
    cabHeightM: d.cabHeightM,
    cabRear: { fromNoseM: d.cabLengthM },
    rearRakeDeg: 0,
    doorRear: { cabRearPlusM: 0.14 },
    wheelRadius: 0.52,
    bumperTopZ: 0.92,
    sillM: 0.3,
    leanInM: 0.05,
    topZ: d.heightM,
  });

function heavyTruck(s: Stations, body: Assembly): Assembly & { readonly stations: Stations } {
  const gear = { dual: true };
  return {
    ...assemble(
      tyres(s, gear),
      chassis(s),
      cabBack(s, { glass: false }),
      body,
      hull(s, 'flat', cabBackOutline(s), s.cabRearX),
      wheelHouses(s),
      flatFront(s),
      cabin(s, { doors: 4, mirrorM: 0.3 }),
      roofArt(s),
      wheels(s, gear),
      mirrorArt(s),
    ),
    stations: s,
  };
}

/** The crosswise pump house with its panel in each flank. */
function pumpPanel(s: Stations, x0: number, x1: number, topZ: number): Assembly {
  const y = s.halfWidth;
  const z0 = s.floorZ + 0.14;
  return assemble({
    solids: [box('pump-house', [x0, -y + 0.02, z0], [x1, y - 0.02, topZ])],
    zones: zonePair({
      id: 'pump-panel-left',
      name: 'Over the pump panel left',
      face: 'left',
      mount: 'panel',
      centre: [(x0 + x1) / 2, y - 0.018, topZ - 0.12],
      n: [0, 1, 0],
      widthM: x1 - x0 - 0.06,
      heightM: 0.2,
      behind: 'Head of the pump panel: the crew works right below',
    }),
    art: [
      ...onSides((b) => [
        b.fill('trim', rect(x0, x1, z0, topZ, 0.03)),
        ...[0, 1, 2].flatMap((row) =>
          [0.25, 0.5, 0.75].map((k) => {
            const cx = x0 + (x1 - x0) * k;
            const cz = topZ - 0.42 - row * 0.24;
            return b.fill('shade', rect(cx - 0.06, cx + 0.06, cz - 0.06, cz + 0.06, 0.06));
          }),
        ),
        ...[0.3, 0.7].map((k) => {
          const cx = x0 + (x1 - x0) * k;
          return b.fill('rim', rect(cx - 0.09, cx + 0.09, z0 + 0.14, z0 + 0.32, 0.09));
        }),
      ]),
      ...onView('plan', (b) => [b.fill('shade', rect(x0, x1, -y + 0.02, y - 0.02, 0.03))]),
    ],
  });
}

export const PUMPER: BodyType = bodyType({
  id: 'pumper',
  name: 'Pumper',
  what: 'Upright crew cab, pump panel, compartments behind shutters, hose bed',
  ranges: { ...FLAT_CAB, lengthM: [8, 10, 8.9] },
  options: ['wide-mirrors', 'deck-visor', 'mast-board', 'ladder-rack'],
  workOut: (d) => {
    const s = flatStations(d);
    const pumpX1 = s.cabRearX - 0.06;
    const pumpX0 = pumpX1 - 1.05;
    const x1 = pumpX0 - 0.02;
    const skirtZ = s.floorZ + 0.14;
    const topZ = d.heightM - 0.3;
    const axle = s.rearAxleX;
    const doorZ1 = topZ - 0.34;
    return heavyTruck(
      s,
      assemble(
        boxBody({
          x0: s.tailX + 0.3,
          x1,
          y: s.halfWidth,
          skirtZ,
          floorZ: 1.1,
          topZ,
          compartments: [
            {
              id: 'front',
              name: 'Front compartment',
              x0: axle + 0.66,
              x1: x1 - 0.1,
              z0: skirtZ + 0.16,
              z1: doorZ1,
            },
            {
              id: 'wheel',
              name: 'Wheel compartment',
              x0: axle - 0.58,
              x1: axle + 0.58,
              z0: 1.22,
              z1: doorZ1,
            },
            {
              id: 'rear',
              name: 'Rear compartment',
              x0: s.tailX + 0.42,
              x1: axle - 0.66,
              z0: skirtZ + 0.16,
              z1: doorZ1,
            },
          ].filter((c) => c.x1 - c.x0 > 0.25),
          sideDoor: null,
          rear: 'roller',
          open: true,
        }),
        pumpPanel(s, pumpX0, pumpX1, topZ),
        {
          solids: mirrored([
            box(
              'hose-bed-left',
              [s.tailX + 0.36, s.halfWidth - 0.45, topZ - 0.3],
              [x1 - 0.05, s.halfWidth - 0.06, topZ],
            ),
          ]),
        },
      ),
    );
  },
});

export const RESCUE: BodyType = bodyType({
  id: 'walk-in-rescue',
  name: 'Walk-in rescue',
  what: 'Upright crew cab and a tall walk-in body with compartments all round',
  ranges: { ...FLAT_CAB, lengthM: [8, 11, 9.4], heightM: [2.9, 3.6, 3.3], wheelbaseM: [4.4, 6.2, 5.3] },
  options: ['wide-mirrors', 'deck-visor', 'mast-board'],
  workOut: (d) => {
    const s = flatStations(d);
    const x1 = s.cabRearX - 0.06;
    const skirtZ = s.floorZ + 0.14;
    const axle = s.rearAxleX;
    const z1 = 2.25;
    const room = x1 - 0.1 - (axle + 0.66);
    return heavyTruck(
      s,
      boxBody({
        x0: s.tailX + 0.3,
        x1,
        y: s.halfWidth,
        skirtZ,
        floorZ: 1.05,
        topZ: d.heightM,
        compartments: [
          {
            id: 'front',
            name: 'Front compartment',
            x0: axle + 0.74 + room / 2,
            x1: x1 - 0.1,
            z0: skirtZ + 0.16,
            z1,
          },
          {
            id: 'middle',
            name: 'Middle compartment',
            x0: axle + 0.66,
            x1: axle + 0.66 + room / 2,
            z0: skirtZ + 0.16,
            z1,
          },
          { id: 'wheel', name: 'Wheel compartment', x0: axle - 0.58, x1: axle + 0.58, z0: 1.22, z1 },
          {
            id: 'rear',
            name: 'Rear compartment',
            x0: s.tailX + 0.42,
            x1: axle - 0.66,
            z0: skirtZ + 0.16,
            z1,
          },
        ].filter((c) => c.x1 - c.x0 > 0.25),
        sideDoor: null,
        rear: 'step door',
      }),
    );
  },
});
