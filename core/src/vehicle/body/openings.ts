import { turnAbout } from '../../geometry/frame.ts';
import { box, type Solid } from '../../geometry/solid.ts';
import type { Assembly, MovingPart, PartPosition } from '../types.ts';
import { onSides, rect, type XYR } from '../picture/pen.ts';
import { assemble, mirrored, partPair, part } from './assembly.ts';
import { PANEL_M } from './surfaces.ts';
import { zonePair } from './zone.ts';

/** A rectangular opening in a flank: stations and heights, m. */
export interface Opening {
  readonly x0: number;
  readonly x1: number;
  readonly z0: number;
  readonly z1: number;
}

/** The left flank as a wall with openings cut out; the openings must not overlap along x. */
export function wallWith(id: string, y: number, wall: Opening, openings: readonly Opening[]): Solid[] {
  const slab = (name: string, x0: number, x1: number, z0: number, z1: number): Solid[] =>
    x1 - x0 < 0.01 || z1 - z0 < 0.01 ? [] : [box(`${id}-${name}`, [x0, y - PANEL_M, z0], [x1, y, z1])];
  const sorted = openings.toSorted((a, b) => a.x0 - b.x0);
  let from = wall.x0;
  const pieces = sorted.flatMap((o, i) => {
    const before = slab(`post-${i}`, from, o.x0, wall.z0, wall.z1);
    from = o.x1;
    return [
      ...before,
      ...slab(`below-${i}`, o.x0, o.x1, wall.z0, o.z0),
      ...slab(`above-${i}`, o.x0, o.x1, o.z1, wall.z1),
    ];
  });
  return [...pieces, ...slab('post-end', from, wall.x1, wall.z0, wall.z1)];
}

/** Roller shutters on both flanks over a compartment; open they lie under the compartment's roof. */
export function shutterPair(id: string, name: string, y: number, o: Opening): Assembly {
  const leftId = `shutter-${id}-left`;
  const slats = Math.floor((o.z1 - o.z0) / 0.11);
  return assemble({
    parts: partPair(part(leftId, `${name} left`, 'shutter', turnAbout([0, y - 0.03, o.z1], [1, 0, 0], -90))),
    solids: mirrored([box(leftId, [o.x0, y - 0.05, o.z0], [o.x1, y - 0.02, o.z1], { partId: leftId })]),
    zones: zonePair({
      id: `compartment-${id}-left`,
      name: `${name} left, inside top`,
      face: 'inside',
      mount: 'edge',
      centre: [(o.x0 + o.x1) / 2, y - 0.14, o.z1 - 0.05],
      n: [0, 0.6, -1],
      widthM: o.x1 - o.x0 - 0.06,
      heightM: 0.1,
      behind: 'Roof of the compartment, behind the shutter’s roll',
    }),
    art: onSides((b) => [
      b.fill('opening', rect(o.x0, o.x1, o.z0, o.z1), leftId),
      b.fill('shade', rect(o.x0, o.x1, o.z0, o.z1, 0.02), leftId),
      ...Array.from({ length: slats }, (_, i) => o.z0 + ((i + 1) * (o.z1 - o.z0)) / (slats + 1)).map((z) =>
        b.stroke(
          'cut',
          [
            [o.x0 + 0.02, z],
            [o.x1 - 0.02, z],
          ],
          leftId,
        ),
      ),
      b.fill(
        'trim',
        rect((o.x0 + o.x1) / 2 - 0.09, (o.x0 + o.x1) / 2 + 0.09, o.z0 + 0.03, o.z0 + 0.055, 0.01),
        leftId,
      ),
    ]),
  });
}

/** A hinged leaf of a pair at the rear, which can be pinned where one loads: 90°, 180° or 270° from shut. */
export function barnDoors(x: number, y: number, z0: number, z1: number): Assembly {
  const id = 'barn-door-left';
  const stop = (deg: number): PartPosition => ({
    id: deg === 90 ? id : `${id}-${deg}`,
    name: `pinned at ${deg}°`,
    motion: turnAbout([x, y, 0], [0, 0, 1], -deg),
  });
  const leaf: MovingPart = {
    id,
    name: 'Rear left door',
    kind: 'door',
    stops: [stop(90), stop(180), stop(270)],
  };
  const glassZ0 = z0 + (z1 - z0) * 0.55;
  return assemble({
    parts: partPair(leaf),
    solids: mirrored([
      box(`${id}-panel`, [x, 0.01, z0], [x + 0.05, y - 0.02, glassZ0], { partId: id }),
      box(`${id}-top`, [x, 0.01, z1 - 0.14], [x + 0.05, y - 0.02, z1], { partId: id }),
      box(`${id}-glass`, [x + 0.02, 0.14, glassZ0], [x + 0.026, y - 0.14, z1 - 0.14], {
        partId: id,
        transmission: 0.25,
      }),
      box(`${id}-stile-outer`, [x, y - 0.14, glassZ0], [x + 0.05, y - 0.02, z1 - 0.14], { partId: id }),
      box(`${id}-stile-inner`, [x, 0.01, glassZ0], [x + 0.05, 0.14, z1 - 0.14], { partId: id }),
    ]),
    zones: [
      ...zonePair({
        id: 'barn-door-outside-left',
        name: 'Rear door left, outside',
        face: 'rear',
        mount: 'panel',
        partId: id,
        centre: [x - 0.002, y / 2, z0 + (z1 - z0) * 0.42],
        n: [-1, 0, 0],
        widthM: y - 0.2,
        heightM: 0.16,
        behind: 'Door shell; latch rods along its middle side',
      }),
      ...zonePair({
        id: 'barn-door-inside-left',
        name: 'Rear door left, inside',
        face: 'inside',
        mount: 'edge',
        partId: id,
        centre: [x + 0.053, y / 2, z0 + (z1 - z0) * 0.35],
        n: [1, 0, 0],
        widthM: y - 0.2,
        heightM: 0.16,
        behind: 'Inner trim of the door: covered when closed, faces the rear when pinned at 180°',
      }),
    ],
  });
}

/** The two leaves as seen from behind, in the viewer's left and right order. */
export const barnDoorOutline = (side: 'left' | 'right', y: number, z0: number, z1: number): XYR[] =>
  side === 'left' ? rect(-(y - 0.02), -0.01, z0, z1, 0.03) : rect(0.01, y - 0.02, z0, z1, 0.03);
