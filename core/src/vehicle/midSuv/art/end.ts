import type { ArtShape } from '../../types.ts';
import type { MidSuvPoints } from '../points.ts';
import { line, loop, penFor, type XY } from './pen.ts';

/** The front or the rear as seen from before or behind. */
export function end(p: MidSuvPoints, view: 'front' | 'rear'): ArtShape[] {
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
