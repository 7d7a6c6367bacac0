import type { Placement } from '../../design/placement.ts';
import { bodyFieldsOf, type PlacedBeam } from '../../coverage/field.ts';
import { movePoint, type AimFrame } from '../../geometry/frame.ts';
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

function hiddenOf(standing: PlacedBeam): number {
  let [sent, passed] = [0, 0];
  for (const { weight, passes } of weighed(standing)) {
    sent += weight;
    passed += passes;
  }
  return sent === 0 ? 0 : 1 - passed / sent;
}

/** Less of a beam is left out. */
const LEAST_WEIGHT = 0.02;

/** By direction of `beamRays`: what matters of a module's beam, and what of that the body lets pass. */
const weighed = ({
  placed,
  beam,
  past,
}: PlacedBeam): { readonly weight: number; readonly passes: number }[] =>
  beamRays(placed.frame).map(({ direction, perSteradian }) => {
    const weight = beam(direction) * perSteradian;
    return weight < LEAST_WEIGHT ? { weight: 0, passes: 0 } : { weight, passes: weight * past(direction) };
  });

/** A module in its place, and what the body lets pass of its beam by direction of `beamRays`. */
export interface PassedBeam {
  readonly placed: PlacedBeam['placed'];
  readonly passes: readonly number[];
}

/** What the body lets pass of each module's beam with everything shut, direction by direction. */
export function passedBeams({ lookup }: LayoutSubject, p: Placement): readonly PassedBeam[] {
  const fields = bodyFieldsOf(lookup);
  return fields.standing(p, []).map((standing) => ({
    placed: standing.placed,
    passes: fields.remembered(`beam ${standing.placed.module.id}`, p, [], () =>
      weighed(standing).map(({ passes }) => passes),
    ),
  }));
}

/** The directions of a beam that are asked about: a grid of 5° about its aim, each with its share of a solid angle. */
export const beamRays = ({
  aim,
  right,
  up,
}: AimFrame): { readonly direction: Vec3; readonly perSteradian: number }[] =>
  GRID.map(({ ahead, aside, above, perSteradian }) => ({
    direction: unit(combine([aim, ahead], [right, aside], [up, above])),
    perSteradian,
  }));

const GRID = ACROSS_DEG.flatMap((h) =>
  UP_DEG.map((v) => {
    const cv = Math.cos(v * RAD);
    return {
      ahead: cv * Math.cos(h * RAD),
      aside: cv * Math.sin(h * RAD),
      above: Math.sin(v * RAD),
      perSteradian: cv,
    };
  }),
);

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
