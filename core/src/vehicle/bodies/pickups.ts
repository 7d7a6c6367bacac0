import { assemble } from '../body/assembly.ts';
import { cabin, mirrorArt, roofArt } from '../body/cabin.ts';
import { bodyType, type BodyType, type Range, type Stations } from '../body/dimension.ts';
import { bonnetedFront } from '../body/front.ts';
import { chassis, tyres, wheelHouses, wheels } from '../body/gear.ts';
import { hull } from '../body/hull.ts';
import { stationsOf } from '../body/stations.ts';
import { bed, canopy } from '../body/tails/bed.ts';
import { cabBack, cabBackOutline } from '../body/tails/cabBack.ts';
import { serviceBody } from '../body/tails/service.ts';
import type { Assembly } from '../types.ts';

const RANGES = {
  lengthM: [5.2, 6.7, 5.9],
  widthM: [1.85, 2.1, 2.02],
  cabHeightM: [1.75, 2.1, 1.93],
  wheelbaseM: [3, 4.4, 3.68],
  frontOverhangM: [0.85, 1.15, 0.98],
  bonnetHeightM: [1.1, 1.4, 1.27],
  bonnetLengthM: [1.3, 1.8, 1.55],
  windscreenRakeDeg: [40, 60, 52],
  cabLengthM: [3.3, 4.3, 3.85],
  groundClearanceM: [0.2, 0.4, 0.27],
} satisfies Record<string, Range>;

type Measures = Readonly<Record<keyof typeof RANGES, number>>;

const OPTIONS = [
  'bumper-guard',
  'wide-mirrors',
  'roof-rack',
  'front-blade',
  'winch',
  'headache-rack',
  'ladder-rack',
  'mast-board',
];

const stations = (d: Measures, more: { topZ?: number; outerY?: number } = {}): Stations =>
  stationsOf(d, {
    doors: 4,
    cabHeightM: d.cabHeightM,
    cabRear: { fromNoseM: d.cabLengthM },
    rearRakeDeg: 9,
    doorRear: { cabRearPlusM: 0.14 },
    wheelRadius: 0.4,
    bumperTopZ: 0.78,
    sillM: 0.24,
    leanInM: 0.17,
    ...more,
  });

function pickup(s: Stations, back: Assembly): Assembly & { readonly stations: Stations } {
  return {
    ...assemble(
      tyres(s),
      chassis(s),
      cabBack(s),
      back,
      hull(s, 'bonneted', cabBackOutline(s), s.cabRearX),
      wheelHouses(s),
      bonnetedFront(s),
      cabin(s, { doors: 4 }),
      roofArt(s),
      wheels(s),
      mirrorArt(s),
    ),
    stations: s,
  };
}

export const PICKUP: BodyType = bodyType({
  id: 'pickup',
  name: 'Crew-cab pickup',
  what: 'Four doors and an open bed',
  ranges: { ...RANGES, bedHeightM: [1.1, 1.5, 1.3] },
  options: OPTIONS,
  workOut: (d) => {
    const s = stations(d);
    return pickup(s, bed(s, d.bedHeightM));
  },
});

export const PICKUP_CANOPY: BodyType = bodyType({
  id: 'pickup-canopy',
  name: 'Pickup with canopy',
  what: 'Four doors, a glazed canopy over the bed',
  ranges: { ...RANGES, bedHeightM: [1.1, 1.5, 1.3], heightM: [1.75, 2.3, 1.97] },
  options: OPTIONS.filter((o) => o !== 'headache-rack'),
  workOut: (d) => {
    const s = stations(d, { topZ: d.heightM });
    return pickup(s, assemble(bed(s, d.bedHeightM), canopy(s, d.bedHeightM, d.heightM)));
  },
});

export const PICKUP_SERVICE: BodyType = bodyType({
  id: 'pickup-service',
  name: 'Pickup with service body',
  what: 'Four doors, tool boxes with shutters along both sides',
  ranges: { ...RANGES, bedHeightM: [1.2, 1.8, 1.52], boxWidthM: [1.9, 2.35, 2.14] },
  options: OPTIONS,
  workOut: (d) => {
    const s = stations(d, { outerY: d.boxWidthM / 2, topZ: d.cabHeightM });
    return pickup(s, serviceBody(s, d.bedHeightM));
  },
});
