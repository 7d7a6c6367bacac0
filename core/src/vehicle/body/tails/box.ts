import { turnAbout } from '../../../geometry/frame.ts';
import { box } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { onSides, onView, rect } from '../../picture/pen.ts';
import { acrossRect, assemble, doorPair, lampPair, mirrored, part } from '../assembly.ts';
import { barnDoorOutline, barnDoors, shutterPair, wallWith, type Opening } from '../openings.ts';
import { zone, zonePair } from '../zone.ts';
import { plate } from './rearBumper.ts';

export interface BoxBody {
  /** Rear and front wall, m. */
  readonly x0: number;
  readonly x1: number;
  /** Half-width. */
  readonly y: number;
  /** Underside of the skirt, the floor, and the top. */
  readonly skirtZ: number;
  readonly floorZ: number;
  readonly topZ: number;
  /** Compartments on both flanks behind shutters, named by where they are. */
  readonly compartments: readonly (Opening & { readonly id: string; readonly name: string })[];
  /** A hinged door for people in each flank. */
  readonly sideDoor: Opening | null;
  readonly rear: 'barn' | 'roller' | 'step door';
  /** Open at the top, as a hose bed. */
  readonly open?: boolean;
}

/** Measures that several of its functions need. */
const boxMeasures = (b: BoxBody) => {
  const openings = [...b.compartments, ...(b.sideDoor === null ? [] : [b.sideDoor])];
  const inside = b.y - 0.12;
  const width = b.x1 - b.x0;
  const lampZ = b.skirtZ + 0.24;
  return { openings, inside, width, lampZ };
};
type BoxMeasures = ReturnType<typeof boxMeasures>;

/** A box on a chassis: walls with compartments, a door in each flank, a rear, lamps and zones all round. */
export function boxBody(b: BoxBody): Assembly {
  const m = boxMeasures(b);
  const { inside, lampZ } = m;
  return assemble(
    {
      solids: boxSolids(b, m),
      zones: boxZones(b, m),
      factoryLamps: boxLamps(b, m),
      art: boxArt(b, m),
    },
    plate(b.x0 - 0.02, lampZ - 0.12, null, b.y - 0.55),
    ...b.compartments.map((c) => shutterPair(c.id, c.name, b.y, c)),
    b.sideDoor === null ? {} : sideDoor(b.y, b.sideDoor),
    rearOf(b, inside),
  );
}

function boxSolids(b: BoxBody, { openings, inside }: BoxMeasures): Assembly['solids'] {
  return [
    box('box-floor', [b.x0, -b.y + 0.06, b.floorZ - 0.08], [b.x1, b.y - 0.06, b.floorZ]),
    box('box-front', [b.x1 - 0.05, -b.y, b.floorZ], [b.x1, b.y, b.topZ]),
    ...(b.open === true ? [] : [box('box-roof', [b.x0, -b.y, b.topZ - 0.05], [b.x1, b.y, b.topZ])]),
    ...mirrored(
      wallWith(
        'box-side-left',
        b.y,
        { x0: b.x0, x1: b.x1, z0: b.skirtZ, z1: b.topZ - (b.open === true ? 0 : 0.05) },
        openings,
      ),
    ),
    ...mirrored([
      box('box-corner-left', [b.x0, b.y - 0.12, b.skirtZ], [b.x0 + 0.06, b.y - 0.06, b.topZ - 0.05]),
    ]),
    box('box-lintel', [b.x0, -inside, b.topZ - 0.3], [b.x0 + 0.06, inside, b.topZ - 0.05]),
    box('rear-step', [b.x0 - 0.02, -inside, b.skirtZ], [b.x0 + 0.1, inside, b.skirtZ + 0.14]),
  ];
}

function boxZones(b: BoxBody, { width }: BoxMeasures): Assembly['zones'] {
  return [
    ...zonePair({
      id: 'box-upper-left',
      name: 'Box upper left',
      face: 'left',
      mount: 'panel',
      centre: [(b.x0 + b.x1) / 2, b.y + 0.002, b.topZ - 0.14],
      n: [0, 1, 0],
      widthM: width - 0.3,
      heightM: 0.2,
      behind: 'Box wall, skin on frame: rivet nuts, wire in the roof channel',
    }),
    ...zonePair({
      id: 'box-lower-left',
      name: 'Box skirt left',
      face: 'left',
      mount: 'panel',
      centre: [(b.x0 + b.x1) / 2, b.y + 0.002, b.skirtZ + 0.09],
      n: [0, 1, 0],
      widthM: width - 0.3,
      heightM: 0.12,
      behind: 'Skirt under the floor: spray, corrosion protection at every hole',
    }),
    zone({
      id: 'box-front-upper',
      name: 'Box front, over the cab',
      face: 'front',
      mount: 'panel',
      centre: [b.x1 + 0.002, 0, b.topZ - 0.14],
      n: [1, 0, 0],
      widthM: 2 * b.y - 0.2,
      heightM: 0.2,
      behind: 'Front wall of the box over the cab',
    }),
    zone({
      id: 'box-rear-upper',
      name: 'Box rear, top',
      face: 'rear',
      mount: 'panel',
      centre: [b.x0 - 0.002, 0, b.topZ - 0.14],
      n: [-1, 0, 0],
      widthM: 2 * b.y - 0.2,
      heightM: 0.2,
      behind: 'Lintel over the rear opening',
    }),
    ...zonePair({
      id: 'box-rear-post-left',
      name: 'Box rear post left',
      face: 'rear',
      mount: 'panel',
      centre: [b.x0 - 0.002, b.y - 0.065, (b.skirtZ + b.topZ) / 2],
      n: [-1, 0, 0],
      widthM: 0.12,
      heightM: (b.topZ - b.skirtZ) * 0.5,
      behind: 'Corner post of the rear frame',
    }),
    ...zonePair({
      id: 'rear-step-left',
      name: 'Rear step left',
      face: 'rear',
      mount: 'panel',
      centre: [b.x0 - 0.022, b.y - 0.4, b.skirtZ + 0.07],
      n: [-1, 0, 0],
      widthM: 0.5,
      heightM: 0.12,
      behind: 'Rear step, aluminium tread plate',
    }),
    ...(b.open === true
      ? []
      : [
          zone({
            id: 'box-roof',
            name: 'Box roof',
            face: 'top',
            mount: 'roof',
            centre: [b.x0 + Math.min(0.6, width / 2), 0, b.topZ + 0.002],
            n: [0, 0, 1],
            widthM: 2 * b.y - 0.3,
            heightM: 0.6,
            behind: 'Roof skin at the rear of the box; one cable gland',
          }),
          zone({
            id: 'box-roof-front',
            name: 'Box roof, front',
            face: 'top',
            mount: 'roof',
            centre: [b.x1 - Math.min(0.5, width / 3), 0, b.topZ + 0.002],
            n: [0, 0, 1],
            widthM: 2 * b.y - 0.3,
            heightM: 0.6,
            behind: 'Roof skin at the front of the box; one cable gland',
          }),
        ]),
  ];
}

function boxLamps(b: BoxBody, { lampZ }: BoxMeasures): Assembly['factoryLamps'] {
  return [
    ...lampPair(
      'tail-left',
      'Left tail and stop lamp',
      'stop',
      acrossRect(b.x0 - 0.025, b.y - 0.2, b.y - 0.04, lampZ, lampZ + 0.14),
    ),
    ...lampPair(
      'turn-rear-left',
      'Left rear turn signal',
      'turn',
      acrossRect(b.x0 - 0.025, b.y - 0.2, b.y - 0.04, lampZ + 0.16, lampZ + 0.24),
    ),
    ...lampPair(
      'reverse-left',
      'Left reversing lamp',
      'reverse',
      acrossRect(b.x0 - 0.025, b.y - 0.2, b.y - 0.04, lampZ - 0.1, lampZ - 0.02),
    ),
  ];
}

function boxArt(b: BoxBody, { inside, width }: BoxMeasures): Assembly['art'] {
  return [
    ...onView('front', (p) => [p.fill('body', rect(-b.y, b.y, b.skirtZ, b.topZ, 0.08))]),
    ...onSides((p) => [
      p.fill('body', rect(b.x0, b.x1, b.skirtZ, b.topZ, 0.05)),
      p.stroke('shine', [
        [b.x0 + 0.08, b.topZ - 0.05],
        [b.x1 - 0.08, b.topZ - 0.05],
      ]),
      p.stroke('cut', [
        [b.x0 + 0.02, b.floorZ - 0.02],
        [b.x1 - 0.02, b.floorZ - 0.02],
      ]),
    ]),
    ...onView('rear', (p) => [
      p.fill('body', rect(-b.y, b.y, b.skirtZ, b.topZ, 0.06)),
      p.fill('shade', rect(-inside, inside, b.skirtZ, b.skirtZ + 0.14, 0.02)),
    ]),
    ...onView('plan', (p) => [
      p.fill('body', rect(b.x0, b.x1, -b.y, b.y, 0.06)),
      ...(b.open === true
        ? [
            p.fill('shade', rect(b.x0 + 0.15, b.x1 - 0.1, -b.y + 0.42, b.y - 0.42, 0.03)),
            ...[-0.3, 0, 0.3].map((y) =>
              p.stroke('cut', [
                [b.x0 + 0.18, y],
                [b.x1 - 0.14, y],
              ]),
            ),
          ]
        : [
            p.fill('cut', rect(b.x0 + 0.06, b.x1 - 0.06, -b.y + 0.06, b.y - 0.06, 0.05)),
            ...[0.25, 0.5, 0.75].map((k) =>
              p.stroke('shine', [
                [b.x0 + width * k, -b.y + 0.12],
                [b.x0 + width * k, b.y - 0.12],
              ]),
            ),
          ]),
    ]),
  ];
}

/** A hinged door in each flank, with a window. */
function sideDoor(y: number, o: Opening): Assembly {
  const id = 'door-side-left';
  const midZ = o.z0 + (o.z1 - o.z0) * 0.55;
  return assemble({
    parts: doorPair(id, 'Side left door', [o.x1, y, 0], -90),
    solids: mirrored([
      box(`${id}-panel`, [o.x0, y - 0.05, o.z0], [o.x1, y - 0.005, midZ], { partId: id }),
      box(`${id}-glass`, [o.x0, y - 0.03, midZ], [o.x1, y - 0.024, o.z1], { partId: id, transmission: 0.25 }),
    ]),
    art: onSides((p) => [
      p.fill('opening', rect(o.x0, o.x1, o.z0, o.z1, 0.04), id),
      p.fill('cut', rect(o.x0, o.x1, o.z0, o.z1, 0.04), id),
      p.fill('glass', rect(o.x0 + 0.1, o.x1 - 0.1, midZ + 0.02, o.z1 - 0.12, 0.05), id),
      p.fill('trim', rect(o.x0 + 0.05, o.x0 + 0.08, midZ - 0.22, midZ - 0.04, 0.01), id),
    ]),
  });
}

function rearOf(b: BoxBody, inside: number): Assembly {
  const z0 = b.skirtZ + 0.16;
  const z1 = b.topZ - 0.3;
  switch (b.rear) {
    case 'barn':
      return assemble(barnDoors(b.x0 - 0.02, inside, b.floorZ, z1), {
        art: onView('rear', (p) =>
          (['left', 'right'] as const).flatMap((side) => {
            const id = `barn-door-${side}`;
            const leaf = barnDoorOutline(side, inside, b.floorZ, z1);
            const sign = side === 'left' ? -1 : 1;
            return [
              p.fill('opening', leaf, id),
              p.fill('cut', leaf, id),
              p.fill(
                'glass',
                rect(sign * 0.16, sign * (inside - 0.16), b.floorZ + (z1 - b.floorZ) * 0.57, z1 - 0.16, 0.05),
                id,
              ),
              p.fill('trim', rect(sign * 0.04, sign * 0.07, b.floorZ + 0.5, b.floorZ + 0.75, 0.01), id),
            ];
          }),
        ),
      });
    case 'roller':
      return assemble({
        parts: [
          part('rear-shutter', 'Rear shutter', 'shutter', turnAbout([b.x0 + 0.02, 0, z1], [0, 1, 0], -90)),
        ],
        solids: [
          box('rear-shutter', [b.x0, -inside, z0], [b.x0 + 0.03, inside, z1], { partId: 'rear-shutter' }),
        ],
        art: onView('rear', (p) => [
          p.fill('opening', rect(-inside, inside, z0, z1), 'rear-shutter'),
          p.fill('shade', rect(-inside, inside, z0, z1, 0.02), 'rear-shutter'),
          ...Array.from({ length: Math.floor((z1 - z0) / 0.16) }, (_, i) => z0 + (i + 1) * 0.16).map((z) =>
            p.stroke(
              'cut',
              [
                [-inside + 0.03, z],
                [inside - 0.03, z],
              ],
              'rear-shutter',
            ),
          ),
        ]),
      });
    case 'step door': {
      const id = 'door-rear';
      const half = 0.42;
      return assemble({
        parts: [part(id, 'Rear door', 'door', turnAbout([b.x0, half, 0], [0, 0, 1], -100))],
        solids: [
          box('rear-wall-left', [b.x0, half, z0], [b.x0 + 0.05, inside, z1]),
          box('rear-wall-right', [b.x0, -inside, z0], [b.x0 + 0.05, -half, z1]),
          box('door-rear', [b.x0, -half + 0.01, z0], [b.x0 + 0.04, half - 0.01, z1], { partId: id }),
        ],
        art: onView('rear', (p) => [
          p.fill('opening', rect(-half, half, z0, z1, 0.03), id),
          p.fill('cut', rect(-half, half, z0, z1, 0.03), id),
          p.fill('glass', rect(-half + 0.12, half - 0.12, z0 + (z1 - z0) * 0.6, z1 - 0.12, 0.05), id),
          p.fill('trim', rect(half - 0.1, half - 0.07, z0 + 0.5, z0 + 0.8, 0.01), id),
          ...[1, 2, 3].map((k) =>
            p.fill('shade', rect(-inside + 0.08, -half - 0.1, z0 + 0.1 + k * 0.35, z0 + 0.13 + k * 0.35)),
          ),
        ]),
      });
    }
  }
}
