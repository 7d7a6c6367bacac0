import { turnAbout } from '../../../geometry/frame.ts';
import { box } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { onSides, onView, rect } from '../../picture/pen.ts';
import { acrossRect, alongRect, assemble, keepOut, lampPair, mirrored, part } from '../assembly.ts';
import type { Stations } from '../dimension.ts';
import { zone, zonePair } from '../zone.ts';
import { plate, rearBumper } from './rearBumper.ts';

/** Room between cab and bed, m. */
const GAP_M = 0.04;

/** Measures that several of its functions need. */
const bedMeasures = (s: Stations) => {
  const w = s.halfWidth;
  const x0 = s.tailX + 0.06;
  const x1 = s.cabRearX - GAP_M;
  const floorZ = s.sillZ + 0.2;
  const behindArchX = s.rearAxleX - s.wheelRadius - 0.04;
  const quarterM = Math.min(0.6, behindArchX - x0 - 0.06);
  return { w, x0, x1, floorZ, behindArchX, quarterM };
};
type BedMeasures = ReturnType<typeof bedMeasures>;

/** An open bed with its tailgate. */
export function bed(s: Stations, bedZ: number): Assembly {
  const m = bedMeasures(s);
  const { w, x0, x1, floorZ } = m;
  const gate = { partId: 'tailgate' };
  return assemble(
    {
      parts: [part('tailgate', 'Tailgate', 'tailgate', turnAbout([x0, 0, floorZ], [0, 1, 0], -90))],
      solids: [
        box('bed-floor', [x0, -(w - 0.08), floorZ - 0.06], [x1, w - 0.08, floorZ]),
        box('bed-front', [x1 - 0.05, -(w - 0.08), floorZ], [x1, w - 0.08, bedZ]),
        box('tailgate', [x0, -(w - 0.14), floorZ], [x0 + 0.06, w - 0.14, bedZ], gate),
        ...mirrored([box('bed-side-left', [x0, w - 0.09, s.floorZ + 0.14], [x1, w, bedZ])]),
      ],
      zones: bedZones(bedZ, m),
      factoryLamps: bedLamps(bedZ, m),
      keepOuts: [
        keepOut(
          'Tailgate handle',
          'latch',
          box('latch', [x0 - 0.05, -0.14, bedZ - 0.2], [x0 + 0.06, 0.14, bedZ - 0.06], gate),
        ),
      ],
      art: bedArt(s, bedZ, m),
    },
    plate(s.tailX, s.floorZ + 0.16, null),
    rearBumper(s),
    {
      art: onView('rear', (b) => [
        b.fill('trim', rect(-w + 0.08, w - 0.08, s.bumperTopZ - 0.2, s.bumperTopZ - 0.02, 0.04)),
      ]),
    },
  );
}

function bedZones(bedZ: number, { w, x0, x1, behindArchX, quarterM }: BedMeasures): Assembly['zones'] {
  return [
    ...zonePair({
      id: 'quarter-left',
      name: 'Bed side left',
      face: 'left',
      mount: 'panel',
      centre: [behindArchX - quarterM / 2, w + 0.002, bedZ - 0.2],
      n: [0, 1, 0],
      widthM: quarterM,
      heightM: 0.14,
      behind: 'Single-wall bed side',
      singleWall: true,
    }),
    ...zonePair({
      id: 'bed-rail-left',
      name: 'Bed rail left',
      face: 'left',
      mount: 'panel',
      centre: [(x0 + x1) / 2, w + 0.002, bedZ - 0.045],
      n: [0, 1, 0],
      widthM: x1 - x0 - 0.3,
      heightM: 0.07,
      behind: 'Rail of the bed, two skins',
    }),
    ...zonePair({
      id: 'tailgate-left',
      name: 'Tailgate left',
      face: 'rear',
      mount: 'panel',
      partId: 'tailgate',
      centre: [x0 - 0.002, 0.44, bedZ - 0.14],
      n: [-1, 0, 0],
      widthM: 0.4,
      heightM: 0.14,
      behind: 'Double-wall tailgate; latch rods inside',
    }),
  ];
}

function bedLamps(bedZ: number, { w, x0 }: BedMeasures): Assembly['factoryLamps'] {
  return [
    ...lampPair(
      'tail-left',
      'Left tail and stop lamp',
      'stop',
      acrossRect(x0 - 0.01, w - 0.15, w - 0.01, bedZ - 0.3, bedZ - 0.04),
    ),
    ...lampPair(
      'turn-rear-left',
      'Left rear turn signal',
      'turn',
      acrossRect(x0 - 0.012, w - 0.15, w - 0.01, bedZ - 0.42, bedZ - 0.31),
    ),
    ...lampPair(
      'tail-side-left',
      'Left tail lamp, side',
      'tail',
      alongRect(w + 0.001, x0, x0 + 0.09, bedZ - 0.42, bedZ - 0.04),
    ),
  ];
}

function bedArt(s: Stations, bedZ: number, { w, x0, x1, floorZ }: BedMeasures): Assembly['art'] {
  return [
    ...onSides((b) => [
      b.fill('body', [
        [x0, s.floorZ + 0.16, 0.06],
        [x0 - 0.01, bedZ, 0.04],
        [x1, bedZ, 0.02],
        [x1, s.floorZ + 0.02, 0.03],
        [x0 + 0.25, s.floorZ + 0.02, 0.1],
      ]),
      b.stroke('shine', [
        [x0 + 0.15, bedZ - 0.09],
        [x1 - 0.05, bedZ - 0.09],
      ]),
    ]),
    ...onView('rear', (b) => [
      b.fill('body', rect(-w + 0.01, w - 0.01, s.floorZ + 0.05, bedZ, 0.05)),
      b.fill('opening', rect(-(w - 0.16), w - 0.16, floorZ, bedZ), 'tailgate'),
      b.fill('body', rect(-(w - 0.16), w - 0.16, floorZ, bedZ, 0.02), 'tailgate'),
      b.fill('shade', rect(-0.13, 0.13, bedZ - 0.17, bedZ - 0.09, 0.02), 'tailgate'),
      b.stroke('cut', [
        [-(w - 0.16), floorZ],
        [w - 0.16, floorZ],
      ]),
    ]),
    ...onView('plan', (b) => [
      b.fill('body', rect(x0, x1, -w, w, 0.05)),
      b.fill('shade', rect(x0 + 0.07, x1 - 0.05, -(w - 0.09), w - 0.09, 0.02)),
      ...[-0.5, -0.25, 0, 0.25, 0.5].map((y) =>
        b.stroke('cut', [
          [x0 + 0.1, y],
          [x1 - 0.08, y],
        ]),
      ),
    ]),
  ];
}

/** Measures that several of its functions need. */
const canopyMeasures = (s: Stations) => {
  const w = s.halfWidth - 0.03;
  const x0 = s.tailX + 0.1;
  const x1 = s.cabRearX - GAP_M - 0.02;
  const topY = w - 0.14;
  return { w, x0, x1, topY };
};
type CanopyMeasures = ReturnType<typeof canopyMeasures>;

/** A canopy over the bed with side glass and a lifting rear window. */
export function canopy(s: Stations, bedZ: number, topZ: number): Assembly {
  const m = canopyMeasures(s);
  const { w, x0, x1, topY } = m;
  const rear = { partId: 'canopy-door' };
  return assemble({
    parts: [
      part(
        'canopy-door',
        'Canopy rear window',
        'hatch',
        turnAbout([x0 + 0.03, 0, topZ - 0.08], [0, 1, 0], 80),
      ),
    ],
    solids: [
      box('canopy-roof', [x0, -topY, topZ - 0.06], [x1, topY, topZ]),
      box('canopy-front', [x1 - 0.05, -topY, bedZ], [x1, topY, topZ - 0.06]),
      box('canopy-door', [x0, -(w - 0.12), bedZ + 0.01], [x0 + 0.03, w - 0.12, topZ - 0.08], {
        ...rear,
        transmission: 0.25,
      }),
      ...mirrored([
        box('canopy-side-left', [x0, topY - 0.02, bedZ], [x1, topY + 0.02, topZ - 0.06], {
          transmission: 0.25,
        }),
      ]),
    ],
    zones: canopyZones(topZ, m),
    art: canopyArt(bedZ, topZ, m),
  });
}

function canopyZones(topZ: number, { x0, x1, topY }: CanopyMeasures): Assembly['zones'] {
  return [
    zone({
      id: 'canopy-roof',
      name: 'Canopy roof',
      face: 'top',
      mount: 'roof',
      centre: [(x0 + x1) / 2, 0, topZ + 0.002],
      n: [0, 0, 1],
      widthM: 2 * topY - 0.1,
      heightM: 0.6,
      behind: 'Canopy roof, glass fibre: spreader plate inside',
    }),
    ...zonePair({
      id: 'canopy-side-left',
      name: 'Canopy side left',
      face: 'left',
      mount: 'panel',
      centre: [(x0 + x1) / 2, topY + 0.024, topZ - 0.12],
      n: [0, 1, 0],
      widthM: x1 - x0 - 0.3,
      heightM: 0.1,
      behind: 'Canopy frame above the side glass',
    }),
    zone({
      id: 'canopy-rear-top',
      name: 'Canopy rear, top',
      face: 'rear',
      mount: 'panel',
      centre: [x0 - 0.002, 0, topZ - 0.035],
      n: [-1, 0, 0],
      widthM: 2 * topY - 0.1,
      heightM: 0.06,
      behind: 'Canopy roof edge over the rear window',
    }),
    zone({
      id: 'canopy-rear-glass',
      name: 'Canopy rear glass',
      face: 'rear',
      mount: 'glass',
      partId: 'canopy-door',
      centre: [x0 + 0.07, 0, topZ - 0.2],
      n: [-1, 0, 0],
      widthM: 1.2,
      heightM: 0.16,
      behind: 'Inside the canopy’s rear window',
    }),
  ];
}

function canopyArt(bedZ: number, topZ: number, { w, x0, x1, topY }: CanopyMeasures): Assembly['art'] {
  return [
    ...onSides((b) => [
      b.fill('body', [
        [x0, bedZ, 0.02],
        [x0 + 0.06, topZ, 0.1],
        [x1, topZ, 0.04],
        [x1, bedZ, 0.02],
      ]),
      b.fill('glass', [
        [x0 + 0.16, bedZ + 0.08, 0.05],
        [x0 + 0.2, topZ - 0.19, 0.05],
        [x1 - 0.12, topZ - 0.19, 0.05],
        [x1 - 0.12, bedZ + 0.08, 0.05],
      ]),
      b.stroke('cut', [
        [(x0 + x1) / 2, bedZ + 0.08],
        [(x0 + x1) / 2, topZ - 0.19],
      ]),
    ]),
    ...onView('rear', (b) => [
      b.fill('body', [
        [-w, bedZ],
        [-topY, topZ, 0.12],
        [topY, topZ, 0.12],
        [w, bedZ],
      ]),
      b.fill('opening', rect(-(w - 0.16), w - 0.16, bedZ + 0.03, topZ - 0.09), 'canopy-door'),
      b.fill(
        'glass',
        [
          [-(w - 0.14), bedZ + 0.03, 0.05],
          [-(topY - 0.08), topZ - 0.09, 0.06],
          [topY - 0.08, topZ - 0.09, 0.06],
          [w - 0.14, bedZ + 0.03, 0.05],
        ],
        'canopy-door',
      ),
    ]),
    ...onView('plan', (b) => [
      b.fill('body', rect(x0, x1, -topY, topY, 0.08)),
      ...[-0.5, 0, 0.5].map((y) =>
        b.stroke('shine', [
          [x0 + 0.15, y],
          [x1 - 0.1, y],
        ]),
      ),
    ]),
  ];
}
