export type XY = readonly [number, number];
/** A pen that turns a station and a height into the view's coordinates. */
export type Pen = (x: number, z: number) => string;

const num = (v: number) => String(Math.round(v * 1e4) / 1e4);
export const penFor =
  (sign: 1 | -1): Pen =>
  (x, z) =>
    `${num(sign * x)},${num(z)}`;

export const loop = (pen: Pen, points: readonly XY[]) => `M${points.map(([x, z]) => pen(x, z)).join('L')}Z`;
export const line = (pen: Pen, points: readonly XY[]) => `M${points.map(([x, z]) => pen(x, z)).join('L')}`;

/** Points of an arc about (cx, cz), degrees counter-clockwise from +x. */
export function arc(cx: number, cz: number, r: number, fromDeg: number, toDeg: number, steps = 20): XY[] {
  return Array.from({ length: steps + 1 }, (_, i): XY => {
    const a = ((fromDeg + ((toDeg - fromDeg) * i) / steps) * Math.PI) / 180;
    return [cx + r * Math.cos(a), cz + r * Math.sin(a)];
  });
}
