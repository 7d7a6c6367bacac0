import { add, dot, length, scale, sub, type Vec3 } from '../../geometry/vec.ts';
import { placeModules } from '../../resolve/place.ts';
import type { FactoryFunction } from '../../words/factoryFunction.ts';
import type { IssueDraft } from '../judgement.ts';
import { pointing, mmDown, type LayoutSubject } from './subject.ts';

/** A flashing lamp nearer than this to a turn signal can be taken for it or drown it, m. */
const LEAST_APART_M = 0.1;

/** Distance of a point from a line segment, m. */
function fromSegmentM(p: Vec3, a: Vec3, b: Vec3): number {
  const along = sub(b, a);
  const share = Math.min(1, Math.max(0, dot(sub(p, a), along) / Math.max(dot(along, along), 1e-12)));
  return length(sub(p, add(a, scale(along, share))));
}

/** Warning lamps too near a factory turn signal. */
export const nearSignalFaults = (subject: LayoutSubject): IssueDraft[] =>
  lampsNear(subject, ['turn'], LEAST_APART_M);

/**
 * Warning lamps whose lens stands nearer than wanted to the lens of a factory lamp.
 * @param does - what those factory lamps are for
 */
export function lampsNear(
  subject: LayoutSubject,
  does: readonly FactoryFunction[],
  leastApartM: number,
): IssueDraft[] {
  const signals = subject.lookup.vehicle.factoryLamps.filter((l) => does.includes(l.does));
  return subject.lamps.flatMap((p): IssueDraft[] => {
    const { lookup } = subject;
    const { kind } = lookup.fixture(p.fixtureId);
    if (kind === 'cabin' || kind === 'scene' || kind === 'work' || kind === 'factory') return [];
    const lenses = placeModules(lookup, p, new Set());
    const nearest = signals
      .map(({ name, outline }) => ({
        name,
        m: Math.min(
          ...lenses.flatMap(({ centre, module }) =>
            outline.map(
              (a, i) =>
                fromSegmentM(centre, a, outline[(i + 1) % outline.length] ?? a) - module.lensM.width / 2,
            ),
          ),
        ),
      }))
      .reduce((a, b) => (b.m < a.m ? b : a), { name: '', m: Infinity });
    if (nearest.m >= leastApartM) return [];
    const apart = Math.max(0, nearest.m);
    return [
      {
        sentence: `${p.label}: ${mmDown(apart)} mm from the ${nearest.name.toLowerCase()} (minimum ${mmDown(leastApartM)} mm).`,
        figure: { value: apart * 1000, unit: 'mm' },
        limits: [{ value: leastApartM * 1000, unit: 'mm', sense: 'at least' }],
        ...pointing([p]),
      },
    ];
  });
}
