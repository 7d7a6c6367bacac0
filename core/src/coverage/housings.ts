import type { Placement } from '../design/placement.ts';
import { prism, type Solid } from '../geometry/solid.ts';
import { sub } from '../geometry/vec.ts';
import type { Lookup } from '../resolve/lookup.ts';
import { housingCorners, placeFixture } from '../resolve/place.ts';

/** Whether a lamp is on the vehicle, so that its housing hides light; what is removed or only planned is not. */
export const hasHousing = ({ status }: Placement): boolean => status !== 'removed' && status !== 'planned';

/**
 * The housing of a lamp where it stands in a pose: an opaque box.
 * @param open - stops of its part, and of the lamp itself
 */
export function housingOf(lookup: Lookup, p: Placement, open: readonly string[]): Solid {
  const [a, b, c, d, above] = housingCorners(placeFixture(lookup, p, new Set(open)));
  if (a === undefined || b === undefined || c === undefined || d === undefined || above === undefined)
    throw new RangeError(`the housing of '${p.id}' needs eight corners`);
  return prism(p.id, [a, b, d, c], sub(above, a));
}
