import { fieldsOf } from '../coverage/field.ts';
import type { Build } from '../design/schema.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { Drive } from '../resolve/channels.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { drivenIn } from '../state/driven.ts';
import type { State } from '../state/state.ts';
import { highestLevel } from '../timing/span.ts';
import { meanLevel } from '../timing/timeline.ts';

/** A lamp as air, ground and eyes know it: where it is, and what it sends in a direction, cd. */
export interface Source {
  readonly centre: Vec3;
  readonly cdToward: (direction: Vec3) => number;
}

/** A module that lights in a state: where it is, what it is given to do, and how much of it leaves the vehicle. */
export interface ModuleLight {
  readonly placementId: string;
  readonly centre: Vec3;
  /** Share of the peak toward a direction, past lens, glass and body. */
  readonly shareToward: (direction: Vec3) => number;
  readonly drives: readonly Drive[];
}

/** The modules that light in a state. */
export function lightsIn(build: Build, state: State): ModuleLight[] {
  const fields = fieldsOf(lookupOf(build));
  const drives = drivenIn(build, state).filter((d) => d.spans.length > 0);
  return build.placements.flatMap((p) => {
    const mine = drives.filter((d) => d.placementId === p.id);
    if (mine.length === 0) return [];
    return fields.standing(p, state.open).flatMap(({ placed, beam, past }): ModuleLight[] => {
      const lit = mine.filter((d) => d.moduleId === placed.module.id);
      const shareToward = (direction: Vec3): number => {
        const relative = beam(direction) * p.lensTransmission;
        return relative > 0 ? relative * past(direction) : 0;
      };
      return lit.length === 0 ? [] : [{ placementId: p.id, centre: placed.centre, shareToward, drives: lit }];
    });
  });
}

/** At its highest instant, as a mean over time, or as far as it burns without a break. */
export type Instant = 'highest' | 'mean' | 'steady';

/** Modules as sources of light. @param counts - the channels that count; all when not said */
export const sourcesOf = (
  lights: readonly ModuleLight[],
  instant: Instant,
  counts: (drive: Drive) => boolean = () => true,
): (Source & Pick<ModuleLight, 'placementId'> & { readonly mostCd: number })[] =>
  lights.flatMap(({ placementId, centre, shareToward, drives }) => {
    const cd = drives.filter(counts).reduce((sum, d) => sum + d.peakCd * levelOf(d, instant), 0);
    return cd === 0
      ? []
      : [{ placementId, centre, mostCd: cd, cdToward: (direction: Vec3) => cd * shareToward(direction) }];
  });

function levelOf(drive: Drive, instant: Instant): number {
  switch (instant) {
    case 'highest':
      return highestLevel(drive.spans);
    case 'mean':
      return meanLevel(drive);
    case 'steady':
      return drive.steady ? highestLevel(drive.spans) : 0;
  }
}
