import type { XYR } from '../picture/pen.ts';
import { assemble } from '../body/assembly.ts';
import { cabin, mirrorArt, roofArt } from '../body/cabin.ts';
import { bodyType, type BodyType, type Stations } from '../body/dimension.ts';
import { bonnetedFront } from '../body/front.ts';
import { tyres, wheelHouses, wheels } from '../body/gear.ts';
import { hull } from '../body/hull.ts';
import { stationsOf, type CommonMeasures, type StationStyle } from '../body/stations.ts';
import { bootOutline, bootTail } from '../body/tails/boot.ts';
import { hatchOutline, hatchTail } from '../body/tails/hatch.ts';
import type { Assembly } from '../types.ts';

const CAR: Omit<StationStyle, 'cabHeightM' | 'cabRear' | 'rearRakeDeg'> = {
  doors: 4,
  doorRear: { axlePlusM: 0.3 },
  wheelRadius: 0.37,
  bumperTopZ: 0.68,
  sillM: 0.22,
  leanInM: 0.17,
};

export const CAR_OPTIONS = [
  'bumper-guard',
  'wide-mirrors',
  'roof-rack',
  'front-blade',
  'winch',
  'rear-desk',
] as const;

/**
 * A car of one skin. What its tail shows from behind is painted before the front's mirrors; the rest of the tail
 * over the skin.
 */
function car(
  s: Stations,
  outline: readonly XYR[],
  tail: Assembly,
): Assembly & { readonly stations: Stations } {
  const behind = tail.art.filter((shape) => shape.view === 'rear');
  const beside = tail.art.filter((shape) => shape.view !== 'rear');
  return {
    ...assemble(
      tyres(s),
      { ...tail, art: behind },
      hull(s, 'bonneted', outline, s.tailX),
      wheelHouses(s),
      bonnetedFront(s),
      { art: beside },
      cabin(s, { doors: 4 }),
      roofArt(s),
      wheels(s),
      mirrorArt(s),
    ),
    stations: s,
  };
}

const suv = (d: CommonMeasures, heightM: number, rearRakeDeg: number, style: Partial<StationStyle> = {}) => {
  const s = stationsOf(d, {
    ...CAR,
    cabHeightM: heightM,
    cabRear: { fromTailM: 0.16 },
    rearRakeDeg,
    ...style,
  });
  return car(s, hatchOutline(s), hatchTail(s));
};

export const SEDAN: BodyType = bodyType({
  id: 'sedan',
  name: 'Sedan',
  what: 'Four doors and a boot',
  ranges: {
    lengthM: [4.5, 5.3, 4.95],
    widthM: [1.75, 2, 1.88],
    heightM: [1.38, 1.6, 1.48],
    wheelbaseM: [2.6, 3.1, 2.9],
    frontOverhangM: [0.8, 1.1, 0.92],
    bonnetHeightM: [0.88, 1.08, 0.97],
    bonnetLengthM: [1.1, 1.6, 1.35],
    windscreenRakeDeg: [50, 66, 61],
    rearRakeDeg: [50, 68, 60],
    bootLengthM: [0.55, 1.05, 0.78],
    groundClearanceM: [0.12, 0.2, 0.15],
  },
  options: CAR_OPTIONS.filter((o) => o !== 'rear-desk'),
  workOut: (d) => {
    const s = stationsOf(d, {
      ...CAR,
      cabHeightM: d.heightM,
      cabRear: { fromTailM: d.bootLengthM },
      rearRakeDeg: d.rearRakeDeg,
      wheelRadius: 0.335,
      bumperTopZ: 0.6,
      sillM: 0.2,
    });
    return car(s, bootOutline(s), bootTail(s));
  },
});

export const MID_SUV: BodyType = bodyType({
  id: 'mid-suv',
  name: 'Mid SUV',
  what: 'Four doors and a hatch',
  ranges: {
    lengthM: [4.3, 5.2, 4.9],
    widthM: [1.75, 2.05, 1.96],
    heightM: [1.6, 1.95, 1.77],
    wheelbaseM: [2.5, 3.1, 2.9],
    frontOverhangM: [0.75, 1.1, 0.92],
    bonnetHeightM: [0.95, 1.2, 1.09],
    bonnetLengthM: [1.05, 1.5, 1.32],
    windscreenRakeDeg: [45, 64, 57],
    rearRakeDeg: [12, 38, 24],
    groundClearanceM: [0.16, 0.3, 0.2],
  },
  options: CAR_OPTIONS,
  workOut: (d) => suv(d, d.heightM, d.rearRakeDeg),
});

export const LARGE_SUV: BodyType = bodyType({
  id: 'large-suv',
  name: 'Large SUV',
  what: 'Long and tall, four doors and a hatch, room for a desk',
  ranges: {
    lengthM: [5, 5.8, 5.4],
    widthM: [1.95, 2.12, 2.06],
    heightM: [1.8, 2.05, 1.93],
    wheelbaseM: [2.9, 3.5, 3.1],
    frontOverhangM: [0.85, 1.15, 1.02],
    bonnetHeightM: [1.1, 1.35, 1.24],
    bonnetLengthM: [1.3, 1.75, 1.55],
    windscreenRakeDeg: [38, 60, 50],
    rearRakeDeg: [8, 26, 14],
    groundClearanceM: [0.18, 0.32, 0.23],
  },
  options: CAR_OPTIONS,
  workOut: (d) =>
    suv(d, d.heightM, d.rearRakeDeg, { wheelRadius: 0.4, bumperTopZ: 0.76, doorRear: { axlePlusM: 0.34 } }),
});
