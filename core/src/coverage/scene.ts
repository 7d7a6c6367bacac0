import type { ScenePoint, SceneVehicle } from '../design/scene.ts';
import { onsOf, type ActiveFunction } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { posedSolids } from '../vehicle/vehicle.ts';
import type { Ambient } from '../words/ambient.ts';
import { timeOf } from '../timing/clock.ts';
import { rhythmOf, type Drive } from '../resolve/channels.ts';
import { clockSignal, timelinesOf } from '../timing/timeline.ts';
import { opticalPower } from '../timing/signal.ts';
import {
  highestTogether,
  leastEffective,
  worstDarkMs,
  type Drifting,
  type OverAlignments,
} from '../timing/worst.ts';
import { channelsNear, type NearChannel } from './near.ts';
import { layOut, occluderAt, type Obstacles } from './occlusion.ts';

/** A vehicle of a scene with its build. */
export interface SceneMember {
  readonly vehicle: SceneVehicle;
  readonly build: Build;
}

/** What someone sees of a scene. Intensities are as if all of it came from this vehicle's distance, cd. */
export interface SceneSeen {
  readonly light: Drifting;
  readonly clocks: number;
  /** Different rhythms among lamps that can be made out; one pattern on clocks that drift is a rhythm on each. */
  readonly rhythms: number;
  readonly powerCdsPerMin: number;
  readonly worst: {
    readonly highestCd: OverAlignments;
    readonly dark: OverAlignments;
    readonly effective: OverAlignments;
  };
}

/** Lamps below this are not made out among the others, cd. */
const MADE_OUT_CD = 50;
const HERE = 'here';

/** Where a vehicle stands in a scene, and how it is turned. */
type StandsAt = Pick<SceneVehicle, 'aheadM' | 'leftM' | 'turnedDeg'>;
const HERE_AT: StandsAt = { aheadM: 0, leftM: 0, turnedDeg: 0 };

/** A point of the scene in the axes of a vehicle that stands in it. */
export function inVehicle({ aheadM, leftM, turnedDeg }: StandsAt, [x, y, z]: Vec3): Vec3 {
  const a = (turnedDeg * Math.PI) / 180;
  const [dx, dy] = [x - aheadM, y - leftM];
  return [dx * Math.cos(a) + dy * Math.sin(a), -dx * Math.sin(a) + dy * Math.cos(a), z];
}

/** A point of a vehicle in the axes of the scene; the inverse of `inVehicle`. */
export function inScene({ aheadM, leftM, turnedDeg }: StandsAt, [x, y, z]: Vec3): Vec3 {
  const a = (turnedDeg * Math.PI) / 180;
  return [aheadM + x * Math.cos(a) - y * Math.sin(a), leftM + x * Math.sin(a) + y * Math.cos(a), z];
}

/** What another vehicle of a scene shows there: everything shut, the light around as here. */
export const stateThere = ({ vehicle, build }: SceneMember, ambient: Ambient): State => ({
  on: vehicle.on.filter((on) => isOn(build, on)),
  open: [],
  ambient,
});

/** A channel of a vehicle at a scene, its optical centre in the axes of the scene. */
export interface SceneChannel extends NearChannel {
  /** The vehicle it is on, by its id in the scene; null for the one whose scene it is. */
  readonly memberId: string | null;
}

/**
 * What each channel of several vehicles sends to an eye near them: the vehicles hide each other's lamps, all but the
 * first with everything shut.
 * @param eye - in the axes of the first vehicle, m
 */
export function sceneNear(
  build: Build,
  state: State,
  others: readonly SceneMember[],
  eye: Vec3,
): SceneChannel[] {
  const members = [
    { id: null, at: HERE_AT, build, state },
    ...others.map((other) => ({
      id: other.vehicle.id,
      at: other.vehicle,
      build: other.build,
      state: stateThere(other, state.ambient),
    })),
  ].map((member) => ({ ...member, eye: inVehicle(member.at, eye) }));
  const bodies = members.map((member) => ({
    member,
    past: occluderAt(sceneObstacles(member.build, member.state.open), member.eye),
  }));
  return members.flatMap((member) => {
    const inTheWay = bodies.filter((body) => body.member !== member);
    return channelsNear(member.build, member.state, member.eye).map((channel): SceneChannel => {
      const centre = inScene(member.at, channel.centre);
      const passes = inTheWay.reduce((share, body) => {
        if (share * channel.cd === 0) return share;
        const way = sub(inVehicle(body.member.at, centre), body.member.eye);
        return share * body.past(scale(way, 1 / length(way)), length(way));
      }, 1);
      return { ...channel, centre, cd: channel.cd * passes, memberId: member.id };
    });
  });
}

/** What hides light on a vehicle as it stands; an imported body with it, or in place of all but what moves. */
const sceneObstacles = (build: Build, open: readonly string[]): Obstacles => {
  const { vehicle } = lookupOf(build);
  const solids = posedSolids(vehicle, new Set(open)).filter(
    ({ partId }) => partId !== null || !vehicle.meshReplacesBody,
  );
  return layOut(solids, vehicle.mesh);
};

/**
 * What is seen of several vehicles from a point: near by, each lamp in its own direction, by the inverse square law.
 * Groups that are tied keep step across vehicles; all other clocks drift.
 *
 * @param thresholdCd - below this the scene counts as dark
 */
export function sceneSeen(
  build: Build,
  state: State,
  others: readonly SceneMember[],
  point: ScenePoint,
  thresholdCd: number,
): SceneSeen {
  const eye: Vec3 = [point.aheadM, point.leftM, point.heightM];
  const awayM = Math.max(1, Math.hypot(...eye));
  const vehicles = new Map(others.map((member) => [member.vehicle.id, member]));
  const seen = sceneNear(build, state, others, eye).map(({ memberId, drive, cd, distanceM }) => {
    const member = memberId === null ? undefined : vehicles.get(memberId);
    const clockId =
      member === undefined
        ? `${HERE}:${drive.clockId}`
        : clockAcross(build, member.build, member.vehicle, drive);
    return {
      drive: { ...drive, channelId: `${memberId ?? HERE}:${drive.channelId}`, clockId },
      cd: cd * (awayM / distanceM) ** 2,
    };
  });
  const steady = seen.filter(({ drive }) => drive.steady).reduce((sum, s) => sum + s.cd, 0);
  const flashing = seen.filter(({ drive, cd }) => !drive.steady && drive.spans.length > 0 && cd > 0);
  const cdOf = new Map(flashing.map(({ drive, cd }) => [drive.channelId, cd]));
  const timelines = timelinesOf(flashing.map((s) => s.drive));
  const clocks = timelines.flatMap((t) => clockSignal(t, cdOf) ?? []);
  const light = { background: steady, clocks, linked: timelines.some((t) => t.linked) };
  const madeOut = flashing.filter(({ cd }) => cd >= MADE_OUT_CD);
  return {
    light,
    clocks: clocks.length,
    rhythms: new Set(madeOut.map(({ drive }) => `${rhythmOf(drive)} ${drive.clockId}`)).size,
    powerCdsPerMin: clocks.reduce((sum, w) => sum + opticalPower(w), steady * 60),
    worst: {
      highestCd: highestTogether(light),
      dark: worstDarkMs(light, thresholdCd),
      effective: leastEffective(light),
    },
  };
}

/** The clock of a channel there; that of a group here when the two are tied. */
function clockAcross(here: Build, there: Build, vehicle: SceneVehicle, drive: Drive): string {
  const tie = vehicle.inStep.find((t) => timeOf(there.timing.groups, t.there).rootId === drive.clockId);
  return tie === undefined
    ? `${vehicle.id}:${drive.clockId}`
    : `${HERE}:${timeOf(here.timing.groups, tie.here).rootId}`;
}

/** Whether a build still has a function that a scene asks for. */
const isOn = ({ controls }: Build, on: ActiveFunction): boolean =>
  controls.functions.some((fn) => onsOf(fn).includes(on));
