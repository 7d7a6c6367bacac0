import type { ArtShape } from '../../types.ts';
import type { MidSuvPoints } from '../points.ts';
import { line, loop, penFor, type XY } from './pen.ts';

/** The vehicle from above, its front to the right. */
export function plan(p: MidSuvPoints): ArtShape[] {
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
