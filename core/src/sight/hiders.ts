import type { Direction } from '../coverage/seen.ts';
import type { Build } from '../design/schema.ts';
import { directionOf } from '../geometry/direction.ts';
import { entryM } from '../geometry/ray.ts';
import { add, scale, type Vec3 } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { fieldsOf } from '../coverage/lampFields.ts';
import { drivenIn } from '../state/driven.ts';
import type { State } from '../state/state.ts';
import { highestCd } from '../resolve/channels.ts';
import type { Solid } from '../geometry/solid.ts';
import { hasHousing, housingOf } from '../coverage/housings.ts';
import { solidName, solidsIn } from './stations.ts';
import { partText } from '../vehicle/partText.ts';

/** A lamp that would light a direction if nothing stood in its way. */
export interface HiddenLamp {
  readonly placementId: string;
  /** What would arrive at the highest instant, and what does, cd. */
  readonly aimedCd: number;
  readonly arrivesCd: number;
  /** What stands in the way first, in words. */
  readonly by: string;
  /** The ray: from the lamp to where it is met, body axes, m. */
  readonly from: Vec3;
  readonly to: Vec3;
}

/** Lamps that lose less than this are not named, cd. */
const NAMED_CD = 50;

/** Who would light a direction and does not, or not whole, and what hides it; the most light lost first. */
export function hiddenToward(build: Build, state: State, direction: Direction): HiddenLamp[] {
  const lookup = lookupOf(build);
  const fields = fieldsOf(build);
  const toward = directionOf(direction.bearingDeg, direction.elevationDeg);
  const standing = [
    ...solidsIn(lookup.vehicle, state.open)
      .filter(({ transmission }) => transmission < 1)
      .map((solid) => ({ solid, lampId: null, name: partText(solidName(lookup.vehicle, solid)) })),
    ...build.placements.filter(hasHousing).map((p) => ({
      solid: housingOf(lookup, p, state.open),
      lampId: p.id,
      name: `the housing of "${p.label}"`,
    })),
  ];
  const drives = drivenIn(build, state);
  return build.placements
    .flatMap((p): HiddenLamp[] => {
      const mine = drives.filter((d) => d.placementId === p.id);
      if (mine.length === 0) return [];
      let aimedCd = 0;
      let arrivesCd = 0;
      let worst: { readonly lost: number; readonly from: Vec3 } | null = null;
      for (const { placed, beam, past } of fields.standing(p, state.open)) {
        const peak = mine
          .filter((d) => d.moduleId === placed.module.id)
          .reduce((sum, d) => sum + highestCd(d), 0);
        const aimed = peak * beam(toward) * p.lensTransmission;
        if (aimed === 0) continue;
        const arrives = aimed * past(toward);
        aimedCd += aimed;
        arrivesCd += arrives;
        if (worst === null || aimed - arrives > worst.lost)
          worst = { lost: aimed - arrives, from: placed.centre };
      }
      if (worst === null || aimedCd - arrivesCd < NAMED_CD) return [];
      const met = firstMet(
        standing.filter(({ lampId }) => lampId !== p.id),
        worst.from,
        toward,
      );
      return [
        {
          placementId: p.id,
          aimedCd,
          arrivesCd,
          by: met?.name ?? 'the imported body',
          from: worst.from,
          to: add(worst.from, scale(toward, met?.atM ?? 1)),
        },
      ];
    })
    .toSorted((a, b) => b.aimedCd - b.arrivesCd - (a.aimedCd - a.arrivesCd));
}

function firstMet(
  standing: readonly { readonly solid: Solid; readonly name: string }[],
  from: Vec3,
  toward: Vec3,
): { readonly name: string; readonly atM: number } | null {
  let nearest: { readonly name: string; readonly atM: number } | null = null;
  for (const { solid, name } of standing) {
    const atM = entryM(solid, from, toward);
    if (atM < (nearest?.atM ?? Infinity)) nearest = { name, atM };
  }
  return nearest;
}
