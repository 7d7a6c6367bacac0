import { SKIN_M } from './ray.ts';
import type { Vec3 } from './vec.ts';

/** No imported body has more triangles. */
export const MAX_TRIANGLES = 20_000;

/** Hits nearer than this are the surface a lamp stands on, m. */
export const MESH_NEAR_M = 0.03;

/** A triangle mesh laid out flat: nine numbers a triangle. */
export type Triangles = Float64Array;

/** Whether a ray meets the triangle between two distances (Möller and Trumbore 1997). */
export function meets(t: Triangles, k: number, o: Vec3, d: Vec3, near: number, far = Infinity): boolean {
  const i = 9 * k;
  const at = (n: number): number => t[i + n] ?? 0;
  const [ax, ay, az] = [at(0), at(1), at(2)];
  const [e1x, e1y, e1z] = [at(3) - ax, at(4) - ay, at(5) - az];
  const [e2x, e2y, e2z] = [at(6) - ax, at(7) - ay, at(8) - az];
  const px = d[1] * e2z - d[2] * e2y;
  const py = d[2] * e2x - d[0] * e2z;
  const pz = d[0] * e2y - d[1] * e2x;
  const det = e1x * px + e1y * py + e1z * pz;
  if (Math.abs(det) < 1e-14) return false;
  const [sx, sy, sz] = [o[0] - ax, o[1] - ay, o[2] - az];
  const u = (sx * px + sy * py + sz * pz) / det;
  if (u < 0 || u > 1) return false;
  const qx = sy * e1z - sz * e1y;
  const qy = sz * e1x - sx * e1z;
  const qz = sx * e1y - sy * e1x;
  const v = (d[0] * qx + d[1] * qy + d[2] * qz) / det;
  if (v < 0 || u + v > 1) return false;
  const along = (e2x * qx + e2y * qy + e2z * qz) / det;
  return along > near && along < far;
}

interface Node {
  /** Low corner, then high corner. */
  readonly box: Float64Array;
  /** Leaf: its triangles; else its two halves. */
  readonly triangles: Int32Array | null;
  readonly left: Node | null;
  readonly right: Node | null;
}

const LEAF = 8;

/** A mesh that rays can be sent against, through a tree of boxes split at the middle of their longest side. */
export class Mesh {
  readonly triangles: Triangles;
  readonly #root: Node | null;

  constructor(verticesM: readonly number[], triangles: readonly number[]) {
    this.triangles = Float64Array.from(
      triangles.flatMap((c) => [verticesM[3 * c] ?? 0, verticesM[3 * c + 1] ?? 0, verticesM[3 * c + 2] ?? 0]),
    );
    const count = this.triangles.length / 9;
    this.#root =
      count === 0
        ? null
        : grow(
            this.triangles,
            Int32Array.from({ length: count }, (_, i) => i),
          );
  }

  /** Whether anything of the mesh stands in the way of a ray, no farther than so many metres. */
  hides(origin: Vec3, direction: Vec3, farM = Infinity): boolean {
    const inverse: Vec3 = [1 / direction[0], 1 / direction[1], 1 / direction[2]];
    const waiting: (Node | null)[] = [this.#root];
    while (waiting.length > 0) {
      const node = waiting.pop() ?? null;
      if (node === null || !crosses(node.box, origin, inverse)) continue;
      if (node.triangles === null) waiting.push(node.left, node.right);
      else
        for (const k of node.triangles)
          if (meets(this.triangles, k, origin, direction, MESH_NEAR_M, farM)) return true;
    }
    return false;
  }
}

function grow(t: Triangles, members: Int32Array): Node {
  const box = new Float64Array([Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity]);
  for (const k of members)
    for (let n = 0; n < 9; n++) {
      const value = t[9 * k + n] ?? 0;
      const axis = n % 3;
      box[axis] = Math.min(box[axis] ?? value, value - SKIN_M);
      box[axis + 3] = Math.max(box[axis + 3] ?? value, value + SKIN_M);
    }
  if (members.length <= LEAF) return { box, triangles: members, left: null, right: null };
  const span = [0, 1, 2].map((a) => (box[a + 3] ?? 0) - (box[a] ?? 0));
  const axis = span.indexOf(Math.max(...span));
  const middleOf = (k: number): number =>
    (t[9 * k + axis] ?? 0) + (t[9 * k + axis + 3] ?? 0) + (t[9 * k + axis + 6] ?? 0);
  const sorted = members.toSorted((a, b) => middleOf(a) - middleOf(b));
  const half = sorted.length >> 1;
  return {
    box,
    triangles: null,
    left: grow(t, sorted.slice(0, half)),
    right: grow(t, sorted.slice(half)),
  };
}

/** Whether a ray crosses a box (Kay and Kajiya 1986). */
function crosses(box: Float64Array, o: Vec3, inverse: Vec3): boolean {
  let enter = 0;
  let leave = Infinity;
  for (let axis = 0; axis < 3; axis++) {
    const from = o[axis] ?? 0;
    const inv = inverse[axis] ?? 0;
    const a = ((box[axis] ?? 0) - from) * inv;
    const b = ((box[axis + 3] ?? 0) - from) * inv;
    // A ray within a box's slab gives infinities of the right signs; on its very face, NaN, which passes.
    if (Math.min(a, b) > enter) enter = Math.min(a, b);
    if (Math.max(a, b) < leave) leave = Math.max(a, b);
  }
  return enter <= leave;
}
