import type { ArtShape } from '../../types.ts';
import type { MidSuvPoints } from '../points.ts';
import { arc, line, loop, type Pen, type XY } from './pen.ts';

/** Room between tyre and wheel arch, m. */
const ARCH_M = 0.065;

/** A side as seen from beside the vehicle; the pen turns stations into the view's coordinates. */
export function side(p: MidSuvPoints, view: 'left' | 'right', at: Pen): ArtShape[] {
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
