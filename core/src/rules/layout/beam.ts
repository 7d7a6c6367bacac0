import type { Placement } from '../../design/placement.ts';
import { bodyFieldsOf, type Standing } from '../../coverage/field.ts';
import { movePoint } from '../../geometry/frame.ts';
import { combine, dot, length, sub, unit, type Vec3 } from '../../geometry/vec.ts';
import { motionOf } from '../../vehicle/vehicle.ts';
import { placeModules } from '../../resolve/place.ts';
import type { LayoutSubject } from './subject.ts';

const RAD = Math.PI / 180;
/** Directions of a beam that are asked, from its aim: every 5° across and up, as far as a beam matters. */
const ACROSS_DEG = Array.from({ length: 25 }, (_, i) => -60 + 5 * i);
const UP_DEG = [-15, -10, -5, 0, 5, 10, 15];

/**
 * Share of each module's beam that the body hides in a pose, weighted by intensity and solid angle over a grid of 5°.
 *
 * @returns by module, in the fixture's order: 0 to 1; 0 for a module that sends nothing
 */
export function hiddenShares(
  subject: LayoutSubject,
  p: Placement,
  open: readonly string[],
): readonly number[] {
  const fields = bodyFieldsOf(subject.lookup);
  return fields.remembered('hidden', p, open, () => fields.standing(p, open).map(hiddenOf));
}

function hiddenOf(standing: Standing): number {
  let sent = 0;
  let passed = 0;
  for (const { direction, weight } of beamRays(standing)) {
    sent += weight;
    passed += weight * standing.past(direction);
  }
  return sent === 0 ? 0 : 1 - passed / sent;
}

/** The directions of a module's beam that matter, weighted by intensity and solid angle: a grid of 5° about its aim. */
export function beamRays({
  placed,
  beam,
}: Pick<Standing, 'placed' | 'beam'>): { readonly direction: Vec3; readonly weight: number }[] {
  const { aim, right, up } = placed.frame;
  return ACROSS_DEG.flatMap((h) =>
    UP_DEG.flatMap((v) => {
      const cv = Math.cos(v * RAD);
      const direction = unit(
        combine([aim, cv * Math.cos(h * RAD)], [right, cv * Math.sin(h * RAD)], [up, Math.sin(v * RAD)]),
      );
      const weight = beam(direction) * cv;
      return weight < 0.02 ? [] : [{ direction, weight }];
    }),
  );
}

/** Nearer to the aim than this a solid can hide some of a beam: the cosine of 75°. */
const BEFORE = Math.cos(75 * RAD);

/** Whether a part at a stop comes before any lens of a lamp; where not, it hides nothing more than when shut. */
export const comesBefore = (subject: LayoutSubject, p: Placement, stopId: string): boolean =>
  bodyFieldsOf(subject.lookup).remembered('before', p, [stopId], () => [
    standsBefore(subject, p, stopId) ? 1 : 0,
  ])[0] === 1;

function standsBefore(subject: LayoutSubject, p: Placement, stopId: string): boolean {
  const { vehicle } = subject.lookup;
  const open = new Set([stopId]);
  const moved = vehicle.solids.filter((s) => motionOf(vehicle, s.partId, open) !== null);
  const corners = moved.flatMap((s) => {
    const m = motionOf(vehicle, s.partId, open);
    return s.vertices.map((v) => movePoint(m, v));
  });
  return placeModules(subject.lookup, p, new Set()).some(({ centre, frame, module }) => {
    if (module.distribution.h50Deg === null) return corners.length > 0;
    return corners.some((corner) => {
      const to = sub(corner, centre);
      return dot(to, frame.aim) > BEFORE * length(to);
    });
  });
}
