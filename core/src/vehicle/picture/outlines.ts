import { cutFaces } from '../../geometry/cut.ts';
import type { Point2 } from '../../geometry/polygon.ts';
import type { Solid } from '../../geometry/solid.ts';
import { dot, type Vec3 } from '../../geometry/vec.ts';
import type { ArtShape, Vehicle, View } from '../types.ts';
import { outlineOf, project, toViewer, unproject } from './views.ts';

/** A rounded corner is followed in so many steps. */
const STEPS = 5;
/** What is filled in a drawing is the vehicle; tyres and openings are not its body. */
const FILLED: ReadonlySet<ArtShape['kind']> = new Set<ArtShape['kind']>(['body', 'shade', 'glass', 'trim']);
/** A solid of which less than this share is drawn is not the one that was drawn there. */
const LEAST_DRAWN = 0.6;

/** The corners of a drawn path: moves, lines, and curves with one control point. */
export function cornersOf(path: string): Point2[] {
  const out: Point2[] = [];
  for (const [, letter = '', rest = ''] of path.matchAll(/([MLQZ])([^MLQZ]*)/g)) {
    const n = [...rest.matchAll(/-?\d+(?:\.\d+)?(?:e-?\d+)?/g)].map(([text]) => Number(text));
    const [a = 0, b = 0, c = 0, d = 0] = n;
    const [from] = out.slice(-1);
    if (letter === 'Q' && from !== undefined)
      for (let i = 1; i <= STEPS; i++) {
        const t = i / STEPS;
        const [u, v, w] = [(1 - t) ** 2, 2 * t * (1 - t), t ** 2];
        out.push([u * from[0] + v * a + w * c, u * from[1] + v * b + w * d]);
      }
    else if (letter !== 'Z' && n.length >= 2) out.push([a, b]);
  }
  return out;
}

/** A figure, and the corners of the rectangle around it. */
interface Outline {
  readonly corners: readonly Point2[];
  readonly low: Point2;
  readonly high: Point2;
}

function framed(corners: readonly Point2[]): Outline {
  const [a, b] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
  return { corners, low: [Math.min(...a), Math.min(...b)], high: [Math.max(...a), Math.max(...b)] };
}

const mayMeet = (p: Outline, q: Outline): boolean =>
  p.low[0] < q.high[0] && q.low[0] < p.high[0] && p.low[1] < q.high[1] && q.low[1] < p.high[1];

/** What a drawing fills, view by view, as outlines. */
export class Outlines {
  readonly #of = new Map<View, Outline[]>();

  constructor({ art }: Vehicle) {
    for (const { view, kind, path } of art)
      if (FILLED.has(kind)) this.#of.set(view, [...(this.#of.get(view) ?? []), framed(cornersOf(path))]);
  }

  /**
   * The faces of a solid as the drawings have it: rounded off where a view's outline rounds it, shut.
   * @returns each face as its corners, seen from outside counter-clockwise, m
   */
  rounded(solid: Solid): readonly (readonly Vec3[])[] {
    const faces = solid.faces.map((face) => face.flatMap((i) => solid.vertices.slice(i, i + 1)));
    const ahead = solid.vertices.reduce((sum, [x]) => sum + x, 0) > 0;
    const views: readonly View[] = ['left', 'plan', ahead ? 'front' : 'rear'];
    return views.reduce<readonly (readonly Vec3[])[]>((left, view) => this.#cut(left, view), faces);
  }

  #cut(faces: readonly (readonly Vec3[])[], view: View): readonly (readonly Vec3[])[] {
    const seen = outlineOf(faces.flatMap((face) => face.map((p) => project(view, p))));
    const around = framed(seen);
    const near = (this.#of.get(view) ?? []).filter((outline) => mayMeet(outline, around));
    const drawn = outlineOf(near.flatMap(({ corners }) => within(corners, seen)));
    if (drawn.length < 3 || area(drawn) < LEAST_DRAWN * area(seen)) return faces;
    return drawn.reduce<readonly (readonly Vec3[])[]>((left, [a, b], i) => {
      const [c, d] = drawn[(i + 1) % drawn.length] ?? [a, b];
      const long = Math.hypot(c - a, d - b);
      // Most edges are those of the solid itself.
      const isOwn = !seen.some(([x, y]) => (c - a) * (y - b) - (d - b) * (x - a) < -1e-6 * long);
      if (long === 0 || isOwn) return left;
      // The outline runs counter-clockwise: its outside is to the right of each edge.
      const n = between(view, [(d - b) / long, (a - c) / long]);
      return cutFaces(left, { n, d: dot(n, unproject(view, [a, b], 0)) });
    }, faces);
  }
}

/** A direction of a view in space. */
function between(view: View, [a, b]: Point2): Vec3 {
  const [x, y, z] = unproject(view, [a, b], 0);
  const [tx, ty, tz] = toViewer[view];
  const along = x * tx + y * ty + z * tz;
  return [x - along * tx, y - along * ty, z - along * tz];
}

/** Twice the area would do as well: it is only compared. */
const area = (points: readonly Point2[]): number =>
  points.reduce((sum, [x, y], i) => {
    const [x1, y1] = points[(i + 1) % points.length] ?? [x, y];
    return sum + (x * y1 - x1 * y) / 2;
  }, 0);

/** A figure without what lies outside a convex one that runs counter-clockwise (Sutherland and Hodgman, 1974). */
function within(figure: readonly Point2[], convex: readonly Point2[]): Point2[] {
  return convex.reduce<Point2[]>(
    (left, from, i) => {
      const to = convex[(i + 1) % convex.length] ?? from;
      const inside = ([x, y]: Point2): number =>
        (to[0] - from[0]) * (y - from[1]) - (to[1] - from[1]) * (x - from[0]);
      return left.flatMap((p, k): Point2[] => {
        const q = left[(k + 1) % left.length] ?? p;
        const [here, there] = [inside(p), inside(q)];
        const kept: Point2[] = here >= 0 ? [p] : [];
        if (here >= 0 === there >= 0) return kept;
        const t = here / (here - there);
        return [...kept, [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]];
      });
    },
    [...figure],
  );
}
