import { cellOf, mayMeet } from './cells.ts';
import type { Mesh } from '../geometry/mesh.ts';
import { SKIN_M } from '../geometry/ray.ts';
import { moveSolid, type Solid } from '../geometry/solid.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { MovingPart, PartPosition, Vehicle } from '../vehicle/types.ts';

/** Slack on a cone's cosine, so that rounding never culls a solid that a ray grazes. */
const CONE_SLACK = 1e-9;
/** Of so few solids all are asked: to find out which are not takes as long. */
const FEW = 4;
/** A cosine no direction falls short of: the solid is never passed over. */
const NEVER_CULL = -2;

/** Solids that hide light, laid out flat; worked out once for all lamps. */
export interface Obstacles {
  readonly transmissions: Float64Array;
  /** Where each solid's half-spaces begin in `planes`, counted in half-spaces; one more than there are solids. */
  readonly planeStarts: Int32Array;
  /** Per half-space: normal x, y, z and distance. */
  readonly planes: Float64Array;
  readonly vertexStarts: Int32Array;
  /** Per corner: x, y, z. */
  readonly vertices: Float64Array;
  /** An imported body; null without one. */
  readonly mesh: Mesh | null;
}

/** What hides light on the body alone, every moving part left out. */
export const bodyObstacles = ({ solids, mesh, meshReplacesBody }: Vehicle): Obstacles =>
  layOut(meshReplacesBody ? [] : solids.filter((s) => s.partId === null), mesh);

/** What hides light on one moving part at a stop; shut when null. */
export const partObstacles = ({ solids }: Vehicle, part: MovingPart, stop: PartPosition | null): Obstacles =>
  layOut(solids.filter((s) => s.partId === part.id).map((s) => moveSolid(s, stop?.motion ?? null)));

export function layOut(solids: readonly Solid[], mesh: Mesh | null = null): Obstacles {
  const hiding = solids.filter((s) => s.transmission < 1);
  const planeStarts = startsOf(hiding.map((s) => s.planes.length));
  const vertexStarts = startsOf(hiding.map((s) => s.vertices.length));
  const planes = new Float64Array(4 * (planeStarts.at(-1) ?? 0));
  const vertices = new Float64Array(3 * (vertexStarts.at(-1) ?? 0));
  let [p, v] = [0, 0];
  for (const solid of hiding) {
    for (const { n, d } of solid.planes) {
      planes.set(n, p);
      planes[p + 3] = d;
      p += 4;
    }
    for (const vertex of solid.vertices) {
      vertices.set(vertex, v);
      v += 3;
    }
  }
  return {
    transmissions: Float64Array.from(hiding, (s) => s.transmission),
    planeStarts,
    planes,
    vertexStarts,
    vertices,
    mesh,
  };
}

/** Where each of some runs begins, and where the last ends. */
function startsOf(counts: readonly number[]): Int32Array {
  let sum = 0;
  return Int32Array.from([0, ...counts.map((count) => (sum += count))]);
}

/**
 * The share of light that passes along a ray, as far as a point so far off; all the way when not said.
 * @param farM - what lies beyond hides nothing, m
 */
export type TransmittedShare = (direction: Vec3, farM?: number) => number;

/**
 * The share of light that leaves `origin` in any direction: like `transmissionAlong`, with what depends on the
 * origin alone worked out once. Solids that no direction of a cell of them meets are left out of it, and one whose cone of
 * sight the direction misses is passed over; the solids
 * that take up most of the view and let nothing pass are asked first, since one of them settles the answer.
 */
export function occluderAt(obstacles: Obstacles, origin: Vec3): TransmittedShare {
  const { transmissions, planeStarts, planes, mesh } = obstacles;
  let known: SeenObstacles | null = null;
  return (direction, farM = Infinity) => {
    known ??= seenObstacles(obstacles, origin);
    const { cones, gaps, order } = known;
    // Read by index: taking a tuple apart goes through its iterator, which costs more than the sums here.
    const x = direction[0];
    const y = direction[1];
    const z = direction[2];
    const asked = order.length <= FEW ? order : metIn(known, cellOf(x, y, z));
    let share = 1;
    for (let k = 0; k < asked.length; k++) {
      const i = at(asked, k);
      const c = 4 * i;
      if (at(cones, c) * x + at(cones, c + 1) * y + at(cones, c + 2) * z < at(cones, c + 3)) continue;
      if (!crosses(planes, gaps, at(planeStarts, i), at(planeStarts, i + 1), x, y, z, farM)) continue;
      share *= at(transmissions, i);
      if (share === 0) return 0;
    }
    return mesh?.hides(origin, direction, farM) === true ? 0 : share;
  };
}

/** Obstacles as seen from a point: worked out when the first ray leaves it. */
interface SeenObstacles {
  readonly cones: Float64Array;
  readonly gaps: Float64Array;
  readonly order: Int32Array;
  /** By cell of directions: the solids that may be met there, in the order in which they are asked. */
  readonly met: (Int32Array | undefined)[];
}

function seenObstacles(obstacles: Obstacles, origin: Vec3): SeenObstacles {
  const { transmissions, planes } = obstacles;
  const cones = conesOfSight(obstacles, origin);
  const order = Int32Array.from(transmissions.keys()).sort(
    (a, b) => at(transmissions, a) - at(transmissions, b) || at(cones, 4 * a + 3) - at(cones, 4 * b + 3),
  );
  return { cones, gaps: gapsAt(planes, origin), order, met: [] };
}

function metIn({ cones, order, met }: SeenObstacles, cell: number): Int32Array {
  const known = met[cell];
  if (known !== undefined) return known;
  const made = order.filter((i) => {
    const c = 4 * i;
    const cos = at(cones, c + 3);
    if (cos === NEVER_CULL) return true;
    return mayMeet(cell, at(cones, c), at(cones, c + 1), at(cones, c + 2), cos, Math.sqrt(1 - cos * cos));
  });
  met[cell] = made;
  return made;
}

/** Typed arrays are full between their ends; every index here lies there by construction. */
const at = (values: Float64Array | Int32Array, i: number): number => values[i] ?? 0;

/** How far the origin lies below each half-space's skin, m; negative outside. */
function gapsAt(planes: Float64Array, origin: Vec3): Float64Array {
  const gaps = new Float64Array(planes.length / 4);
  for (let p = 0; p < gaps.length; p++) {
    const i = 4 * p;
    const along = at(planes, i) * origin[0] + at(planes, i + 1) * origin[1] + at(planes, i + 2) * origin[2];
    gaps[p] = at(planes, i + 3) - SKIN_M - along;
  }
  return gaps;
}

/** Per solid, the cone in which all of it lies seen from the origin: axis x, y, z and cosine. */
function conesOfSight({ vertexStarts, vertices }: Obstacles, origin: Vec3): Float64Array {
  const sights = new Float64Array(vertices.length);
  for (let v = 0; v < vertices.length; v += 3) {
    const x = at(vertices, v) - origin[0];
    const y = at(vertices, v + 1) - origin[1];
    const z = at(vertices, v + 2) - origin[2];
    // A corner at the origin has no direction; NaN there makes the cone one that culls nothing.
    const k = 1 / Math.hypot(x, y, z);
    sights[v] = x * k;
    sights[v + 1] = y * k;
    sights[v + 2] = z * k;
  }
  const count = vertexStarts.length - 1;
  const cones = new Float64Array(4 * count);
  for (let i = 0; i < count; i++) {
    const from = 3 * at(vertexStarts, i);
    const to = 3 * at(vertexStarts, i + 1);
    let x = 0;
    let y = 0;
    let z = 0;
    for (let v = from; v < to; v += 3) {
      x += at(sights, v);
      y += at(sights, v + 1);
      z += at(sights, v + 2);
    }
    const k = 1 / Math.hypot(x, y, z);
    let cos = 1;
    for (let v = from; v < to; v += 3)
      cos = Math.min(cos, (at(sights, v) * x + at(sights, v + 1) * y + at(sights, v + 2) * z) * k);
    cones.set(cos > 0 ? [x * k, y * k, z * k, cos - CONE_SLACK] : [0, 0, 0, NEVER_CULL], 4 * i);
  }
  return cones;
}

/** Whether the ray runs below the solid's skin; the arithmetic is `chordM`'s. */
function crosses(
  planes: Float64Array,
  gaps: Float64Array,
  from: number,
  to: number,
  x: number,
  y: number,
  z: number,
  farM: number,
): boolean {
  let enter = 0;
  let leave = farM;
  for (let p = from; p < to; p++) {
    const gap = at(gaps, p);
    const i = 4 * p;
    const speed = at(planes, i) * x + at(planes, i + 1) * y + at(planes, i + 2) * z;
    if (speed > 0) leave = Math.min(leave, gap / speed);
    else if (speed < 0) enter = Math.max(enter, gap / speed);
    else if (gap < 0) return false;
    if (enter >= leave) return false;
  }
  return true;
}
