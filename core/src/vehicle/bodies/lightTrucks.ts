import { assemble } from '../body/assembly.ts';
import { cabin, mirrorArt, roofArt } from '../body/cabin.ts';
import { bodyType, type BodyType, type Range, type Stations } from '../body/dimension.ts';
import { bonnetedFront } from '../body/front.ts';
import { chassis, tyres, wheelHouses, wheels } from '../body/gear.ts';
import { hull } from '../body/hull.ts';
import { stationsOf } from '../body/stations.ts';
import { boxBody } from '../body/tails/box.ts';
import { cabBack, cabBackOutline } from '../body/tails/cabBack.ts';
import { flatBed } from '../body/tails/flat.ts';
import { vanBody, vanOutline } from '../body/tails/van.ts';
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

const boxTruck = (
  id: string,
  name: string,
  what: string,
  rear: Parameters<typeof boxBody>[0]['rear'],
): BodyType =>
  bodyType({
    id,
    name,
    what,
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
          rear,
        }),
        { roofZone: false, glass: false },
      );
    },
  });

export const BOX_TRUCK = boxTruck(
  'box-truck',
  'Box truck',
  'A plain box with a roller door on a light truck',
  'roller',
);

export const BOX_TRUCK_DOORS = boxTruck(
  'box-truck-doors',
  'Box truck with barn doors',
  'A plain box on a light truck, its rear doors pinned at 90°, 180° or 270°',
  'barn',
);

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
  options: [...OPTIONS, 'headache-rack', 'ladder-rack', 'tool-boxes', 'wrecker-boom'],
  workOut: (d) => {
    const s = lightStations(d, d.boxWidthM / 2, d.cabHeightM);
    return lightTruck(s, flatBed(s, d.deckHeightM), { roofZone: true, glass: true });
  },
});
