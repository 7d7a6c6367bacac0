import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import type { Drive } from '../resolve/channels.ts';
import { drivenIn } from '../state/driven.ts';
import { fieldsOf } from './lampFields.ts';

/** A channel as an eye close by sees it. */
export interface NearChannel {
  readonly drive: Drive;
  /** Optical centre in body axes, m. */
  readonly centre: Vec3;
  /** Intensity toward the eye at span level 1, past lens, glass and body, cd. */
  readonly cd: number;
  /** From the optical centre to the eye, m. */
  readonly distanceM: number;
}

/**
 * What each channel of a state sends to an eye near the vehicle, each in its own direction.
 * @param eye - in body axes, m
 */
export function channelsNear(build: Build, state: State, eye: Vec3): NearChannel[] {
  const fields = fieldsOf(build);
  const drives = drivenIn(build, state);
  return build.placements.flatMap((p) => {
    const mine = drives.filter((d) => d.placementId === p.id);
    if (mine.length === 0) return [];
    return fields.standing(p, state.open).flatMap(({ placed, beam, past }): NearChannel[] => {
      const lit = mine.filter((d) => d.moduleId === placed.module.id);
      if (lit.length === 0) return [];
      const toEye = sub(eye, placed.centre);
      const distanceM = length(toEye);
      if (distanceM === 0) return [];
      const direction = scale(toEye, 1 / distanceM);
      const relative = beam(direction) * p.lensTransmission;
      const share = relative > 0 ? relative * past(direction, distanceM) : 0;
      return lit.map((drive) => ({
        drive,
        centre: placed.centre,
        cd: drive.peakCd * share,
        distanceM,
      }));
    });
  });
}

/** Illuminance at an eye by Allard's law, lx: E = I · 0.05^(d/V) / d². */
export const illuminanceLx = (cd: number, distanceM: number, opticalRangeM: number): number =>
  (cd * 0.05 ** (distanceM / opticalRangeM)) / distanceM ** 2;
