import type { ArtShape } from '../types.ts';
import type { MidSuvPoints } from './points.ts';

type XY = readonly [number, number];
/** A pen that turns a station and a height into the view's coordinates. */
type Pen = (x: number, z: number) => string;

const num = (v: number) => String(Math.round(v * 1e4) / 1e4);
const penFor =
  (sign: 1 | -1): Pen =>
  (x, z) =>
    `${num(sign * x)},${num(z)}`;

const loop = (pen: Pen, points: readonly XY[]) => `M${points.map(([x, z]) => pen(x, z)).join('L')}Z`;
const line = (pen: Pen, points: readonly XY[]) => `M${points.map(([x, z]) => pen(x, z)).join('L')}`;

/** Points of an arc about (cx, cz), degrees counter-clockwise from +x. */
function arc(cx: number, cz: number, r: number, fromDeg: number, toDeg: number, steps = 20): XY[] {
  return Array.from({ length: steps + 1 }, (_, i): XY => {
    const a = ((fromDeg + ((toDeg - fromDeg) * i) / steps) * Math.PI) / 180;
    return [cx + r * Math.cos(a), cz + r * Math.sin(a)];
  });
}

const ARCH_M = 0.065;

/** The mid SUV's picture in all five views. */
export function midSuvArt(p: MidSuvPoints): ArtShape[] {
  return [
    ...side(p, 'left', penFor(-1)),
    ...side(p, 'right', penFor(1)),
    ...end(p, 'front'),
    ...end(p, 'rear'),
    ...plan(p),
  ];
}

function side(p: MidSuvPoints, view: 'left' | 'right', at: Pen): ArtShape[] {
  const shape = (kind: ArtShape['kind'], path: string, partId: string | null = null): ArtShape => ({
    view,
    kind,
    path,
    partId: partId === null ? null : partId.replace('SIDE', view),
  });
  const arch = p.wheelRadius + ARCH_M;
  const archArc = (x: number) => arc(x, p.wheelRadius, arch, -14, 194);
  const under = [...archArc(p.frontAxleX), ...archArc(p.rearAxleX)];
  const body = [
    `M${at(p.tailX + 0.14, p.floorZ)}`,
    `L${at(p.tailX + 0.03, p.floorZ + 0.12)}`,
    `Q${at(p.tailX, p.floorZ + 0.16)} ${at(p.tailX, 0.5)}`,
    `L${at(p.tailX, p.bumperTopZ - 0.05)}`,
    `Q${at(p.tailX, p.bumperTopZ)} ${at(p.hatchFootX - 0.02, p.bumperTopZ + 0.01)}`,
    `L${at(p.hatchFootX - 0.03, p.beltZ - 0.14)}`,
    `Q${at(p.hatchFootX - 0.03, p.beltZ - 0.04)} ${at(p.glassFootX - 0.02, p.beltZ)}`,
    `L${at(p.roofRearX - 0.03, p.railZ - 0.03)}`,
    `L${at(p.roofRearX - 0.13, p.railZ - 0.01)}`,
    `Q${at(p.roofRearX - 0.12, p.railZ + 0.045)} ${at(p.roofRearX + 0.05, p.railZ + 0.055)}`,
    `C${at(p.roofRearX + 0.6, p.roofZ + 0.015)} ${at(p.roofFrontX - 0.55, p.roofZ + 0.02)} ${at(p.roofFrontX, p.railZ + 0.02)}`,
    `L${at(p.cowlX, p.beltZ + 0.01)}`,
    `C${at(p.cowlX + 0.45, p.beltZ - 0.005)} ${at(p.noseX - 0.5, p.noseZ + 0.07)} ${at(p.noseX - 0.14, p.noseZ)}`,
    `Q${at(p.noseX - 0.05, p.noseZ - 0.03)} ${at(p.noseX - 0.06, p.noseZ - 0.18)}`,
    `L${at(p.noseX - 0.02, p.bumperTopZ - 0.06)}`,
    `Q${at(p.noseX, p.bumperTopZ - 0.1)} ${at(p.noseX, 0.5)}`,
    `Q${at(p.noseX - 0.01, p.floorZ + 0.06)} ${at(p.noseX - 0.2, p.floorZ)}`,
    ...under.map(([x, z]) => `L${at(x, z)}`),
    'Z',
  ].join('');
  const cladding = [
    ...arc(p.frontAxleX, p.wheelRadius, arch + 0.06, 194, -8),
    ...arc(p.frontAxleX, p.wheelRadius, arch, -8, 194),
  ] satisfies XY[];
  const claddingRear = [
    ...arc(p.rearAxleX, p.wheelRadius, arch + 0.06, 194, -8),
    ...arc(p.rearAxleX, p.wheelRadius, arch, -8, 194),
  ] satisfies XY[];
  const sill: XY[] = [
    [p.rearAxleX + arch + 0.04, p.floorZ + 0.02],
    [p.frontAxleX - arch - 0.04, p.floorZ + 0.02],
    [p.frontAxleX - arch - 0.05, p.sillZ - 0.01],
    [p.rearAxleX + arch + 0.05, p.sillZ - 0.01],
  ];
  const frontGlass: XY[] = [
    [p.pillarX + 0.05, p.beltZ + 0.02],
    [p.doorFrontX - 0.02, p.beltZ + 0.02],
    [p.roofFrontX - 0.05, p.railZ - 0.03],
    [p.pillarX + 0.05, p.railZ - 0.015],
  ];
  const rearGlass: XY[] = [
    [p.doorRearX + 0.05, p.beltZ + 0.025],
    [p.pillarX - 0.05, p.beltZ + 0.02],
    [p.pillarX - 0.05, p.railZ - 0.015],
    [p.doorRearX + 0.05, p.railZ - 0.02],
  ];
  const quarterGlass: XY[] = [
    [p.glassFootX + 0.26, p.beltZ + 0.06],
    [p.doorRearX - 0.05, p.beltZ + 0.025],
    [p.doorRearX - 0.05, p.railZ - 0.02],
    [p.roofRearX + 0.2, p.railZ - 0.05],
  ];
  const door = (x0: number, x1: number, roofX1: number): XY[] => [
    [x0, p.sillZ],
    [x1, p.sillZ],
    [x1 + 0.02, p.beltZ],
    [roofX1, p.railZ],
    [x0, p.railZ + 0.005],
  ];
  const frontDoor = door(p.pillarX, p.doorFrontX, p.roofFrontX - 0.03);
  const rearDoor: XY[] = [
    [p.rearAxleX + arch * 0.86, p.sillZ],
    [p.pillarX, p.sillZ],
    [p.pillarX, p.railZ + 0.005],
    [p.doorRearX, p.railZ],
    [p.doorRearX, p.beltZ - 0.3],
  ];
  const handle = (x: number): XY[] => [
    [x, p.beltZ - 0.09],
    [x + 0.17, p.beltZ - 0.085],
    [x + 0.17, p.beltZ - 0.115],
    [x, p.beltZ - 0.12],
  ];
  const wheelAt = (x: number): ArtShape[] => [
    shape('tyre', loop(at, arc(x, p.wheelRadius, p.wheelRadius, 0, 360, 40))),
    shape('rim', loop(at, arc(x, p.wheelRadius, p.wheelRadius * 0.66, 0, 360, 32))),
    ...[0, 72, 144, 216, 288].map((deg) =>
      shape(
        'cut',
        line(at, [
          arc(x, p.wheelRadius, p.wheelRadius * 0.14, deg + 90, deg + 90, 1)[0] ?? [x, p.wheelRadius],
          arc(x, p.wheelRadius, p.wheelRadius * 0.62, deg + 90, deg + 90, 1)[0] ?? [x, p.wheelRadius],
        ]),
      ),
    ),
    shape('cut', loop(at, arc(x, p.wheelRadius, p.wheelRadius * 0.14, 0, 360, 16))),
  ];
  const crease: XY[] = [
    [p.tailX + 0.2, p.beltZ - 0.17],
    [p.doorRearX, p.beltZ - 0.18],
    [p.doorFrontX, p.beltZ - 0.17],
    [p.noseX - 0.5, p.noseZ - 0.1],
  ];
  return [
    shape('body', body),
    shape('shine', line(at, crease)),
    shape('shade', loop(at, sill)),
    shape('shade', loop(at, cladding)),
    shape('shade', loop(at, claddingRear)),
    shape('glass', loop(at, frontGlass), 'door-front-SIDE'),
    shape('glass', loop(at, rearGlass), 'door-rear-SIDE'),
    shape('glass', loop(at, quarterGlass)),
    shape('cut', loop(at, frontDoor), 'door-front-SIDE'),
    shape('cut', loop(at, rearDoor), 'door-rear-SIDE'),
    shape('opening', loop(at, frontDoor), 'door-front-SIDE'),
    shape('opening', loop(at, rearDoor), 'door-rear-SIDE'),
    shape('trim', loop(at, handle(p.pillarX + 0.06)), 'door-front-SIDE'),
    shape('trim', loop(at, handle(p.doorRearX + 0.06)), 'door-rear-SIDE'),
    shape(
      'cut',
      line(at, [
        [p.cowlX, p.beltZ],
        [p.noseX - 0.2, p.noseZ - 0.02],
      ]),
      'bonnet',
    ),
    shape(
      'cut',
      line(at, [
        [p.glassFootX, p.beltZ - 0.02],
        [p.hatchFootX + 0.06, p.bumperTopZ + 0.02],
      ]),
      'hatch',
    ),
    shape(
      'cut',
      line(at, [
        [p.tailX + 0.02, p.bumperTopZ - 0.01],
        [p.rearAxleX - arch - 0.07, p.bumperTopZ - 0.03],
      ]),
    ),
    shape(
      'cut',
      line(at, [
        [p.frontAxleX + arch + 0.07, p.bumperTopZ - 0.06],
        [p.noseX - 0.05, p.bumperTopZ - 0.05],
      ]),
    ),
    ...wheelAt(p.frontAxleX),
    ...wheelAt(p.rearAxleX),
    shape(
      'shade',
      loop(at, [
        [p.doorFrontX - 0.16, p.beltZ + 0.03],
        [p.doorFrontX - 0.02, p.beltZ],
        [p.doorFrontX + 0.02, p.beltZ + 0.08],
        [p.doorFrontX - 0.02, p.beltZ + 0.15],
        [p.doorFrontX - 0.15, p.beltZ + 0.14],
      ]),
      'door-front-SIDE',
    ),
  ];
}

function end(p: MidSuvPoints, view: 'front' | 'rear'): ArtShape[] {
  const at = penFor(1);
  const w = p.halfWidth;
  const shape = (kind: ArtShape['kind'], path: string, partId: string | null = null): ArtShape => ({
    view,
    kind,
    path,
    partId,
  });
  /** A loop that is its own mirror image: the right half, from the bottom centreline up. */
  const both = (half: readonly XY[]) =>
    loop(at, [...half, ...half.toReversed().map(([y, z]): XY => [-y, z])]);
  const band = (y0: number, y1: number, z0: number, z1: number) =>
    [1, -1].map((s) =>
      loop(at, [
        [s * y0, z0],
        [s * y1, z0],
        [s * y1, z1],
        [s * y0, z1],
      ]),
    );
  const tyres = band(w - 0.26, w - 0.02, 0, p.wheelRadius + 0.1).map((path) => shape('tyre', path));
  const body = shape(
    'body',
    both([
      [0, p.floorZ],
      [w - 0.2, p.floorZ],
      [w - 0.04, p.floorZ + 0.08],
      [w, 0.55],
      [w, p.beltZ - 0.16],
      [w - 0.03, p.beltZ],
      [p.railY + 0.025, p.railZ - 0.05],
      [p.railY - 0.03, p.railZ + 0.02],
      [p.railY - 0.2, p.roofZ - 0.01],
      [0, p.roofZ + 0.01],
    ]),
  );
  const bumper = both([
    [0, p.floorZ + 0.03],
    [w - 0.16, p.floorZ + 0.03],
    [w - 0.05, p.floorZ + 0.12],
    [w - 0.02, p.bumperTopZ - 0.06],
    [0, p.bumperTopZ - 0.03],
  ]);
  const glass = (foot: number, footZ: number, inset: number) =>
    both([
      [0, footZ],
      [foot, footZ + 0.02],
      [p.railY - inset, p.railZ - 0.035],
      [0, p.railZ - 0.02],
    ]);
  const mirrors = [1, -1].map((s) =>
    shape(
      'shade',
      loop(at, [
        [s * (w - 0.01), p.beltZ],
        [s * (w + 0.2), p.beltZ - 0.02],
        [s * (w + 0.24), p.beltZ + 0.05],
        [s * (w + 0.21), p.beltZ + 0.15],
        [s * (w + 0.04), p.beltZ + 0.14],
      ]),
      (s === 1) === (view === 'front') ? 'door-front-left' : 'door-front-right',
    ),
  );
  const plate = (z: number) =>
    loop(at, [
      [-0.26, z],
      [0.26, z],
      [0.26, z + 0.11],
      [-0.26, z + 0.11],
    ]);
  const under = shape(
    'shade',
    loop(at, [
      [-(w - 0.24), p.floorZ - 0.1],
      [w - 0.24, p.floorZ - 0.1],
      [w - 0.16, p.floorZ + 0.06],
      [-(w - 0.16), p.floorZ + 0.06],
    ]),
  );
  const bonnet = both([
    [0, p.noseZ],
    [w - 0.24, p.noseZ - 0.01],
    [w - 0.13, p.beltZ - 0.02],
    [0, p.beltZ],
  ]);
  const hatch = both([
    [0, p.bumperTopZ],
    [w - 0.15, p.bumperTopZ],
    [w - 0.15, p.beltZ - 0.02],
    [p.railY - 0.02, p.railZ],
    [0, p.railZ],
  ]);
  if (view === 'front') {
    const bars = [0.05, 0.1, 0.15].map((dz) =>
      shape(
        'cut',
        line(at, [
          [-0.54, p.noseZ - 0.2 + dz],
          [0.54, p.noseZ - 0.2 + dz],
        ]),
      ),
    );
    return [
      under,
      ...tyres,
      body,
      shape('glass', glass(w - 0.13, p.beltZ, 0.02)),
      shape('cut', bonnet, 'bonnet'),
      shape('opening', bonnet, 'bonnet'),
      shape(
        'shine',
        line(at, [
          [-0.5, p.noseZ + 0.02],
          [-0.42, p.beltZ - 0.02],
        ]),
        'bonnet',
      ),
      shape(
        'shine',
        line(at, [
          [0.5, p.noseZ + 0.02],
          [0.42, p.beltZ - 0.02],
        ]),
        'bonnet',
      ),
      shape(
        'shade',
        both([
          [0, p.noseZ - 0.21],
          [0.56, p.noseZ - 0.2],
          [0.6, p.noseZ - 0.04],
          [0, p.noseZ - 0.03],
        ]),
      ),
      ...bars,
      shape(
        'shade',
        both([
          [0, p.floorZ + 0.05],
          [0.5, p.floorZ + 0.05],
          [0.56, p.floorZ + 0.14],
          [0, p.floorZ + 0.14],
        ]),
      ),
      shape('cut', bumper),
      shape('trim', plate(0.42)),
      ...mirrors,
    ];
  }
  return [
    under,
    ...tyres,
    body,
    shape('cut', hatch, 'hatch'),
    shape('opening', hatch, 'hatch'),
    shape('glass', glass(w - 0.18, p.beltZ + 0.02, 0.06), 'hatch'),
    shape(
      'shade',
      both([
        [0, p.railZ - 0.02],
        [p.railY - 0.04, p.railZ - 0.04],
        [p.railY - 0.07, p.railZ + 0.035],
        [0, p.railZ + 0.05],
      ]),
      'hatch',
    ),
    shape(
      'shade',
      both([
        [0, p.floorZ + 0.03],
        [w - 0.16, p.floorZ + 0.03],
        [w - 0.1, p.floorZ + 0.12],
        [0, p.floorZ + 0.12],
      ]),
    ),
    shape('cut', bumper),
    shape(
      'shine',
      line(at, [
        [-0.7, p.beltZ - 0.02],
        [0.7, p.beltZ - 0.02],
      ]),
      'hatch',
    ),
    shape('trim', plate(p.beltZ - 0.22), 'hatch'),
    ...mirrors,
  ];
}

function plan(p: MidSuvPoints): ArtShape[] {
  const w = p.halfWidth;
  const at = penFor(1);
  const shape = (kind: ArtShape['kind'], path: string, partId: string | null = null): ArtShape => ({
    view: 'plan',
    kind,
    path,
    partId,
  });
  const both = (half: readonly XY[]) =>
    loop(at, [...half, ...half.toReversed().map(([x, y]): XY => [x, -y])]);
  const body = [
    `M${at(p.noseX, 0)}`,
    `C${at(p.noseX, 0.45)} ${at(p.noseX - 0.02, 0.62)} ${at(p.noseX - 0.16, w - 0.12)}`,
    `Q${at(p.noseX - 0.24, w - 0.01)} ${at(p.noseX - 0.5, w)}`,
    `L${at(p.tailX + 0.45, w)}`,
    `Q${at(p.tailX + 0.12, w - 0.01)} ${at(p.tailX + 0.06, w - 0.2)}`,
    `Q${at(p.tailX, 0.5)} ${at(p.tailX, 0)}`,
    `Q${at(p.tailX, -0.5)} ${at(p.tailX + 0.06, -(w - 0.2))}`,
    `Q${at(p.tailX + 0.12, -(w - 0.01))} ${at(p.tailX + 0.45, -w)}`,
    `L${at(p.noseX - 0.5, -w)}`,
    `Q${at(p.noseX - 0.24, -(w - 0.01))} ${at(p.noseX - 0.16, -(w - 0.12))}`,
    `C${at(p.noseX - 0.02, -0.62)} ${at(p.noseX, -0.45)} ${at(p.noseX, 0)}Z`,
  ].join('');
  const sideGlass = [1, -1].map((s) =>
    shape(
      'glass',
      loop(at, [
        [p.doorFrontX - 0.02, s * (w - 0.035)],
        [p.glassFootX + 0.28, s * (w - 0.035)],
        [p.roofRearX + 0.2, s * (p.railY + 0.02)],
        [p.roofFrontX - 0.08, s * (p.railY + 0.02)],
      ]),
    ),
  );
  const pillars = [1, -1].flatMap((s) =>
    [p.pillarX, p.doorRearX].map((x) =>
      shape(
        'body',
        loop(at, [
          [x - 0.05, s * (w - 0.03)],
          [x + 0.05, s * (w - 0.03)],
          [x + 0.05, s * p.railY],
          [x - 0.05, s * p.railY],
        ]),
      ),
    ),
  );
  const mirrors = [1, -1].map((s) =>
    shape(
      'shade',
      loop(at, [
        [p.doorFrontX - 0.02, s * (w - 0.01)],
        [p.doorFrontX + 0.01, s * (w + 0.1)],
        [p.doorFrontX - 0.01, s * (w + 0.23)],
        [p.doorFrontX - 0.13, s * (w + 0.24)],
        [p.doorFrontX - 0.11, s * (w + 0.02)],
      ]),
      s === 1 ? 'door-front-left' : 'door-front-right',
    ),
  );
  const lid = both([
    [p.cowlX + 0.04, 0.76],
    [p.noseX - 0.42, 0.72],
    [p.noseX - 0.16, 0.55],
  ]);
  return [
    ...mirrors,
    shape('body', body),
    shape('cut', lid, 'bonnet'),
    shape('opening', lid, 'bonnet'),
    shape(
      'shine',
      line(at, [
        [p.cowlX + 0.02, 0.42],
        [p.noseX - 0.22, 0.36],
      ]),
      'bonnet',
    ),
    shape(
      'shine',
      line(at, [
        [p.cowlX + 0.02, -0.42],
        [p.noseX - 0.22, -0.36],
      ]),
      'bonnet',
    ),
    shape(
      'glass',
      both([
        [p.cowlX, w - 0.12],
        [p.roofFrontX, p.railY - 0.02],
      ]),
    ),
    shape(
      'glass',
      both([
        [p.glassFootX - 0.01, w - 0.17],
        [p.roofRearX - 0.01, p.railY - 0.05],
      ]),
      'hatch',
    ),
    shape(
      'opening',
      both([
        [p.hatchFootX, w - 0.15],
        [p.roofRearX - 0.01, p.railY - 0.05],
      ]),
      'hatch',
    ),
    ...sideGlass,
    ...pillars,
    shape(
      'cut',
      both([
        [p.roofFrontX, p.railY - 0.02],
        [p.roofFrontX - 0.1, p.railY],
        [p.roofRearX + 0.1, p.railY],
        [p.roofRearX, p.railY - 0.05],
      ]),
    ),
    shape(
      'shine',
      line(at, [
        [p.roofFrontX - 0.25, p.railY - 0.08],
        [p.roofRearX + 0.25, p.railY - 0.08],
      ]),
    ),
    shape(
      'shine',
      line(at, [
        [p.roofFrontX - 0.25, -(p.railY - 0.08)],
        [p.roofRearX + 0.25, -(p.railY - 0.08)],
      ]),
    ),
  ];
}
