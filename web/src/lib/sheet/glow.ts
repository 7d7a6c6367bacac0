import type { Build } from '@flarik/core/design/schema';
import type { Colour } from '@flarik/core/words/colour';
import type { Drive } from '@flarik/core/resolve/channels';
import { levelAt } from '@flarik/core/timing/timeline';

/** What a module looks like just now. */
export interface Glow {
  readonly colour: Colour;
  /** 0 dark to 1 full. */
  readonly level: number;
  /** Driven in this stage at all. */
  readonly driven: boolean;
  /** What its board says; empty where it shows no text. */
  readonly text: string;
}

export const glowKey = (placementId: string, moduleId: string): string => `${placementId}/${moduleId}`;

/**
 * What every module shows: at a moment of pattern time, or, with `timeMs` null, all that the stage drives.
 * A module with several colours lit shows the strongest.
 */
export function glows(build: Build, drives: readonly Drive[], timeMs: number | null): Map<string, Glow> {
  const shown = new Map<string, Glow>();
  for (const p of build.placements) {
    for (const m of p.modules) {
      const [colour] = m.colours;
      if (colour !== undefined)
        shown.set(glowKey(p.id, m.id), { colour, level: 0, driven: false, text: p.text });
    }
  }
  for (const d of drives) {
    const key = glowKey(d.placementId, d.moduleId);
    const level = timeMs === null ? 1 : levelAt(d, timeMs);
    const known = shown.get(key);
    if (known?.driven !== true || level > known.level)
      shown.set(key, { colour: d.colour, level, driven: true, text: d.text });
  }
  return shown;
}
