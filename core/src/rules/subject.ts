import type { Build, Placement, StageIndex } from '../design/schema.ts';
import { openText, sameOpen, type State } from '../state/state.ts';
import type { Ambient } from '../coverage/range.ts';
import { litChannels, type Level, type LitChannel } from '../coverage/ring.ts';
import { FACE_BEARINGS, FACE_SECTORS, sectorsWhere, type Sector } from '../coverage/sectors.ts';
import { highestCd } from '../resolve/channels.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { stopsOf, vehicleOf } from '../vehicle/vehicle.ts';
import type { RuleFace, RulePack } from './pack.ts';
import type { Fault } from './finding.ts';

/** Rules look level: along the horizontal. */
const RULE_ELEVATION_DEG = 0;

/** What lights in the states of a build, shared by all packs that ask. */
const litByBuild = new WeakMap<Build, Map<string, readonly LitChannel[]>>();

/** A build under check, with what every kind of rule asks of it. */
export class Subject {
  readonly build: Build;
  readonly vehicle: Vehicle;
  readonly #only: State | null;
  readonly #upperAboveM: number;
  readonly #lit: Map<string, readonly LitChannel[]>;

  /** @param only - looks at this state alone; null looks at every state */
  constructor(build: Build, pack: Pick<RulePack, 'upperAboveM'>, only: State | null) {
    this.build = build;
    this.#only = only;
    this.vehicle = vehicleOf(build.vehicle);
    this.#upperAboveM = pack.upperAboveM;
    this.#lit = litByBuild.get(build) ?? new Map<string, readonly LitChannel[]>();
    litByBuild.set(build, this.#lit);
  }

  /** Everything shut, and each moving part open by itself; or the pose of the one state. */
  get poses(): readonly (readonly string[])[] {
    return this.#only === null ? [[], ...stopsOf(this.vehicle).map((stop) => [stop.id])] : [this.#only.open];
  }

  /** Of the poses a rule names, those to look at. */
  posesAmong(named: readonly (readonly string[])[]): readonly (readonly string[])[] {
    const only = this.#only;
    return only === null ? named : named.filter((open) => sameOpen(open, only.open));
  }

  /** Of a rule's stages, those to look at. */
  stages<S extends StageIndex>({ stages }: { readonly stages: readonly S[] }): readonly S[] {
    const only = this.#only;
    return only === null ? stages : stages.filter((stage) => stage === only.stage);
  }

  /** Of the ambients a rule names, those to look at. */
  ambientsAmong(named: readonly Ambient[]): readonly Ambient[] {
    const only = this.#only;
    return only === null ? named : named.filter((ambient) => ambient === only.ambient);
  }

  /** The ambient in which light is strongest: night only ever dims. */
  get brightest(): Ambient {
    return this.#only?.ambient ?? 'day';
  }

  /** The channels that light in a state, seen level; worked out once for each state. */
  lit(state: State, level: Level = 'any'): readonly LitChannel[] {
    const border = level === 'any' ? '' : this.#upperAboveM;
    const key = [state.stage, state.open.join('+'), state.ambient, level, border].join('|');
    const known = this.#lit.get(key);
    if (known !== undefined) return known;
    const lit = litChannels(this.build, state, {
      elevationDeg: RULE_ELEVATION_DEG,
      colour: null,
      level,
      upperAboveM: this.#upperAboveM,
    });
    this.#lit.set(key, lit);
    return lit;
  }

  stageName(stage: StageIndex): string {
    return this.build.timing.stages[stage].name;
  }

  /** "Stage 2, hatch open, at night": a state in words. */
  stateText({ stage, open, ambient }: State): string {
    const parts = [this.stageName(stage)];
    if (open.length > 0) parts.push(openText(this.vehicle, open));
    if (ambient === 'night') parts.push('at night');
    return parts.join(', ');
  }

  placement(id: string): Placement | undefined {
    return this.build.placements.find((p) => p.id === id);
  }

  /** The lamps behind some channels, in words: one by name, more by number. */
  lampsText(channels: readonly { readonly placementId: string }[]): string {
    const ids = [...new Set(channels.map((c) => c.placementId))];
    const [only] = ids;
    if (ids.length === 1 && only !== undefined) return `"${this.placement(only)?.label ?? only}"`;
    return `${ids.length} lamps`;
  }
}

/** What each kind of rule is: the faults of a build, and how many states it looked at. */
export interface KindResult {
  readonly faults: readonly Fault[];
  readonly statesChecked: number;
}

export const AMBIENTS: readonly Ambient[] = ['day', 'night'];

export const stateOf = (
  stage: StageIndex,
  open: readonly string[] = [],
  ambient: Ambient = 'day',
): State => ({
  stage,
  open,
  ambient,
});

const FACE_SETS: Readonly<Record<RuleFace, ReadonlySet<number>>> = {
  front: new Set(FACE_BEARINGS.front),
  right: new Set(FACE_BEARINGS.right),
  rear: new Set(FACE_BEARINGS.rear),
  left: new Set(FACE_BEARINGS.left),
};

/** The runs of a face's bearings for which `test` holds. */
export function faceSectorsWhere(face: RuleFace, test: (bearing: number) => boolean): Sector[] {
  const inFace = FACE_SETS[face];
  return sectorsWhere((b) => inFace.has(b) && test(b));
}

/** The brightest a channel gets toward a face, and where. */
export function brightestToward(
  { drive, share }: LitChannel,
  face: RuleFace,
): { cd: number; bearing: number } {
  let bearing = FACE_SECTORS[face].fromDeg;
  for (const b of FACE_BEARINGS[face]) if ((share[b] ?? 0) > (share[bearing] ?? 0)) bearing = b;
  return { cd: highestCd(drive) * (share[bearing] ?? 0), bearing };
}

export const faceText: Readonly<Record<RuleFace, string>> = {
  front: 'to the front',
  right: 'to the right',
  rear: 'to the rear',
  left: 'to the left',
};

/** A figure that is too high, rounded up; one too low is rounded down: the text never contradicts the verdict. */
export const roundUp = (v: number): string => String(Math.ceil(v - 1e-9));
export const roundDown = (v: number): string => String(Math.floor(v + 1e-9));
