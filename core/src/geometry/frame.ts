import { add, combine, cross, dot, scale, sub, type Vec3 } from './vec.ts';

const RAD = Math.PI / 180;

/**
 * A lamp's own axes, each a unit vector in body axes: `aim` out of the lens, `up`, and `right` as seen
 * looking out along the aim (right = aim × up).
 */
export interface AimFrame {
  readonly aim: Vec3;
  readonly up: Vec3;
  readonly right: Vec3;
}

export const aimFrame = (aim: Vec3, up: Vec3): AimFrame => ({ aim, up, right: cross(aim, up) });

/**
 * Turns a frame by pan, then tilt, then roll, each about the axis the earlier turns left.
 *
 * @param panDeg - about up; positive turns the aim to its right (bearing grows)
 * @param tiltDeg - about right; positive raises the aim
 * @param rollDeg - about the aim; positive is clockwise looking out along it
 */
export function turnFrame(f: AimFrame, panDeg: number, tiltDeg: number, rollDeg: number): AimFrame {
  const panned = turn(f.aim, f.right, panDeg);
  const tilted = turn(panned.a, f.up, tiltDeg);
  const rolled = turn(tilted.b, panned.b, rollDeg);
  return { aim: tilted.a, up: rolled.a, right: rolled.b };
}

/** Turns the perpendicular pair (a, b) by an angle from a toward b. */
function turn(a: Vec3, b: Vec3, deg: number): { a: Vec3; b: Vec3 } {
  const c = Math.cos(deg * RAD);
  const s = Math.sin(deg * RAD);
  return { a: combine([a, c], [b, s]), b: combine([b, c], [a, -s]) };
}

/** A rigid motion of the body's space: a turn about an axis through a point, then a slide. */
export interface Motion {
  readonly through: Vec3;
  readonly axis: Vec3;
  readonly angleDeg: number;
  /** Slide after the turn, m. */
  readonly by: Vec3;
}

const STILL: Vec3 = [0, 0, 0];

export const turnAbout = (through: Vec3, axis: Vec3, angleDeg: number, by: Vec3 = STILL): Motion => ({
  through,
  axis,
  angleDeg,
  by,
});

export const slideBy = (by: Vec3): Motion => turnAbout(STILL, [0, 0, 1], 0, by);

/** A direction after the motion (Rodrigues' rotation formula). */
export function moveDirection(m: Motion | null, v: Vec3): Vec3 {
  if (m === null || m.angleDeg === 0) return v;
  const c = Math.cos(m.angleDeg * RAD);
  const s = Math.sin(m.angleDeg * RAD);
  return combine([v, c], [cross(m.axis, v), s], [m.axis, dot(m.axis, v) * (1 - c)]);
}

/** A point after the motion. */
export const movePoint = (m: Motion | null, p: Vec3): Vec3 =>
  m === null ? p : add(m.by, add(m.through, moveDirection(m, sub(p, m.through))));

/** Angles of a direction in a lamp's frame: H to the right, V up, degrees (H = atan2, V = asin). */
export function anglesInFrame(f: AimFrame, d: Vec3): { hDeg: number; vDeg: number } {
  const v = Math.min(1, Math.max(-1, dot(d, f.up)));
  return { hDeg: Math.atan2(dot(d, f.right), dot(d, f.aim)) / RAD, vDeg: Math.asin(v) / RAD };
}

/** The point at (forward, right, up) metres from `origin` in the frame. */
export const pointInFrame = (origin: Vec3, f: AimFrame, [fwd, right, up]: Vec3): Vec3 =>
  add(origin, add(scale(f.aim, fwd), add(scale(f.right, right), scale(f.up, up))));
