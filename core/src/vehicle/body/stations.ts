import type { Stations } from './dimension.ts';

/** The measures every bonneted or flat-fronted body has. */
export interface CommonMeasures {
  readonly lengthM: number;
  readonly widthM: number;
  readonly wheelbaseM: number;
  readonly frontOverhangM: number;
  readonly bonnetHeightM: number;
  readonly bonnetLengthM: number;
  readonly windscreenRakeDeg: number;
  readonly groundClearanceM: number;
}

/** What a body type settles by itself. */
export interface StationStyle {
  /** Ground to the top of the cab or cabin, m. */
  readonly cabHeightM: number;
  /** Where the cab ends, from the rear-most point; or, measured from the nose, its length, m. */
  readonly cabRear: { readonly fromTailM: number } | { readonly fromNoseM: number };
  readonly rearRakeDeg: number;
  /** End of the last door: fixed to the rear axle, or to the back of the cab, m. */
  readonly doorRear: { readonly axlePlusM: number } | { readonly cabRearPlusM: number };
  readonly doors: 2 | 4;
  readonly wheelRadius: number;
  readonly bumperTopZ: number;
  /** Ground clearance to the top of the sill, m. */
  readonly sillM: number;
  /** How far the side glass leans in, m. */
  readonly leanInM: number;
  readonly outerY?: number;
  readonly topZ?: number;
}

const RAD = Math.PI / 180;

export function stationsOf(d: CommonMeasures, style: StationStyle): Stations {
  const noseX = d.lengthM / 2;
  const tailX = -noseX;
  const railZ = style.cabHeightM - 0.1;
  const beltZ = d.bonnetHeightM;
  const cowlX = noseX - d.bonnetLengthM;
  const lean = (deg: number) => (railZ - beltZ) * Math.tan(deg * RAD);
  const cabRearX =
    'fromTailM' in style.cabRear ? tailX + style.cabRear.fromTailM : noseX - style.cabRear.fromNoseM;
  const frontAxleX = noseX - d.frontOverhangM;
  const rearAxleX = frontAxleX - d.wheelbaseM;
  const doorFrontX = cowlX - 0.16;
  const doorRearX =
    'axlePlusM' in style.doorRear
      ? rearAxleX + style.doorRear.axlePlusM
      : cabRearX + style.doorRear.cabRearPlusM;
  const halfWidth = d.widthM / 2;
  return {
    noseX,
    tailX,
    frontAxleX,
    rearAxleX,
    cowlX,
    roofFrontX: cowlX - lean(d.windscreenRakeDeg),
    roofRearX: cabRearX + lean(style.rearRakeDeg),
    cabRearX,
    doorFrontX,
    pillarX: style.doors === 2 ? doorRearX : (doorFrontX + doorRearX) / 2 - 0.04,
    doorRearX,
    floorZ: d.groundClearanceM + 0.06,
    sillZ: d.groundClearanceM + style.sillM,
    bumperTopZ: style.bumperTopZ,
    noseZ: d.bonnetHeightM - 0.17,
    beltZ,
    railZ,
    roofZ: style.cabHeightM,
    topZ: style.topZ ?? style.cabHeightM,
    halfWidth,
    outerY: style.outerY ?? halfWidth,
    railY: halfWidth - style.leanInM,
    wheelRadius: style.wheelRadius,
  };
}
