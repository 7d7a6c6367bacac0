import type { Build } from '../design/schema.ts';
import type { TrafficSide } from '../design/site.ts';
import { directionOf } from '../geometry/direction.ts';
import type { Solid } from '../geometry/solid.ts';
import { unit, type Vec3 } from '../geometry/vec.ts';
import { poseKey } from '../state/state.ts';
import { isOpening, sideOfPart } from '../vehicle/opening.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { posedSolids, vehicleOf } from '../vehicle/vehicle.ts';

/** Somebody's eye near the vehicle, and where it looks. */
export interface Station {
  readonly id: string;
  readonly name: string;
  /** In body axes, m. */
  readonly eye: Vec3;
  /** Unit vector. */
  readonly view: Vec3;
}

/** The outline of a body on the ground, m. */
export interface Outline {
  readonly rearX: number;
  readonly frontX: number;
  readonly rightY: number;
  readonly leftY: number;
}

const posed = new WeakMap<Vehicle, Map<string, readonly Solid[]>>();

/** What stands in light's way, every part where a pose has it; the same list for the same pose. */
export function solidsIn(vehicle: Vehicle, open: readonly string[]): readonly Solid[] {
  const known = posed.get(vehicle) ?? new Map<string, readonly Solid[]>();
  posed.set(vehicle, known);
  const key = poseKey(open);
  const before = known.get(key);
  if (before !== undefined) return before;
  const made = posedSolids(vehicle, new Set(open));
  known.set(key, made);
  return made;
}

/** What a solid counts as: the part it is of, or its own id without numbers; `partText` says it in words. */
export function solidName({ parts }: Vehicle, { id, partId }: Solid): string {
  const part = parts.find((one) => one.id === partId);
  return part === undefined ? id.replace(/-\d+$/, '').replaceAll('-', ' ') : part.name.toLowerCase();
}

export function outlineOf({ solids }: Pick<Vehicle, 'solids'>): Outline {
  const corners = solids.filter(({ partId }) => partId === null).flatMap(({ vertices }) => vertices);
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  return {
    rearX: Math.min(...xs),
    frontX: Math.max(...xs),
    rightY: Math.min(...ys),
    leftY: Math.max(...ys),
  };
}

/** A person at work stands so far from the body, eyes so high, m. */
const ASIDE_M = 1.5;
const STANDING_EYE_M = 1.6;
/** The driver's eye: so far before the back of the seat, m. */
const BEFORE_SEAT_M = 0.08;

/** The driver's eye, looking straight ahead, on the side away from the edge of the road; null in a body without a seat. */
export function driverOf({ solids }: Pick<Vehicle, 'solids'>, traffic: TrafficSide): Station | null {
  const side = traffic === 'right' ? 'left' : 'right';
  const seat = solids.find(({ id }) => id === `front-seat-${side}`);
  if (seat === undefined) return null;
  const middle = (axis: 0 | 1): number =>
    seat.vertices.reduce((sum, v) => sum + v[axis], 0) / seat.vertices.length;
  const frontX = Math.max(...seat.vertices.map(([x]) => x));
  const topZ = Math.max(...seat.vertices.map(([, , z]) => z));
  return {
    id: 'driver',
    name: 'Driver’s eye',
    eye: [frontX + BEFORE_SEAT_M, middle(1), topZ],
    view: [1, 0, 0],
  };
}

/** Reaching in at the rear: so far behind the body, and the eyes bent down to so high, m. */
const REACHING_M = 0.3;
const BENT_EYE_M = 1.4;
/** At a panel that is operated: so far off it, m. */
const AT_PANEL_M = 0.6;
/** Seated inside a box: so far from its middle, eyes so high above the floor, and what is looked at, m. */
const SEATED_ASIDE_M = 0.6;
const SEATED_EYE_M = 1.2;
const TENDED_M = 0.8;

/** Where people are at a body that has what they do there: at what opens behind, at pump panels, and inside a box. */
function atWork(vehicle: Vehicle, { rearX }: Outline): Station[] {
  const { parts, zones, solids } = vehicle;
  const opensBehind = parts.some(({ id, kind }) => isOpening(kind) && sideOfPart(vehicle, id) === 'rear');
  const pumps = zones.filter(({ id }) => id.startsWith('pump-panel-'));
  const floor = solids.find(({ id }) => id === 'box-floor');
  const isRoofed = solids.some(({ id }) => id === 'box-roof');
  return [
    ...(opensBehind
      ? [
          {
            id: 'at-the-hatch',
            name: 'Reaching in at the rear',
            eye: [rearX - REACHING_M, 0, BENT_EYE_M] as const,
            view: [1, 0, 0] as const,
          },
        ]
      : []),
    ...pumps.map(({ id, face, centre: [x, y], n }) => ({
      id,
      name: `At the ${face} pump panel`,
      eye: [x + AT_PANEL_M * n[0], y + AT_PANEL_M * n[1], STANDING_EYE_M] as const,
      view: [-n[0], -n[1], 0] as const,
    })),
    ...(floor === undefined || !isRoofed ? [] : [seatedOn(floor)]),
  ];
}

/** One who sits in a box beside what lies in its middle, a cot, and looks at it. */
function seatedOn({ vertices }: Solid): Station {
  const xs = vertices.map(([x]) => x);
  const x = (Math.min(...xs) + Math.max(...xs)) / 2;
  const topZ = Math.max(...vertices.map(([, , z]) => z));
  return {
    id: 'inside',
    name: 'Seated inside, beside a cot',
    eye: [x, SEATED_ASIDE_M, topZ + SEATED_EYE_M],
    view: unit([0, -SEATED_ASIDE_M, TENDED_M - SEATED_EYE_M]),
  };
}

/** An eye of a build's own never has the id of a usual one. */
export const ownEyeId = (id: string): string => `own:${id}`;

/** Where people usually stand and sit at a vehicle, and the eyes that the build has besides. */
export function stationsOf(build: Pick<Build, 'vehicle' | 'traffic' | 'eyes'>): Station[] {
  const { traffic } = build;
  const vehicle = vehicleOf(build.vehicle);
  const outline = outlineOf(vehicle);
  const { rearX, frontX, rightY, leftY } = outline;
  const middleX = (rearX + frontX) / 2;
  const driver = driverOf(vehicle, traffic);
  return [
    ...(driver === null ? [] : [driver]),
    {
      id: 'rear-loading',
      name: 'At the rear, facing it',
      eye: [rearX - ASIDE_M, 0, STANDING_EYE_M],
      view: [1, 0, 0],
    },
    {
      id: 'left-side',
      name: 'At the left side, facing it',
      eye: [middleX, leftY + ASIDE_M, STANDING_EYE_M],
      view: [0, -1, 0],
    },
    {
      id: 'right-side',
      name: 'At the right side, facing it',
      eye: [middleX, rightY - ASIDE_M, STANDING_EYE_M],
      view: [0, 1, 0],
    },
    {
      id: 'roadside',
      name: 'At the roadside behind, watching the traffic',
      eye: [rearX - 5, traffic === 'right' ? rightY - ASIDE_M : leftY + ASIDE_M, STANDING_EYE_M],
      view: [-1, 0, 0],
    },
    ...atWork(vehicle, outline),
    ...build.eyes.map(({ id, name, xM, yM, zM, lookDeg, upDeg }): Station => ({
      id: ownEyeId(id),
      name,
      eye: [xM, yM, zM],
      view: directionOf(lookDeg, upDeg),
    })),
  ];
}
