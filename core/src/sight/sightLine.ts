import type { PastOn } from '../coverage/pastOnLine.ts';
import type { Build } from '../design/schema.ts';
import { directionOf } from '../geometry/direction.ts';
import { length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { lookupOf, type Lookup } from '../resolve/lookup.ts';
import { poseKey } from '../state/state.ts';
import { sightsOf, type ModuleSight } from './source.ts';

/** Light for each candela of a module's peak that is not worked out yet. */
const UNKNOWN = -1;

/** An eye on its straight way to the vehicle, and what every module sends there: worked out once for all states and weathers. */
export class SightLine {
  readonly #sights: readonly ModuleSight[];
  /** By module: its share along the way, once asked for. */
  readonly #shares: PastOn[] = [];
  readonly #toward: Vec3;
  readonly #eyeM: number;
  readonly #clear = new Map<number, AtEye>();

  constructor(sights: readonly ModuleSight[], bearingDeg: number, eyeM: number) {
    this.#sights = sights;
    this.#toward = directionOf(bearingDeg, 0);
    this.#eyeM = eyeM;
  }

  /**
   * By module: lx at the eye for each candela of its peak in clear air, and how far it is, m.
   * @param modules - those that are asked for; the others may be unknown
   */
  at(distanceM: number, modules: Int32Array): Pick<AtEye, 'per' | 'away'> {
    const size = this.#sights.length;
    let known = this.#clear.get(distanceM);
    if (known === undefined) {
      known = { per: new Float64Array(size).fill(UNKNOWN), away: new Float64Array(size), lastAsked: null };
      this.#clear.set(distanceM, known);
    }
    if (known.lastAsked === modules) return known;
    const [x, y] = scale(this.#toward, distanceM);
    const eye: Vec3 = [x, y, this.#eyeM];
    for (const m of modules) {
      const sight = this.#sights[m];
      if (known.per[m] !== UNKNOWN || sight === undefined) continue;
      const to = sub(eye, sight.centre);
      const r = length(to);
      const share = (this.#shares[m] ??= sight.shareOn([0, 0, this.#eyeM], this.#toward, true));
      known.away[m] = r;
      known.per[m] = share(distanceM, scale(to, 1 / r), r) / r ** 2;
    }
    known.lastAsked = modules;
    return known;
  }
}

/** The light at the eye from one distance. */
interface AtEye {
  readonly per: Float64Array;
  readonly away: Float64Array;
  /** The modules last asked for, all known; by identity. */
  lastAsked: Int32Array | null;
}

/** The modules of a build in a pose, and the ways to it that somebody asked about. */
export interface SightScene {
  readonly sights: readonly ModuleSight[];
  readonly placeOf: ReadonlyMap<string, number>;
  readonly ways: Map<string, SightLine>;
}
const surroundings = new WeakMap<Lookup, WeakMap<Build['placements'], Map<string, SightScene>>>();
export const moduleKey = ({ placementId, moduleId }: Pick<ModuleSight, 'placementId' | 'moduleId'>): string =>
  `${placementId}/${moduleId}`;
/** So many modules are kept in all poses together: about 30 MB, and every pose that doors of a full car stand in. */
const MOST_KEPT = 20_000;

/** The modules of a build in a pose; the same object for the same placements. */
export function surroundingsOf(build: Build, open: readonly string[]): SightScene {
  const lookup = lookupOf(build);
  const ofLookup = surroundings.get(lookup) ?? new WeakMap<Build['placements'], Map<string, SightScene>>();
  surroundings.set(lookup, ofLookup);
  const known = ofLookup.get(build.placements) ?? new Map<string, SightScene>();
  ofLookup.set(build.placements, known);
  const key = poseKey(open);
  const before = known.get(key);
  if (before !== undefined) return before;
  const sights = build.placements.flatMap((p) => sightsOf(build, p, open));
  const made = { sights, placeOf: new Map(sights.map((s, i) => [moduleKey(s), i])), ways: new Map() };
  known.set(key, made);
  const [oldest] = known.keys();
  if (known.size * sights.length > MOST_KEPT && oldest !== undefined && oldest !== key) known.delete(oldest);
  return made;
}
