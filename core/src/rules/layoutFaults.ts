import { housingCorners, placeFixture, type PlacedFixture } from '../build/place.ts';
import type { Build, Placement } from '../build/schema.ts';
import { dot, length, sub } from '../geometry/vec.ts';
import { overlapDepthM } from '../geometry/overlap.ts';
import { channelIdOf } from '../timing/drive.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import type { Fault } from './finding.ts';

/** Housings may touch, and a tape measure is not finer than this, m. */
const TOUCH_M = 0.001;

const mm = (m: number): string => String(Math.ceil(m * 1000 - 1e-6));

interface Standing {
  readonly p: Placement;
  readonly placed: PlacedFixture;
}

const evidence = (...placements: readonly Placement[]): Fault['evidence'] => ({
  state: null,
  channelIds: placements.flatMap((p) => p.modules.map((m) => channelIdOf(p.id, m.id, 1))),
  sectors: [],
});

/** Lamps that stand in each other, whatever zones they are on. */
export function overlapFaults(build: Build): Fault[] {
  const boxes = stand(build).map(({ p, placed }) => {
    const corners = housingCorners(placed);
    const radiusM = Math.max(...corners.map((corner) => length(sub(corner, placed.base))));
    const edges = [placed.frame.aim, placed.frame.right, placed.frame.up] as const;
    return { p, base: placed.base, radiusM, corners, edges };
  });
  return boxes.flatMap((a, i) =>
    boxes.slice(i + 1).flatMap((b) => {
      const farApart = length(sub(a.base, b.base)) > a.radiusM + b.radiusM;
      const depth = farApart ? 0 : overlapDepthM(a, b);
      if (depth <= TOUCH_M) return [];
      return [
        {
          sentence: `"${a.p.label}" and "${b.p.label}" stand in each other by ${mm(depth)} mm.`,
          figure: { value: depth * 1000, unit: 'mm' as const },
          limits: [{ value: TOUCH_M * 1000, unit: 'mm' as const, sense: 'at most' as const }],
          evidence: evidence(a.p, b.p),
        },
      ];
    }),
  );
}

/** Lamps whose housing reaches over the edge of their zone, as after a roll or a change of measures. */
export function offZoneFaults(build: Build): Fault[] {
  return stand(build).flatMap(({ p, placed }) => {
    const { zone } = placed;
    const over = Math.max(
      ...housingCorners(placed).flatMap((corner) => {
        const from = sub(corner, zone.centre);
        return [
          Math.abs(dot(from, zone.u)) - zone.widthM / 2,
          Math.abs(dot(from, zone.v)) - zone.heightM / 2,
        ];
      }),
    );
    // Turning a head aside swings its corners a little past the edge without moving its foot.
    if (p.panDeg !== 0 || p.tiltDeg !== 0 || over <= TOUCH_M) return [];
    return [
      {
        sentence: `"${p.label}" reaches ${mm(over)} mm over the edge of its zone, ${zone.name}.`,
        figure: { value: over * 1000, unit: 'mm' as const },
        limits: [{ value: TOUCH_M * 1000, unit: 'mm' as const, sense: 'at most' as const }],
        evidence: evidence(p),
      },
    ];
  });
}

function stand(build: Build): Standing[] {
  const vehicle = vehicleOf(build.vehicle);
  return build.placements.map((p) => ({ p, placed: placeFixture(vehicle, p, new Set()) }));
}
