import { layOut } from '../coverage/occlusion.ts';
import { PlaneCut, solidsOf } from '../coverage/planeCut.ts';
import { SKIN_M } from '../geometry/ray.ts';
import type { Solid } from '../geometry/solid.ts';
import { dot, unit, type Vec3 } from '../geometry/vec.ts';
import { ROAD, type Surfaces } from './surfaces.ts';

const RAD = Math.PI / 180;

/** The picture reaches from so far below straight ahead to so far above, and from side to side a right angle each, degrees. */
const DOWN_DEG = 42;
const UP_DEG = 27;

/**
 * Pannini's projection (Sharpless, Postle and German 2010, d = 1): uprights stay upright, lines away from the eye stay
 * straight, and half the horizon is seen without being drawn out at its ends.
 */
const acrossOf = (bearingRad: number): number => 2 * Math.tan(bearingRad / 2);
/** How much larger what stands there is drawn than straight ahead. */
const scaleAt = (across: number): number => 1 + (across * across) / 4;

const LEFT = acrossOf(-Math.PI / 2);
const BOTTOM = Math.tan(-DOWN_DEG * RAD);
const TOP = Math.tan(UP_DEG * RAD);

/** No vehicle reaches so far, m. */
const FAR_M = 200;
const UP: Vec3 = [0, 0, 1];

/** What an eye sees that looks straight ahead, dot by dot, row by row from above. */
export interface Outlook {
  readonly columns: number;
  readonly rows: number;
  /** What surfaces there are. */
  readonly surfaces: readonly string[];
  /** By dot: its surface in `surfaces`; −1 is the sky. */
  readonly cells: Int16Array;
  /** By dot: how bright it looks by where it faces and by the glass before it, 0 to 255. */
  readonly shades: Uint8Array;
}

/** Where a direction lies in the picture: shares of its width and height from its upper left; null outside of it. */
export function onOutlook(
  bearingDeg: number,
  elevationDeg: number,
): { readonly x: number; readonly y: number } | null {
  const aside = bearingDeg > 180 ? bearingDeg - 360 : bearingDeg;
  if (Math.abs(aside) > 90) return null;
  const across = acrossOf(aside * RAD);
  const x = (across - LEFT) / (-2 * LEFT);
  const y = (TOP - scaleAt(across) * Math.tan(elevationDeg * RAD)) / (TOP - BOTTOM);
  return y < 0 || y > 1 ? null : { x, y };
}

/** Light falls so on what is drawn: from above, from ahead and from the left. */
const LIGHT: Vec3 = unit([0.35, 0.5, 0.8]);
/** The darkest that a face is drawn, and the road and its lines, as shares of the brightest. */
const DARKEST = 0.35;
const ROAD_SHADE = 0.45;
const LINE_SHADE = 1;
/** Lines to either side of the lane, so wide, m: by them one sees where the road goes. */
const LANE_HALF_M = 1.75;
const LINE_HALF_M = 0.06;
/** Glass takes so much more in the picture than it takes of the light, so that it is seen at all. */
const TINT = 0.9;

/** Draws what an eye sees first toward each dot; glass is looked through. @param columns - dots from left to right */
export function outlookOf(surfaces: Surfaces, eye: Vec3, columns: number): Outlook {
  const rows = Math.round((columns * (TOP - BOTTOM)) / (-2 * LEFT));
  const names = new Map<string, number>();
  const indexOf = (name: string): number => {
    const known = names.get(name) ?? names.size;
    names.set(name, known);
    return known;
  };
  const cells = new Int16Array(columns * rows).fill(-1);
  const shades = new Uint8Array(columns * rows).fill(255);
  const far = new Float64Array(columns * rows).fill(Infinity);
  const road = indexOf(ROAD);
  const grid = columnsOf(columns, rows);
  const halfDot = -LEFT / columns;
  for (const [column, { aside, tangents }] of grid.entries())
    for (const [row, tangent] of tangents.entries()) {
      if (tangent >= 0) continue;
      const i = row * columns + column;
      const m = eye[2] / -tangent;
      far[i] = m;
      cells[i] = road;
      const off = Math.abs(Math.abs(eye[1] + m * aside) - LANE_HALF_M);
      // A line never looks thinner than a dot.
      const isLine = off < Math.max(LINE_HALF_M, m * halfDot);
      shades[i] = 255 * (isLine ? LINE_SHADE : ROAD_SHADE);
    }
  for (const solid of surfaces.solids) {
    if (solid.transmission > 0) continue;
    const index = indexOf(surfaces.nameOf(solid));
    const facing = solid.planes.map(({ n }) => 255 * (DARKEST + (1 - DARKEST) * (0.5 + 0.5 * dot(n, LIGHT))));
    meet(solid, eye, grid, (at, m, face) => {
      if (!(m > 0 && m < (far[at] ?? 0))) return;
      far[at] = m;
      cells[at] = index;
      shades[at] = facing[face] ?? 0;
    });
  }
  for (const solid of surfaces.solids)
    if (solid.transmission > 0)
      meet(solid, eye, grid, (at, m) => {
        if (m < (far[at] ?? 0)) shades[at] = (shades[at] ?? 0) * solid.transmission * TINT;
      });
  return { columns, rows, surfaces: [...names.keys()], cells, shades };
}

/** The directions of a column of dots: level way 1 long, and how much it climbs by row. */
interface Column {
  readonly ahead: number;
  /** To the left. */
  readonly aside: number;
  readonly tangents: Float64Array;
}

function columnsOf(columns: number, rows: number): Column[] {
  const step = (TOP - BOTTOM) / rows;
  return Array.from({ length: columns }, (_, column) => {
    const across = LEFT - (2 * LEFT * (column + 0.5)) / columns;
    const bearing = 2 * Math.atan(across / 2);
    const scale = scaleAt(across);
    return {
      ahead: Math.cos(bearing),
      aside: -Math.sin(bearing),
      tangents: Float64Array.from({ length: rows }, (_, row) => (TOP - (row + 0.5) * step) / scale),
    };
  });
}

/**
 * Tells of each dot that a convex solid covers, how far off it is met (level way, m; 0 from within) and by which face.
 * The arithmetic is `entryM`'s; dots above and below what the solid takes up of a column are passed over.
 */
function meet(
  solid: Solid,
  eye: Vec3,
  grid: readonly Column[],
  tell: (at: number, m: number, face: number) => void,
): void {
  const [outline] = solidsOf(layOut([solid]));
  if (outline === undefined) return;
  const { planes } = solid;
  const cut = new PlaneCut(eye);
  const gaps = planes.map(({ n, d }) => d - SKIN_M - dot(n, eye));
  const climbs = planes.map(({ n }) => n[2]);
  const along = new Float64Array(planes.length);
  for (const [column, { ahead, aside, tangents }] of grid.entries()) {
    const count = cut.of(outline, [ahead, aside, 0], UP, FAR_M, FAR_M);
    if (count === 0) continue;
    let [least, most] = [Infinity, -Infinity];
    for (let i = 0; i < count; i++) {
      const tangent = (cut.t[i] ?? 0) / (cut.s[i] ?? 0);
      if (tangent < least) least = tangent;
      if (tangent > most) most = tangent;
    }
    for (const [p, { n }] of planes.entries()) along[p] = n[0] * ahead + n[1] * aside;
    for (let row = 0; row < tangents.length; row++) {
      const tangent = tangents[row] ?? 0;
      if (tangent > most) continue;
      if (tangent < least) break;
      let enter = 0;
      let leave = Infinity;
      let face = -1;
      for (let p = 0; p < gaps.length && enter < leave; p++) {
        const gap = gaps[p] ?? 0;
        const speed = (along[p] ?? 0) + (climbs[p] ?? 0) * tangent;
        if (speed > 0) leave = Math.min(leave, gap / speed);
        else if (speed < 0) {
          if (gap / speed > enter) {
            enter = gap / speed;
            face = p;
          }
        } else if (gap < 0) leave = 0;
      }
      if (enter < leave) tell(row * grid.length + column, enter, face);
    }
  }
}
