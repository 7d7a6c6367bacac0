import { convexPieces } from './polygon.ts';
import { type Motion, moveDirection, movePoint } from './frame.ts';
import { add, cross, dot, mirrorY, scale, sub, unit, type Vec3 } from './vec.ts';

/** The half-space n·p ≤ d; n is the outward unit normal. */
export interface Plane {
  readonly n: Vec3;
  readonly d: number;
}

/** A convex body: its corners, its faces as loops of corner indices, and the half-spaces it is the meeting of. */
export interface Solid {
  readonly id: string;
  /** Moving part it belongs to; null when fixed to the body. */
  readonly partId: string | null;
  /** Share of light that passes, 0 (opaque) to 1. */
  readonly transmission: number;
  readonly vertices: readonly Vec3[];
  readonly faces: readonly (readonly number[])[];
  readonly planes: readonly Plane[];
}

export interface SolidTraits {
  readonly partId?: string | null;
  readonly transmission?: number;
}

/** Two faces of a prism may not be flatter to each other than this before a corner counts as repeated, m. */
const SAME_POINT_M = 1e-9;

/**
 * The prism between a convex polygon and the same polygon moved by `sweep`.
 *
 * @param polygon - at least three coplanar corners in order, either way round, m
 * @param sweep - not in the polygon's plane, m
 * @throws {RangeError} fewer than three corners, or a sweep in the polygon's plane
 */
export function prism(
  id: string,
  polygon: readonly Vec3[],
  sweep: Vec3,
  { partId = null, transmission = 0 }: SolidTraits = {},
): Solid {
  const n = polygon.length;
  const [p0, p1, p2] = polygon;
  if (p0 === undefined || p1 === undefined || p2 === undefined)
    throw new RangeError(`prism ${id}: a polygon needs three corners, got ${n}`);
  const facing = dot(cross(sub(p1, p0), sub(p2, p1)), sweep);
  if (Math.abs(facing) < SAME_POINT_M ** 2)
    throw new RangeError(`prism ${id}: the sweep is in the plane of the polygon`);
  const base = facing > 0 ? polygon : polygon.toReversed();
  const vertices = [...base, ...base.map((p) => add(p, sweep))];
  const ring = base.map((_, i) => i);
  const sides = ring.map((i) => [i, (i + 1) % n, ((i + 1) % n) + n, i + n]);
  const faces = [ring.toReversed(), ring.map((i) => i + n), ...sides];
  return { id, partId, transmission, vertices, faces, planes: planesOf(vertices, faces) };
}

/** An axis-aligned box between two opposite corners, m. */
export function box(id: string, from: Vec3, to: Vec3, traits: SolidTraits = {}): Solid {
  const [x0, y0, z0] = from;
  const [x1, y1, z1] = to;
  const floor: Vec3[] = [
    [x0, y0, z0],
    [x1, y0, z0],
    [x1, y1, z0],
    [x0, y1, z0],
  ];
  return prism(id, floor, [0, 0, z1 - z0], traits);
}

/** A side profile in x,z (convex, m) drawn out across the vehicle from y0 to y1. */
export function extrudeAcross(
  id: string,
  profile: readonly (readonly [x: number, z: number])[],
  y0: number,
  y1: number,
  traits: SolidTraits = {},
): Solid {
  return prism(
    id,
    profile.map(([x, z]): Vec3 => [x, y0, z]),
    [0, y1 - y0, 0],
    traits,
  );
}

/**
 * A side profile of any simple shape drawn out across the vehicle, as convex solids that fill it: one when the profile
 * is convex, else as many as it takes, named by number.
 *
 * @throws {RangeError} the profile's edges cross, or it has no area
 */
export function profileAcross(
  id: string,
  profile: readonly (readonly [x: number, z: number])[],
  y0: number,
  y1: number,
  traits: SolidTraits = {},
): Solid[] {
  const pieces = convexPieces(profile);
  return pieces.map((piece, i) =>
    extrudeAcross(pieces.length === 1 ? id : `${id}-${i + 1}`, piece, y0, y1, traits),
  );
}

/** A flat sheet: a convex polygon given its thickness away from `inward`'s opposite side, m. */
export function sheetSolid(
  id: string,
  polygon: readonly Vec3[],
  inward: Vec3,
  thicknessM: number,
  traits: SolidTraits = {},
): Solid {
  const [p0, p1, p2] = polygon;
  if (p0 === undefined || p1 === undefined || p2 === undefined)
    throw new RangeError(`sheet ${id}: a polygon needs three corners, got ${polygon.length}`);
  const normal = unit(cross(sub(p1, p0), sub(p2, p1)));
  const toward = dot(normal, inward) >= 0 ? normal : scale(normal, -1);
  return prism(id, polygon, scale(toward, thicknessM), traits);
}

/** The solid after its moving part has moved. */
export function moveSolid(s: Solid, m: Motion | null): Solid {
  if (m === null) return s;
  const planes = s.planes.map(({ n, d }) => {
    const moved = moveDirection(m, n);
    return { n: moved, d: dot(moved, movePoint(m, scale(n, d))) };
  });
  return { ...s, vertices: s.vertices.map((p) => movePoint(m, p)), planes };
}

function planesOf(vertices: readonly Vec3[], faces: readonly (readonly number[])[]): Plane[] {
  return faces.map((face) => {
    const corners = face.flatMap((i): Vec3[] => vertices.slice(i, i + 1));
    const n = unit(newellNormal(corners));
    const d = corners.reduce((sum, p) => sum + dot(n, p), 0) / corners.length;
    return { n, d };
  });
}

/** Normal of a polygon by Newell's sum, which bears corners in a line and rounding. */
function newellNormal(corners: readonly Vec3[]): Vec3 {
  return corners.reduce<Vec3>(
    (sum, p, i) => add(sum, cross(p, corners[(i + 1) % corners.length] ?? p)),
    [0, 0, 0],
  );
}

/** The solid's twin on the other side; 'left' in its ids becomes 'right'. */
export function mirrorSolid(s: Solid): Solid {
  const other = (id: string) => id.replace('left', 'right');
  return {
    ...s,
    id: other(s.id),
    partId: s.partId === null ? null : other(s.partId),
    vertices: s.vertices.map(mirrorY),
    faces: s.faces.map((face) => face.toReversed()),
    planes: s.planes.map(({ n, d }) => ({ n: mirrorY(n), d })),
  };
}

/** The least box along the axes about some solids, m. */
export interface Bounds {
  readonly low: Vec3;
  readonly high: Vec3;
}

/** The box about some solids; null about none. */
export function boundsOf(solids: readonly Solid[]): Bounds | null {
  const all = solids.flatMap((solid) => solid.vertices);
  if (all.length === 0) return null;
  const pick = (of: (...v: number[]) => number): Vec3 => [
    of(...all.map((p) => p[0])),
    of(...all.map((p) => p[1])),
    of(...all.map((p) => p[2])),
  ];
  return { low: pick(Math.min), high: pick(Math.max) };
}
