import type { Placement } from '../../src/design/placement.ts';
import { SKIN_M } from '../../src/geometry/ray.ts';
import { dot, sub, type Vec3 } from '../../src/geometry/vec.ts';
import type { Lookup } from '../../src/resolve/lookup.ts';
import { placeFixture } from '../../src/resolve/place.ts';

/** Whether the housing of any lamp but one's own stands in a ray's way. */
export type BehindHousing = (ownId: string, from: Vec3, direction: Vec3) => boolean;

/** The housings of a build in a pose, asked slab by slab in each one's own axes. */
export function plainHousings(
  lookup: Lookup,
  placements: readonly Placement[],
  open: ReadonlySet<string>,
): BehindHousing {
  const boxes = placements
    .filter(({ status }) => status !== 'removed' && status !== 'planned')
    .map((p) => {
      const { fixture, base, frame } = placeFixture(lookup, p, open);
      const { width, height, depth } = fixture.sizeM;
      const along = fixture.stands === 'along';
      const slabs: readonly (readonly [axis: Vec3, low: number, high: number])[] = [
        [frame.right, -width / 2, width / 2],
        [frame.aim, along ? -height / 2 : 0, along ? height / 2 : depth],
        [frame.up, along ? 0 : -height / 2, along ? depth : height / 2],
      ];
      return { id: p.id, base, slabs };
    });
  return (ownId, from, direction) =>
    boxes.some(({ id, base, slabs }) => {
      if (id === ownId) return false;
      let enter = 0;
      let leave = Infinity;
      for (const [axis, low, high] of slabs) {
        const at = dot(sub(from, base), axis);
        const speed = dot(direction, axis);
        const ends = [low + SKIN_M, high - SKIN_M].map((end) => (end - at) / speed);
        enter = Math.max(enter, Math.min(...ends));
        leave = Math.min(leave, Math.max(...ends));
      }
      return enter < leave;
    });
}
