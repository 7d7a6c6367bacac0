import { extrudeAcross, box, type Solid } from '../../geometry/solid.ts';
import type { Assembly } from '../types.ts';
import { arc, onSides, onView, rect, type XYR } from '../picture/pen.ts';
import { mirrored } from './assembly.ts';
import type { Stations } from './dimension.ts';

/** Room between tyre and wheel arch, m. */
const ARCH_M = 0.065;

/** The dark wheel-houses, to be painted over the body's flank and under the wheels. */
export const wheelHouses = (s: Stations): Partial<Assembly> => ({
  art: onSides((b) =>
    [s.frontAxleX, s.rearAxleX].map((x) =>
      b.fill('shade', arc(x, s.wheelRadius, s.wheelRadius + ARCH_M, -12, 192)),
    ),
  ),
});

/** Wheels on both axles; `dual` has twin wheels at the rear. */
export function wheels(s: Stations, { dual = false, outerY = s.halfWidth } = {}): Partial<Assembly> {
  const drums = [
    wheel('wheel-front-left', s.frontAxleX, s.wheelRadius, s.halfWidth - 0.25, s.halfWidth - 0.01),
    wheel('wheel-rear-left', s.rearAxleX, s.wheelRadius, outerY - (dual ? 0.52 : 0.25), outerY - 0.01),
  ];
  return {
    solids: mirrored(drums),
    art: onSides((b) =>
      [s.frontAxleX, s.rearAxleX].flatMap((x, i) => {
        const r = s.wheelRadius;
        const hub = i === 1 && dual ? 0.5 : 0.64;
        const spoke = (deg: number): XYR[] => [
          [x + 0.16 * r * Math.cos(deg), r + 0.16 * r * Math.sin(deg)],
          [x + (hub - 0.04) * r * Math.cos(deg), r + (hub - 0.04) * r * Math.sin(deg)],
        ];
        return [
          b.fill('tyre', arc(x, r, r, 0, 360, 40)),
          b.fill('rim', arc(x, r, r * hub, 0, 360, 32)),
          ...[0, 1, 2, 3, 4].map((k) => b.stroke('cut', spoke((k * 2 * Math.PI) / 5 + Math.PI / 2))),
          b.fill('shade', arc(x, r, r * 0.15, 0, 360, 16)),
        ];
      }),
    ),
  };
}

/** The tyres as seen from before and behind, to be painted before the body. */
export function tyres(s: Stations, { dual = false, outerY = s.halfWidth } = {}): Partial<Assembly> {
  const pair = (outer: number, inner: number): XYR[][] =>
    [1, -1].map((k) => rect(k * inner, k * outer, 0, s.wheelRadius + 0.12, 0.05));
  return {
    art: [
      ...onView('front', (b) => pair(s.halfWidth - 0.03, s.halfWidth - 0.27).map((p) => b.fill('tyre', p))),
      ...onView('rear', (b) =>
        pair(outerY - 0.03, outerY - (dual ? 0.52 : 0.27)).map((p) => b.fill('tyre', p)),
      ),
    ],
  };
}

/** A wheel as a twelve-sided drum. */
function wheel(id: string, axleX: number, radius: number, y0: number, y1: number): Solid {
  const rim = Array.from({ length: 12 }, (_, i): [number, number] => {
    const a = ((i + 0.5) * Math.PI) / 6;
    return [axleX + radius * Math.cos(a), radius * (1 + Math.sin(a))];
  });
  return extrudeAcross(id, rim, y0, y1);
}

/** The chassis rails of a truck behind its cab, with tank and steps as they show. */
export const chassis = (s: Stations): Partial<Assembly> => ({
  solids: [
    box(
      'chassis',
      [s.tailX + 0.05, -0.45, s.wheelRadius + 0.1],
      [s.cabRearX, 0.45, Math.max(s.sillZ - 0.02, s.wheelRadius + 0.14)],
    ),
  ],
  art: [
    ...onSides((b) => [
      b.fill('shade', rect(s.tailX + 0.05, s.cabRearX + 0.3, s.wheelRadius + 0.14, s.sillZ, 0.02)),
    ]),
    ...onView('rear', (b) => [b.fill('shade', rect(-0.5, 0.5, s.wheelRadius + 0.05, s.sillZ, 0.02))]),
  ],
});
