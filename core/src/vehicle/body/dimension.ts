import { recent } from '../../words/recent.ts';
import type { Assembly, Mark } from '../types.ts';

/** What is measured on a vehicle. */
export interface DimensionText {
  readonly name: string;
  readonly measured: string;
}

/** Every dimension a body may ask for: metres, or degrees from the vertical for the rakes. One word a thing. */
export const DIMENSIONS = {
  lengthM: { name: 'Length', measured: 'front-most to rear-most point of the body' },
  widthM: { name: 'Width', measured: 'over the doors, without mirrors' },
  heightM: { name: 'Height', measured: 'ground to the top of the roof or box' },
  wheelbaseM: { name: 'Wheelbase', measured: 'front axle to rear axle' },
  frontOverhangM: { name: 'Overhang', measured: 'front axle to the front of the bumper' },
  bonnetHeightM: { name: 'Bonnet up', measured: 'ground to the foot of the windscreen' },
  bonnetLengthM: { name: 'Bonnet', measured: 'front of the bumper to the foot of the windscreen' },
  windscreenRakeDeg: { name: 'Screen', measured: 'lean of the windscreen from upright' },
  rearRakeDeg: { name: 'Rear glass', measured: 'lean of the rear glass from upright' },
  groundClearanceM: { name: 'Clearance', measured: 'ground to the sill’s underside' },
  bootLengthM: { name: 'Boot', measured: 'foot of the rear glass to the rear bumper' },
  cabLengthM: { name: 'Cab', measured: 'front of the bumper to the back of the cab' },
  cabHeightM: { name: 'Cab height', measured: 'ground to the top of the cab' },
  bedHeightM: { name: 'Bed up', measured: 'ground to the top of the bed’s side' },
  deckHeightM: { name: 'Deck up', measured: 'ground to the load floor' },
  boxWidthM: { name: 'Box width', measured: 'over the box' },
  bladeHeightM: { name: 'Blade up', measured: 'ground to the top edge of the lowered blade' },
  bladeTravelM: { name: 'Blade lift', measured: 'lift of the blade' },
} as const satisfies Record<string, DimensionText>;
export type DimensionKey = keyof typeof DIMENSIONS;
/** Dimensions by name, those that are measured. */
export type Ranges = Readonly<Partial<Record<DimensionKey, Range>>>;

/** Least, most and usual value. */
export type Range = readonly [min: number, max: number, usual: number];

/** A body type: what is measured on it, which options it takes, and how it is worked out. */
export interface BodyType {
  readonly id: string;
  readonly name: string;
  /** In a sentence, for choosing. */
  readonly what: string;
  readonly ranges: Ranges;
  readonly options: readonly string[];
  /** @param d - every dimension of `ranges` */
  readonly workOut: (d: Readonly<Record<string, number>>) => WorkedBody;
}

export interface WorkedBody extends Assembly {
  readonly stations: Stations;
}

/** The stations and heights that the pieces of a body share; x, z and half-widths y in body axes, m. */
export interface Stations {
  readonly noseX: number;
  readonly tailX: number;
  readonly frontAxleX: number;
  readonly rearAxleX: number;
  readonly cowlX: number;
  readonly roofFrontX: number;
  readonly roofRearX: number;
  /** Where the cab or cabin ends. */
  readonly cabRearX: number;
  /** Split lines: front of the front door, centre pillar, end of the last door. */
  readonly doorFrontX: number;
  readonly pillarX: number;
  readonly doorRearX: number;
  readonly floorZ: number;
  readonly sillZ: number;
  readonly bumperTopZ: number;
  readonly noseZ: number;
  readonly beltZ: number;
  readonly railZ: number;
  /** Top of the cab or cabin. */
  readonly roofZ: number;
  /** Top of all. */
  readonly topZ: number;
  readonly halfWidth: number;
  /** Half-width of the widest part, as a box wider than its cab. */
  readonly outerY: number;
  /** Half-width at the roof rail, less by the lean of the side glass. */
  readonly railY: number;
  readonly wheelRadius: number;
}

/**
 * Declares a body: its dimensions by name, with the way it is worked out typed by them.
 */
export function bodyType<K extends DimensionKey>(
  spec: Omit<BodyType, 'ranges' | 'workOut'> & {
    readonly ranges: Readonly<Record<K, Range>>;
    readonly workOut: (d: Readonly<Record<K, number>>) => WorkedBody;
  },
): BodyType {
  const keys = keysOf(spec.ranges);
  const kept = recent(
    MOST_BODIES,
    (d: Readonly<Record<K, number>>) => keys.map((k) => d[k]).join(),
    spec.workOut,
  );
  return {
    ...spec,
    workOut: (given) => {
      const d = Object.fromEntries(keys.map((k) => [k, given[k] ?? spec.ranges[k][2]]));
      if (!hasAll(d, keys)) throw new RangeError(`body ${spec.id}: a dimension is missing`);
      return kept(d);
    },
  };
}

/** So many bodies of each type are kept: a server reads many builds, most of them again and again. */
const MOST_BODIES = 64;

/** No cab has a shorter roof, m. */
const LEAST_ROOF_M = 0.2;
/** No lamp goes on a zone smaller than this, m. */
const LEAST_ZONE_M = { width: 0.04, height: 0.03 };

/**
 * Why dimensions, each within its range, do not go together; null when they do.
 * @param d - every dimension the body type asks for
 */
export function dimensionsFault(body: BodyType, d: Readonly<Record<string, number>>): string | null {
  try {
    return faultOf(body.workOut(d));
  } catch (error) {
    if (error instanceof RangeError) return error.message;
    throw error;
  }
}

function faultOf({ stations: s, zones }: Pick<WorkedBody, 'stations' | 'zones'>): string | null {
  if (s.rearAxleX - s.wheelRadius * 0.6 <= s.tailX)
    return 'the rear wheel comes behind the tail: overhang and wheelbase take up the whole length';
  if (s.cabRearX < s.tailX) return 'the cab ends behind the tail';
  if (s.roofFrontX - s.roofRearX < LEAST_ROOF_M)
    return 'windscreen and rear meet: there is no roof left between them';
  if (s.roofFrontX < s.pillarX) return 'the windscreen leans back past the door';
  if (s.roofZ - s.beltZ < 0.25) return 'there is no room for glass between bonnet and roof';
  const small = zones.find((z) => z.widthM < LEAST_ZONE_M.width || z.heightM < LEAST_ZONE_M.height);
  return small === undefined ? null : `they leave no room for "${small.name}"`;
}

/** The dimensions that are measured, by name. */
export const measuredOf = (ranges: Ranges): DimensionKey[] =>
  keysOf(DIMENSIONS).filter((key) => key in ranges);

const keysOf = <K extends string>(record: Readonly<Record<K, unknown>>): K[] =>
  Object.keys(record).filter((k): k is K => k in record);

const hasAll = <K extends string>(
  d: Readonly<Record<string, number>>,
  keys: readonly K[],
): d is Record<K, number> => keys.every((k) => d[k] !== undefined);

/** Where each dimension is measured. */
export function marksOf(
  s: Stations,
  keys: readonly DimensionKey[],
  d: Readonly<Record<string, number>>,
): Record<string, Mark> {
  const y = s.outerY;
  const side = (x0: number, z0: number, x1: number, z1: number): Mark => ({
    view: 'left',
    from: [x0, y, z0],
    to: [x1, y, z1],
  });
  const marks: Readonly<Record<DimensionKey, Mark>> = {
    lengthM: side(s.noseX, 0.05, s.tailX, 0.05),
    widthM: { view: 'front', from: [s.noseX, -s.halfWidth, s.beltZ], to: [s.noseX, s.halfWidth, s.beltZ] },
    heightM: side(s.rearAxleX, 0, s.rearAxleX, s.topZ),
    wheelbaseM: side(s.frontAxleX, s.wheelRadius, s.rearAxleX, s.wheelRadius),
    frontOverhangM: side(s.frontAxleX, s.wheelRadius, s.noseX, s.wheelRadius),
    bonnetHeightM: side(s.cowlX, 0, s.cowlX, s.beltZ),
    bonnetLengthM: side(s.noseX, s.beltZ, s.cowlX, s.beltZ),
    windscreenRakeDeg: side(s.cowlX, s.beltZ, s.roofFrontX, s.railZ),
    rearRakeDeg: side(s.cabRearX, s.beltZ, s.roofRearX, s.railZ),
    groundClearanceM: side(s.pillarX, 0, s.pillarX, s.floorZ),
    bootLengthM: side(s.cabRearX, s.beltZ, s.tailX, s.beltZ),
    cabLengthM: side(s.noseX, s.beltZ, s.cabRearX, s.beltZ),
    cabHeightM: side(s.pillarX, 0, s.pillarX, s.roofZ),
    bedHeightM: side(s.tailX, 0, s.tailX, s.beltZ),
    deckHeightM: side(s.tailX, 0, s.tailX, s.sillZ),
    boxWidthM: { view: 'rear', from: [s.tailX, -y, s.beltZ], to: [s.tailX, y, s.beltZ] },
    bladeHeightM: side(s.noseX + 0.35, 0, s.noseX + 0.35, d.bladeHeightM ?? 0),
    bladeTravelM: side(
      s.noseX + 0.42,
      d.bladeHeightM ?? 0,
      s.noseX + 0.42,
      (d.bladeHeightM ?? 0) + (d.bladeTravelM ?? 0),
    ),
  };
  return Object.fromEntries(keys.map((k) => [k, marks[k]]));
}
