import type { Point2 } from '@flarik/core/geometry/polygon';
import { colourLetter } from '@flarik/core/words/colour';
import type { Glow } from './glow';
import type { LampPicture } from './pictures';

/** A colour's letter beside the lens that shows it. */
export interface Letter {
  readonly moduleId: string;
  /** The middle of its foot, m. */
  readonly at: Point2;
  readonly text: string;
  readonly driven: boolean;
}

/** Letters are so wide, and lines so far apart, as shares of their size. */
const WIDTH = 0.64;
const LINE = 0.95;
/** Foot to middle of a capital, as a share of its size. */
const MIDDLE = 0.35;
/** From the housing, m. */
const GAP_M = 0.035;
/** No row stands to a side of the middle by less, m. */
const SAME_M = 1e-3;

/**
 * The letters of a lamp: above one that is wide; beside one that is tall, each row on its own side. One that would stand in
 * another is left out.
 *
 * @param sizeM - of the letters
 */
export function lettersOf(
  { lenses, at, half }: Pick<LampPicture, 'lenses' | 'at' | 'half'>,
  glowOf: (moduleId: string) => Glow | undefined,
  sizeM: number,
): Letter[] {
  const tall = half[1] > half[0] && lenses.length > 1;
  const beside = half[0] + GAP_M + (WIDTH / 2) * sizeM;
  const placed: Letter[] = [];
  for (const lens of lenses) {
    const glow = glowOf(lens.moduleId);
    if (glow === undefined) continue;
    const foot: Point2 = tall
      ? [at[0] + (lens.at[0] - at[0] > SAME_M ? beside : -beside), lens.at[1] - MIDDLE * sizeM]
      : [lens.at[0], at[1] + half[1] + GAP_M];
    const free = placed.every(
      (other) =>
        Math.abs(other.at[0] - foot[0]) >= WIDTH * sizeM || Math.abs(other.at[1] - foot[1]) >= LINE * sizeM,
    );
    if (free)
      placed.push({
        moduleId: lens.moduleId,
        at: foot,
        text: colourLetter[glow.colour],
        driven: glow.driven,
      });
  }
  return placed;
}
