import type { PlacedBeam } from '../coverage/field.ts';
import { fieldsOf } from '../coverage/lampFields.ts';
import { PastLines, type PastOn } from '../coverage/pastOnLine.ts';
import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { Drive } from '../resolve/channels.ts';
import { drivenIn } from '../state/driven.ts';
import type { State } from '../state/state.ts';
import { highestLevel } from '../timing/span.ts';
import { meanLevel } from '../timing/timeline.ts';

/** A lamp as air, ground and eyes know it: where it is, and what it sends in a direction, cd. */
export interface Source {
  readonly centre: Vec3;
  /** As far as a point so many metres off: what lies beyond it hides nothing. */
  readonly cdToward: (direction: Vec3, farM: number) => number;
}

/** A lamp whose light is asked for along straight lines, many points of each. */
export interface LineSource extends Source {
  /** What it sends to each point of a line: what hides it there is worked out for all of them at once. */
  readonly cdOn: (from: Vec3, along: Vec3, onward?: boolean) => PastOn;
}

/** A module where it stands in a pose. */
export interface ModuleSight {
  readonly placementId: string;
  readonly moduleId: string;
  readonly centre: Vec3;
  /** Share of the peak toward a direction, past lens, glass and body as far as a point so many metres off; the same function for the same place and pose. */
  readonly shareToward: (direction: Vec3, farM: number) => number;
  /** The same for the points of a straight line. */
  readonly shareOn: (from: Vec3, along: Vec3, onward?: boolean) => PastOn;
}

/** A module that lights in a state, and what it is given to do. */
export interface ModuleLight extends ModuleSight {
  readonly drives: readonly Drive[];
}

const sights = new WeakMap<readonly PlacedBeam[], readonly ModuleSight[]>();

/** The modules of a placement in a pose: worked out once for all states of a build. */
export function sightsOf(build: Build, p: Placement, open: readonly string[]): readonly ModuleSight[] {
  const standing = fieldsOf(build).standing(p, open);
  const before = sights.get(standing);
  if (before !== undefined) return before;
  const made = standing.map(({ placed, beam, past, obstacles }): ModuleSight => {
    let lines: PastLines | null = null;
    return {
      placementId: p.id,
      moduleId: placed.module.id,
      centre: placed.centre,
      shareToward: (direction, farM) => {
        const relative = beam(direction) * p.lensTransmission;
        return relative > 0 ? relative * past(direction, farM) : 0;
      },
      shareOn: (from, along, onward) => {
        lines ??= new PastLines(obstacles, placed.centre);
        const pastOn = lines.on(from, along, onward);
        return (k, direction, farM) => {
          const relative = beam(direction) * p.lensTransmission;
          return relative > 0 ? relative * pastOn(k, direction, farM) : 0;
        };
      },
    };
  });
  sights.set(standing, made);
  return made;
}

/** The modules that light in a state. @param openFor - what stands open for a lamp, where other poses tell the same of it */
export function lightsIn(
  build: Build,
  state: State,
  openFor: (p: Placement) => readonly string[] = () => state.open,
): ModuleLight[] {
  const drives = drivenIn(build, state).filter((d) => d.spans.length > 0);
  return build.placements.flatMap((p) => {
    const mine = drives.filter((d) => d.placementId === p.id);
    if (mine.length === 0) return [];
    return sightsOf(build, p, openFor(p)).flatMap((sight): ModuleLight[] => {
      const lit = mine.filter((d) => d.moduleId === sight.moduleId);
      return lit.length === 0 ? [] : [{ ...sight, drives: lit }];
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
): (LineSource & Pick<ModuleLight, 'placementId'> & { readonly mostCd: number })[] =>
  lights.flatMap(({ drives, ...sight }) => {
    const cd = drives.filter(counts).reduce((sum, d) => sum + d.peakCd * levelOf(d, instant), 0);
    return cd === 0 ? [] : [{ placementId: sight.placementId, mostCd: cd, ...sourceOf(sight, cd) }];
  });

/** A module as a source of so much at its peak, cd. */
export const sourceOf = (
  { centre, shareToward, shareOn }: Omit<ModuleSight, 'placementId' | 'moduleId'>,
  cd: number,
): LineSource => ({
  centre,
  cdToward: (direction, farM) => cd * shareToward(direction, farM),
  cdOn: (from, along, onward) => {
    const share = shareOn(from, along, onward);
    return (k, direction, farM) => cd * share(k, direction, farM);
  },
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
