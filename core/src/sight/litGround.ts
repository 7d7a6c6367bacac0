import type { Drive } from '../resolve/channels.ts';
import type { Span } from '../timing/span.ts';
import type { Colour } from '../words/colour.ts';
import { runToCompletion } from '../words/inSteps.ts';
import { groundGrid, type GroundGrid, type GroundOptions } from './ground.ts';
import { sourceOf, type LineSource, type ModuleLight } from './source.ts';
import type { Outline } from './stations.ts';

/** What channels that show the same at the same time throw on the ground together. */
export interface GroundShare {
  readonly colour: Colour;
  readonly cycleMs: number;
  readonly spans: readonly Span[];
  /** At span level 1. */
  readonly grid: GroundGrid;
}

/**
 * The light of a state on the ground as it changes in time: a grid for each lot of channels that flash alike. At a moment
 * the ground has the sum of the grids, each times the level of its spans. Between two grids it can be given up.
 */
export function* litGround(
  lights: readonly ModuleLight[],
  outline: Outline,
  options: GroundOptions,
): Generator<number, GroundShare[]> {
  const lots = new Map<string, { readonly drive: Drive; readonly sources: Lamp[] }>();
  for (const { drives, ...sight } of lights)
    for (const drive of drives) {
      const key = [drive.colour, drive.cycleMs, JSON.stringify(drive.spans)].join('|');
      const lot = lots.get(key) ?? { drive, sources: [] };
      lots.set(key, lot);
      lot.sources.push({ mostCd: drive.peakCd, ...sourceOf(sight, drive.peakCd) });
    }
  const shares: GroundShare[] = [];
  for (const { drive, sources } of lots.values()) {
    const grid = runToCompletion(groundGrid(sources, outline, options));
    shares.push({ colour: drive.colour, cycleMs: drive.cycleMs, spans: drive.spans, grid });
    yield shares.length / lots.size;
  }
  return shares;
}

type Lamp = LineSource & { readonly mostCd: number };
