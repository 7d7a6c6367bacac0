import type { Build } from '@flarik/core/design/schema';

/** Placements in words: one by its label, more by number. */
export function nameOf(build: Build, ids: readonly string[]): string {
  const [only] = ids;
  if (ids.length === 1 && only !== undefined)
    return build.placements.find((p) => p.id === only)?.label ?? 'lamp';
  return `${ids.length} lamps`;
}
