import { z } from 'zod';

/** A tape measure's range for one dimension. */
const dimension = (min: number, max: number) =>
  z
    .number({ error: 'must be a number' })
    .min(min, `must be at least ${min}`)
    .max(max, `must be at most ${max}`);

/** What is measured on a mid SUV: metres, and degrees from the vertical for the rakes. */
export const MidSuvDimensions = z.strictObject({
  lengthM: dimension(4.3, 5.2),
  widthM: dimension(1.75, 2.05),
  heightM: dimension(1.6, 1.95),
  wheelbaseM: dimension(2.5, 3.1),
  frontOverhangM: dimension(0.75, 1.1),
  bonnetHeightM: dimension(0.95, 1.2),
  bonnetLengthM: dimension(1.05, 1.5),
  windscreenRakeDeg: dimension(45, 64),
  rearRakeDeg: dimension(12, 38),
  groundClearanceM: dimension(0.16, 0.3),
});
export type MidSuvDimensions = z.infer<typeof MidSuvDimensions>;

/** Each dimension as it is asked for: its name and where to measure. Lengths are typed in mm, rakes in degrees. */
export const midSuvDimensionTexts: Readonly<
  Record<keyof MidSuvDimensions, { readonly name: string; readonly measured: string }>
> = {
  lengthM: { name: 'Length', measured: 'bumper to bumper' },
  widthM: { name: 'Width', measured: 'over the doors, without mirrors' },
  heightM: { name: 'Height', measured: 'ground to the top of the roof' },
  wheelbaseM: { name: 'Wheelbase', measured: 'front axle to rear axle' },
  frontOverhangM: { name: 'Overhang', measured: 'front axle to the front of the bumper' },
  bonnetHeightM: { name: 'Bonnet up', measured: 'ground to the foot of the windscreen' },
  bonnetLengthM: { name: 'Bonnet', measured: 'front of the bumper to the foot of the windscreen' },
  windscreenRakeDeg: { name: 'Screen', measured: 'lean of the windscreen from upright' },
  rearRakeDeg: { name: 'Rear glass', measured: 'lean of the rear glass from upright' },
  groundClearanceM: { name: 'Clearance', measured: 'ground to the sill’s underside' },
};

export const midSuvDefaults: MidSuvDimensions = {
  lengthM: 4.9,
  widthM: 1.96,
  heightM: 1.77,
  wheelbaseM: 2.9,
  frontOverhangM: 0.92,
  bonnetHeightM: 1.09,
  bonnetLengthM: 1.32,
  windscreenRakeDeg: 57,
  rearRakeDeg: 24,
  groundClearanceM: 0.2,
};

/** The stations and heights that solids, zones and pictures share; x, z and half-widths y in body axes, m. */
export interface MidSuvPoints {
  readonly noseX: number;
  readonly tailX: number;
  readonly frontAxleX: number;
  readonly rearAxleX: number;
  readonly cowlX: number;
  readonly roofFrontX: number;
  readonly roofRearX: number;
  /** Foot of the hatch glass, and the hatch's lower edge. */
  readonly glassFootX: number;
  readonly hatchFootX: number;
  /** Split lines: front of the front door, centre pillar, end of the rear door. */
  readonly doorFrontX: number;
  readonly pillarX: number;
  readonly doorRearX: number;
  readonly floorZ: number;
  readonly sillZ: number;
  readonly bumperTopZ: number;
  readonly noseZ: number;
  readonly beltZ: number;
  readonly railZ: number;
  readonly roofZ: number;
  readonly halfWidth: number;
  /** Half-width at the roof rail, less by the lean of the side glass. */
  readonly railY: number;
  readonly wheelRadius: number;
}

export function midSuvPoints(d: MidSuvDimensions): MidSuvPoints {
  const noseX = d.lengthM / 2;
  const tailX = -noseX;
  const railZ = d.heightM - 0.1;
  const beltZ = d.bonnetHeightM;
  const cowlX = noseX - d.bonnetLengthM;
  const lean = (deg: number) => (railZ - beltZ) * Math.tan((deg * Math.PI) / 180);
  const glassFootX = tailX + 0.16;
  const frontAxleX = noseX - d.frontOverhangM;
  const doorFrontX = cowlX - 0.16;
  const doorRearX = frontAxleX - d.wheelbaseM + 0.3;
  return {
    noseX,
    tailX,
    frontAxleX,
    rearAxleX: frontAxleX - d.wheelbaseM,
    cowlX,
    roofFrontX: cowlX - lean(d.windscreenRakeDeg),
    roofRearX: glassFootX + lean(d.rearRakeDeg),
    glassFootX,
    hatchFootX: tailX + 0.09,
    doorFrontX,
    pillarX: (doorFrontX + doorRearX) / 2 - 0.04,
    doorRearX,
    floorZ: d.groundClearanceM + 0.06,
    sillZ: d.groundClearanceM + 0.22,
    bumperTopZ: 0.68,
    noseZ: d.bonnetHeightM - 0.17,
    beltZ,
    railZ,
    roofZ: d.heightM,
    halfWidth: d.widthM / 2,
    railY: d.widthM / 2 - 0.17,
    wheelRadius: 0.37,
  };
}
