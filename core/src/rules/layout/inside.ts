import { dot, type Vec3 } from '../../geometry/vec.ts';
import type { Solid } from '../../geometry/solid.ts';
import { placeModules } from '../../resolve/place.ts';
import { atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { mmUp, pointing, type LayoutSubject } from './subject.ts';

/** A lens may lie this deep in a panel as it is drawn: seams, seals and the picture's own thickness, m. */
const SUNK_M = 0.01;

/** How deep a point lies within a convex solid, m; 0 or less outside. */
const depthIn = (solid: Solid, at: Vec3): number =>
  Math.min(...solid.planes.map(({ n, d }) => d - dot(n, at)));

/** Lamps with a lens inside the body: they shine on sheet metal. A lamp that a shut door covers is meant to be there. */
export const insideFaults = (subject: LayoutSubject): IssueDraft[] =>
  subject.standing().flatMap(({ p, placed: { zone } }): IssueDraft[] => {
    if (zone.face === 'inside') return [];
    const opaque = subject.lookup.vehicle.solids.filter((s) => s.transmission === 0);
    const depth = Math.max(
      ...placeModules(subject.lookup, p, new Set()).map(({ centre }) =>
        Math.max(0, ...opaque.map((solid) => depthIn(solid, centre))),
      ),
    );
    if (depth <= SUNK_M) return [];
    return [
      {
        sentence: `${p.label}: lens is ${mmUp(depth)} mm inside the body.`,
        figure: { value: depth * 1000, unit: 'mm' },
        limits: [atMost(SUNK_M * 1000, 'mm')],
        ...pointing([p]),
      },
    ];
  });
