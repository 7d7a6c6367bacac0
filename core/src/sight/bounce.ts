import { directionOf } from '../geometry/direction.ts';
import { dot, length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import type { Drive } from '../resolve/channels.ts';
import { HighestTogether } from '../resolve/highest.ts';
import { meanLevel } from '../timing/timeline.ts';
import type { ModuleLight } from './source.ts';
import type { Surface, Surfaces } from './surfaces.ts';

/** The eye looks so far to either side, down and up, at every so many degrees. */
const ASIDE_DEG = 75;
const DOWN_DEG = 45;
const UP_DEG = 15;
const EVERY_DEG = 5;
/** Less is not worth a name, cd/m². */
const NAMED = 0.01;

/** A surface before an eye that lamps light, where it is brightest. */
export interface Bounce {
  readonly surface: string;
  /** Share of the light on it that it throws back. */
  readonly reflectance: number;
  /** At the highest instant of all lamps together, drifting clocks each at theirs, and as a mean over time, cd/m². */
  readonly highest: number;
  readonly mean: number;
  /** Where it is seen. */
  readonly bearingDeg: number;
  readonly elevationDeg: number;
  /** Each lamp's share of the mean, the greatest first. */
  readonly byLamp: readonly { readonly placementId: string; readonly share: number }[];
}

/**
 * What lamps throw back to an eye from the road, the body and the cab by one bounce: L = ρ E / π, past the glass before it.
 * Views go out over ±75° aside, 45° down and 15° up, every 5°; of each surface the brightest one counts.
 *
 * @returns cd/m², the brightest surface first
 */
export function bouncesAt(surfaces: Surfaces, lights: readonly ModuleLight[], eye: Vec3): Bounce[] {
  const brightest = new Map<string, Bounce>();
  for (let elevationDeg = -DOWN_DEG; elevationDeg <= UP_DEG; elevationDeg += EVERY_DEG)
    for (let aside = -ASIDE_DEG; aside <= ASIDE_DEG; aside += EVERY_DEG) {
      const met = surfaces.first(eye, directionOf(aside, elevationDeg));
      if (met === null) continue;
      const seen = {
        ...luminanceOf(lights, met),
        surface: met.surface,
        reflectance: surfaces.reflectanceOf(met.surface),
        bearingDeg: (aside + 360) % 360,
        elevationDeg,
      };
      if (seen.highest > Math.max(NAMED, brightest.get(met.surface)?.highest ?? 0))
        brightest.set(met.surface, seen);
    }
  return [...brightest.values()].toSorted((a, b) => b.highest - a.highest);
}

function luminanceOf(
  lights: readonly ModuleLight[],
  { at, facing, perLux }: Surface,
): Pick<Bounce, 'highest' | 'mean' | 'byLamp'> {
  const byLamp = new Map<string, number>();
  const shown: { readonly drive: Drive; readonly perCd: number }[] = [];
  let mean = 0;
  for (const { placementId, centre, shareToward, drives } of lights) {
    const to = sub(at, centre);
    const r = length(to);
    const direction = scale(to, 1 / r);
    const cos = -dot(direction, facing);
    if (!(cos > 0)) continue;
    const perCd = (perLux * cos * shareToward(direction, r)) / r ** 2;
    if (perCd === 0) continue;
    for (const drive of drives) {
      const here = perCd * drive.peakCd * meanLevel(drive);
      shown.push({ drive, perCd });
      mean += here;
      byLamp.set(placementId, (byLamp.get(placementId) ?? 0) + here);
    }
  }
  const together = new HighestTogether(shown.map(({ drive }) => drive));
  return {
    highest: together.of((at) => (shown[at]?.perCd ?? 0) * (shown[at]?.drive.peakCd ?? 0)),
    mean,
    byLamp: [...byLamp]
      .map(([placementId, here]) => ({ placementId, share: here / mean }))
      .toSorted((a, b) => b.share - a.share),
  };
}
