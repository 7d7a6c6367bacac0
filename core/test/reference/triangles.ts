import type { Solid } from '../../src/geometry/solid.ts';
import { cross, dot, sub, type Vec3 } from '../../src/geometry/vec.ts';

/** Whether a ray meets a solid's skin, by triangles (Möller and Trumbore 1997): another road to the same answer. */
export function meetsSkin(solid: Solid, origin: Vec3, direction: Vec3): boolean {
  return solid.faces.some((face) => {
    const corners = face.flatMap((i) => solid.vertices.slice(i, i + 1));
    const [a, ...rest] = corners;
    if (a === undefined) return false;
    return rest.slice(1).some((c, i) => meetsTriangle(a, rest[i] ?? c, c, origin, direction));
  });
}

function meetsTriangle(a: Vec3, b: Vec3, c: Vec3, origin: Vec3, direction: Vec3): boolean {
  const ab = sub(b, a);
  const ac = sub(c, a);
  const p = cross(direction, ac);
  const det = dot(ab, p);
  if (Math.abs(det) < 1e-14) return false;
  const t = sub(origin, a);
  const u = dot(t, p) / det;
  const q = cross(t, ab);
  const v = dot(direction, q) / det;
  return u >= 0 && v >= 0 && u + v <= 1 && dot(ac, q) / det > 0;
}
