import '../withoutEval';
import { directionMap, type DirectionMap, type MapQuantity } from '@flarik/core/coverage/map';
import { stateThere, type SceneMember } from '@flarik/core/coverage/scene';
import type { Direction } from '@flarik/core/coverage/seen';
import type { RingOptions } from '@flarik/core/coverage/ring';
import type { Approach } from '@flarik/core/design/approach';
import type { Build } from '@flarik/core/design/schema';
import type { WorkPlace } from '@flarik/core/design/site';
import { mapGaps, type MapGap } from '@flarik/core/rules/mapGaps';
import { redundantLamps, type Redundant } from '@flarik/core/rules/redundant';
import { Approaches, type ApproachCurve, type ApproachResult, type Gain } from '@flarik/core/sight/approach';
import { bouncesAt, type Bounce } from '@flarik/core/sight/bounce';
import {
  eyeLightByFunction,
  eyesInLane,
  glareAt,
  type FunctionLight,
  type Glare,
  type Lane,
} from '@flarik/core/sight/glare';
import { groundGrid, type GroundGrid } from '@flarik/core/sight/ground';
import { hiddenToward, type HiddenLamp } from '@flarik/core/sight/hiders';
import { litGround, type GroundShare } from '@flarik/core/sight/litGround';
import { dimCosts, type DimCost } from '@flarik/core/sight/dimCosts';
import { outlookOf, type Outlook } from '@flarik/core/sight/outlook';
import { reflectionsAt, type Reflection } from '@flarik/core/sight/reflections';
import { atJunction, type Junction, type JunctionResult } from '@flarik/core/sight/junction';
import { reflectiveFromM } from '@flarik/core/sight/reflective';
import { lightsIn, sourcesOf } from '@flarik/core/sight/source';
import { driverOf, outlineOf, solidsIn, stationsOf, type Station } from '@flarik/core/sight/stations';
import { modesOf, variantOf, type Variant } from '@flarik/core/sight/variant';
import { veilOf, type VeilResult } from '@flarik/core/sight/veil';
import { estimateGain, type WouldGain } from '@flarik/core/rules/estimateGain';
import { Surfaces } from '@flarik/core/sight/surfaces';
import {
  lampsLighting,
  interreflectedLx,
  workPlaceLx,
  type LampLight,
  type WorkPlane,
} from '@flarik/core/sight/workPlace';
import type { State } from '@flarik/core/state/state';
import { vehicleOf } from '@flarik/core/vehicle/vehicle';
import { AMBIENTS, type Ambient } from '@flarik/core/words/ambient';
import { runToCompletion } from '@flarik/core/words/inSteps';
import * as Comlink from 'comlink';
import { HeldDesign } from './heldDesign';
import { supervision, type Supervised } from './supervision';

/** How far a long answer has come, 0 to 1. */
export type Progress = (share: number) => void;

export interface MapAnswer extends DirectionMap {
  /** Where packs look from and ask for more. */
  readonly gaps: readonly MapGap[];
}

export interface ApproachTable {
  /** The least time to spare first, by the normal eye. */
  readonly rows: readonly ApproachResult[];
}

export interface ApproachDetail {
  readonly curve: ApproachCurve;
  readonly gains: readonly Gain[];
  /** What functions that dim light, or take it away, cost. */
  readonly dims: readonly DimCost[];
  /** From how far reflective areas alone are seen, all lamps off, m; null by day, and where none are put down. */
  readonly reflectiveM: number | null;
}

export interface GroundAnswer {
  readonly grid: GroundGrid;
  /** What each work place of the build gets, point by point, and what is thrown back to it by one bounce, lx. */
  readonly places: readonly {
    readonly place: WorkPlace;
    readonly lx: readonly number[];
    readonly thrownBackLx: number;
  }[];
}

export interface LaneGlare {
  readonly lane: Lane;
  readonly points: readonly { readonly distanceM: number; readonly glare: Glare }[];
}

/** Dots from side to side of the driver’s view: more than its picture is wide, so that its edges are smooth. */
const OUTLOOK_COLUMNS = 1080;

export interface EyesAnswer {
  readonly stations: readonly { readonly station: Station; readonly glare: Glare }[];
  readonly lanes: readonly LaneGlare[];
  /** What reaches the driver's eye straight from the lamps or through glass. */
  readonly direct: readonly FunctionLight[];
  /** For the driver's eye in that air; null in a body without a driver's seat. */
  readonly veil: VeilResult | null;
  /** What stands before that eye. */
  readonly outlook: Outlook | null;
  /** What road, body and cab throw back to that eye. */
  readonly bounces: readonly Bounce[];
  /** What that eye sees of the own lamps in panes and mirrors. */
  readonly reflections: readonly Reflection[];
}

export interface VariantsAnswer {
  readonly modes: readonly number[];
  readonly figures: readonly {
    readonly mode: number;
    readonly ambient: Ambient;
    readonly variant: Variant | null;
  }[];
}

const design = new HeldDesign();

/** From one row to the next of a little map, degrees. */
const LITTLE_STEP_DEG = 5;
/** The carpet of light in the picture: coarse, and not far. */
const LIT_GROUND = { stepM: 0.5, beyondM: 12 };
const LANES: readonly Lane[] = ['oncoming', 'following'];

const api = {
  rest: (): void => design.drop(),
  take: design.take,
  edit: design.edit,

  map(
    state: State,
    options: Omit<RingOptions, 'elevationDeg'>,
    quantity: MapQuantity,
    progress: Progress,
  ): MapAnswer {
    const map = runToCompletion(directionMap(design.present, state, options, quantity), progress);
    return {
      ...map,
      gaps: options.colour === null ? mapGaps(design.present, state, options.level, map) : [],
    };
  },

  /** Little maps of several states, coarser. */
  maps(
    states: readonly State[],
    options: Omit<RingOptions, 'elevationDeg'>,
    quantity: MapQuantity,
    progress: Progress,
  ): DirectionMap[] {
    return states.map((state, i) =>
      runToCompletion(directionMap(design.present, state, options, quantity, LITTLE_STEP_DEG), (share) =>
        progress((i + share) / states.length),
      ),
    );
  },

  hidden: (state: State, direction: Direction): HiddenLamp[] =>
    hiddenToward(design.present, state, direction),

  approaches(state: State, list: readonly Approach[], progress: Progress): ApproachTable {
    const approaches = new Approaches(design.present, state);
    const rows = list.map((approach, i) => {
      progress(i / list.length);
      return approaches.result(approach);
    });
    const spare = ({ sightings }: ApproachResult): number => sightings[0].marginS;
    return { rows: rows.toSorted((a, b) => spare(a) - spare(b)) };
  },

  approach(state: State, approach: Approach, progress: Progress): ApproachDetail {
    const build = design.present;
    const approaches = new Approaches(build, state);
    const reflects = approach.around !== 'day' && build.vehicle.reflectors.length > 0;
    return {
      curve: approaches.curve(approach),
      gains: runToCompletion(approaches.gains(approach), progress),
      dims: dimCosts(build, state, approach),
      reflectiveM: reflects ? reflectiveFromM(build, state.open, approach) : null,
    };
  },

  junction: (state: State, junction: Junction): JunctionResult => atJunction(design.present, state, junction),

  /** What one more pair or bar would gain. */
  wouldGain: (state: State, approach: Approach, progress: Progress): WouldGain[] =>
    runToCompletion(estimateGain(design.present, state, approach), progress),

  ground(state: State, stepM: number, progress: Progress): GroundAnswer {
    const build = design.present;
    const lamps = sourcesOf(lightsIn(build, state), 'steady');
    const mast = vehicleOf(build.vehicle).parts.some(({ kind }) => kind === 'mast' || kind === 'lift');
    const options = { stepM, beyondM: mast ? 30 : 15 };
    const surfaces = Surfaces.of(build, state.open);
    return {
      grid: runToCompletion(groundGrid(lamps, outlineOf(vehicleOf(build.vehicle)), options), progress),
      places: build.workPlaces.map((place) => ({
        place,
        lx: workPlaceLx(lamps, place),
        thrownBackLx: interreflectedLx(surfaces, lamps, place),
      })),
    };
  },

  /** Which lamps light a place where people work. */
  placeLamps: (state: State, place: WorkPlane): LampLight[] =>
    lampsLighting(sourcesOf(lightsIn(design.present, state), 'steady'), place),

  /** The light on the ground in time, for the picture by eye. */
  litGround(state: State, progress: Progress): GroundShare[] {
    const build = design.present;
    const outline = outlineOf(vehicleOf(build.vehicle));
    return runToCompletion(litGround(lightsIn(build, state), outline, LIT_GROUND), progress);
  },

  /** The same of other vehicles of a scene, of each in its own axes; nothing hides it but the vehicle itself. */
  litScene(members: readonly SceneMember[], ambient: Ambient, progress: Progress): GroundShare[][] {
    return members.map((member, i) => {
      const lights = lightsIn(member.build, stateThere(member, ambient));
      const outline = outlineOf(vehicleOf(member.build.vehicle));
      return runToCompletion(litGround(lights, outline, LIT_GROUND), (share) =>
        progress((i + share) / members.length),
      );
    });
  },

  /** What a build comes to in each of its modes, by day and at night; it need not be the one that is held. */
  variants(build: Build): VariantsAnswer {
    const modes = modesOf(build);
    return {
      modes,
      figures: modes.flatMap((mode) =>
        AMBIENTS.map((ambient) => ({ mode, ambient, variant: variantOf(build, mode, ambient) })),
      ),
    };
  },

  /** Lamps that no rule would miss. */
  redundant: (progress: Progress): Redundant[] => runToCompletion(redundantLamps(design.present), progress),

  eyes(state: State, opticalRangeM: number, progress: Progress): EyesAnswer {
    const build = design.present;
    const vehicle = vehicleOf(build.vehicle);
    const lights = lightsIn(build, state);
    const stations = stationsOf(build).map((station) => ({ station, glare: glareAt(lights, station) }));
    const lanes = LANES.map((lane) => ({
      lane,
      points: eyesInLane(lane, build.traffic).map((eye) => ({
        distanceM: eye.distanceM,
        glare: glareAt(lights, eye),
      })),
    }));
    progress(0.2);
    const driver = driverOf(vehicle, build.traffic);
    if (driver === null)
      return { stations, lanes, direct: [], veil: null, outlook: null, bounces: [], reflections: [] };
    const surfaces = Surfaces.of(build, state.open);
    const veil = veilOf(lights, solidsIn(vehicle, state.open), driver.eye, opticalRangeM);
    progress(0.5);
    const outlook = outlookOf(surfaces, driver.eye, OUTLOOK_COLUMNS);
    progress(0.7);
    const bounces = bouncesAt(surfaces, lights, driver.eye);
    progress(0.85);
    return {
      stations,
      lanes,
      direct: eyeLightByFunction(lights, driver),
      veil,
      outlook,
      bounces,
      reflections: reflectionsAt(build, state.open, lights, driver),
    };
  },
};

export type SightApi = typeof api;

Comlink.expose({ ...supervision, ...api } satisfies Supervised);
