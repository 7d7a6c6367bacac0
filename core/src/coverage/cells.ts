/** Each side of a cube around an eye is split so often each way. */
const SPLIT = 10;
const PER_SIDE = SPLIT * SPLIT;
/** Directions of one side of the cube, and as many of each other. */
export const CELLS = 6 * PER_SIDE;

/** Per cell the cone in which all of its directions lie: axis x, y, z, cosine and sine of its half angle. */
const cones = new Float64Array(5 * CELLS);
for (let side = 0; side < 6; side++)
  for (let row = 0; row < SPLIT; row++)
    for (let column = 0; column < SPLIT; column++) {
      const at = (u: number, v: number): readonly [number, number, number] => {
        const [a, b] = [(2 * (column + u)) / SPLIT - 1, (2 * (row + v)) / SPLIT - 1];
        const k = (side % 2 === 0 ? 1 : -1) / Math.hypot(1, a, b);
        const [main, across, up] = [k, a * Math.abs(k), b * Math.abs(k)];
        return side < 2 ? [main, across, up] : side < 4 ? [across, main, up] : [across, up, main];
      };
      const [x, y, z] = at(0.5, 0.5);
      const cos = Math.min(
        ...[at(0, 0), at(0, 1), at(1, 0), at(1, 1)].map(([p, q, r]) => p * x + q * y + r * z),
      );
      const cell = side * PER_SIDE + row * SPLIT + column;
      cones.set([x, y, z, cos, Math.sqrt(1 - cos * cos)], 5 * cell);
    }

/** The cell of a direction: a unit vector, or any other but nothing. */
export function cellOf(x: number, y: number, z: number): number {
  const [ax, ay, az] = [Math.abs(x), Math.abs(y), Math.abs(z)];
  if (ax >= ay && ax >= az) return (x > 0 ? 0 : PER_SIDE) + within(y / ax, z / ax);
  if (ay >= az) return (y > 0 ? 2 : 3) * PER_SIDE + within(x / ay, z / ay);
  return (z > 0 ? 4 : 5) * PER_SIDE + within(x / az, y / az);
}

const within = (a: number, b: number): number =>
  Math.min(SPLIT - 1, ((b + 1) * SPLIT) >> 1) * SPLIT + Math.min(SPLIT - 1, ((a + 1) * SPLIT) >> 1);

/**
 * Whether a cone and a cell have a direction in common, or may have.
 * @param cos - of the half angle of the cone, with its sine
 */
export function mayMeet(cell: number, x: number, y: number, z: number, cos: number, sin: number): boolean {
  const i = 5 * cell;
  const [cellCos, cellSin] = [cones[i + 3] ?? 0, cones[i + 4] ?? 0];
  // Half angles that come to half a turn together leave nothing out.
  if (cos * cellSin + sin * cellCos <= 0) return true;
  const between = x * (cones[i] ?? 0) + y * (cones[i + 1] ?? 0) + z * (cones[i + 2] ?? 0);
  return between >= cos * cellCos - sin * cellSin - SLACK;
}

/** So that rounding never leaves out what is only just met. */
const SLACK = 1e-9;
