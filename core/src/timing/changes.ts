import { loopMs } from './calm.ts';
import type { ScheduledPattern } from './timeline.ts';

/**
 * The next time at which any channel's light changes, or the one before; over the end of the loop it begins again.
 * @param step - 1 forward, −1 back
 */
export function changeFrom(drives: readonly ScheduledPattern[], timeMs: number, step: 1 | -1): number {
  const loop = loopMs(drives);
  const after = (edge: number): number => (((step * (edge - timeMs)) % loop) + loop) % loop || loop;
  const edges = new Set<number>();
  for (const d of drives) {
    if (d.steady) continue;
    for (let start = 0; start < loop; start += d.cycleMs)
      for (const s of d.spans) edges.add((start + s.fromMs) % loop).add((start + s.toMs) % loop);
  }
  const near = [...edges].reduce<number | null>(
    (best, edge) => (best === null || after(edge) < after(best) ? edge : best),
    null,
  );
  return near ?? timeMs;
}
