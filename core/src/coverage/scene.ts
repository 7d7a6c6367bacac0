import type { ScenePoint, SceneVehicle } from '../design/scene.ts';
import { onsOf, type On } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import type { Vec3 } from '../geometry/vec.ts';
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
import { channelsNear } from './near.ts';

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

/** A point of the scene in the axes of a vehicle that stands in it. */
export function inVehicle({ aheadM, leftM, turnedDeg }: SceneVehicle, [x, y, z]: Vec3): Vec3 {
  const a = (turnedDeg * Math.PI) / 180;
  const [dx, dy] = [x - aheadM, y - leftM];
  return [dx * Math.cos(a) + dy * Math.sin(a), -dx * Math.sin(a) + dy * Math.cos(a), z];
}

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
  const seen = [
    ...channelsSeen(build, state, eye, (drive) => `${HERE}:${drive.clockId}`, HERE),
    ...others.flatMap(({ vehicle, build: there }) =>
      channelsSeen(
        there,
        { on: vehicle.on.filter((on) => isOn(there, on)), open: [], ambient: state.ambient },
        inVehicle(vehicle, eye),
        (drive) => clockAcross(build, there, vehicle, drive),
        vehicle.id,
      ),
    ),
  ].map(({ drive, cd, distanceM }) => ({ drive, cd: cd * (awayM / distanceM) ** 2 }));
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

function channelsSeen(
  build: Build,
  state: State,
  eye: Vec3,
  clockOf: (drive: Drive) => string,
  memberId: string,
): { drive: Drive; cd: number; distanceM: number }[] {
  return channelsNear(build, state, eye).map(({ drive, cd, distanceM }) => ({
    drive: { ...drive, channelId: `${memberId}:${drive.channelId}`, clockId: clockOf(drive) },
    cd,
    distanceM,
  }));
}

/** The clock of a channel there; that of a group here when the two are tied. */
function clockAcross(here: Build, there: Build, vehicle: SceneVehicle, drive: Drive): string {
  const tie = vehicle.inStep.find((t) => timeOf(there.timing.groups, t.there).rootId === drive.clockId);
  return tie === undefined
    ? `${vehicle.id}:${drive.clockId}`
    : `${HERE}:${timeOf(here.timing.groups, tie.here).rootId}`;
}

/** Whether a build still has a function that a scene asks for. */
const isOn = ({ controls }: Build, on: On): boolean =>
  controls.functions.some((fn) => onsOf(fn).includes(on));
