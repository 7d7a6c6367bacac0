import { box } from '../../geometry/solid.ts';
import { onSides, onView, rect } from '../picture/pen.ts';
import { assemble, mirrored } from '../body/assembly.ts';
import { cabin, mirrorArt, roofArt } from '../body/cabin.ts';
import { bodyType, type BodyType, type Range, type Stations } from '../body/dimension.ts';
import { flatFront } from '../body/flatFront.ts';
import { chassis, tyres, wheelHouses, wheels } from '../body/gear.ts';
import { hull } from '../body/hull.ts';
import { stationsOf } from '../body/stations.ts';
import { boxBody } from '../body/tails/box.ts';
import { cabBack, cabBackOutline } from '../body/tails/cabBack.ts';
import { zonePair } from '../body/zone.ts';
import type { Assembly } from '../types.ts';

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
