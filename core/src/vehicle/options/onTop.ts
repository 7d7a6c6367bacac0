import { slideBy } from '../../geometry/frame.ts';
import { box } from '../../geometry/solid.ts';
import { onSides, onView, rect } from '../picture/pen.ts';
import { assemble, mirrored, part } from '../body/assembly.ts';
import type { Stations } from '../body/dimension.ts';
import { zone, zonePair } from '../body/zone.ts';
import type { VehicleOption } from './option.ts';

/** The cab's roof between its rounded ends. */
const roofSpan = (s: Stations): readonly [rearX: number, frontX: number] => [
  s.roofRearX + 0.3,
  s.roofFrontX - 0.3,
];

export const ROOF_RACK: VehicleOption = {
  id: 'roof-rack',
  name: 'Roof rack',
  what: 'A low basket on the roof, with room for lamps on its frame',
  workOut: (s) => {
    const [x0, x1] = roofSpan(s);
    const y = s.railY - 0.08;
    const z0 = s.roofZ + 0.06;
    const z1 = s.roofZ + 0.2;
    const end = (id: string, name: string, face: 'front' | 'rear', x: number, n: 1 | -1) =>
      zone({
        id,
        name,
        face,
        mount: 'panel',
        centre: [x + n * 0.002, 0, (z0 + z1) / 2],
        n: [n, 0, 0],
        widthM: 2 * y - 0.1,
        heightM: 0.12,
        behind: 'Frame of the rack: bracket',
        fixings: ['bracket'],
      });
    return assemble({
      solids: [
        box('rack-front', [x1 - 0.04, -y, z0], [x1, y, z1]),
        box('rack-rear', [x0, -y, z0], [x0 + 0.04, y, z1]),
        box('rack-floor', [x0, -y, z0], [x1, y, z0 + 0.02], { transmission: 0.5 }),
        ...mirrored([box('rack-side-left', [x0, y - 0.04, z0], [x1, y, z1])]),
      ],
      zones: [
        zone({
          id: 'rack-top',
          name: 'Rack, on top',
          face: 'top',
          mount: 'roof',
          centre: [x1 - 0.3, 0, z1 + 0.002],
          n: [0, 0, 1],
          widthM: 2 * y - 0.1,
          heightM: 0.5,
          behind: 'Cross-bars of the rack: U-bolts',
          fixings: ['bracket'],
        }),
        end('rack-front', 'Rack, front', 'front', x1, 1),
        end('rack-rear', 'Rack, rear', 'rear', x0, -1),
        ...zonePair({
          id: 'rack-side-left',
          name: 'Rack, side left',
          face: 'left',
          mount: 'panel',
          centre: [(x0 + x1) / 2, y + 0.002, (z0 + z1) / 2],
          n: [0, 1, 0],
          widthM: x1 - x0 - 0.1,
          heightM: 0.12,
          behind: 'Side frame of the rack: bracket',
          fixings: ['bracket'],
        }),
      ],
      art: [
        ...onSides((b) => [
          b.fill('shade', rect(x0, x1, z1 - 0.03, z1, 0.01)),
          b.fill('shade', rect(x0, x1, z0, z0 + 0.03, 0.01)),
          ...[0, 0.25, 0.5, 0.75, 1].map((k) => {
            const x = x0 + (x1 - x0 - 0.03) * k;
            return b.fill('shade', rect(x, x + 0.03, s.roofZ - 0.02, z1));
          }),
        ]),
        ...(['front', 'rear'] as const).flatMap((view) =>
          onView(view, (b) => [
            b.fill('shade', rect(-y, y, z1 - 0.03, z1, 0.01)),
            b.fill('shade', rect(-y, y, z0, z0 + 0.03, 0.01)),
            ...[-1, -0.5, 0, 0.5, 1].map((k) =>
              b.fill('shade', rect(k * (y - 0.02) - 0.015, k * (y - 0.02) + 0.015, s.roofZ - 0.01, z1)),
            ),
          ]),
        ),
        ...onView('plan', (b) => [
          b.fill('cut', rect(x0, x1, -y, y, 0.04)),
          ...[0.2, 0.4, 0.6, 0.8].map((k) =>
            b.stroke('cut', [
              [x0 + (x1 - x0) * k, -y],
              [x0 + (x1 - x0) * k, y],
            ]),
          ),
        ]),
      ],
    });
  },
};

export const LADDER_RACK: VehicleOption = {
  id: 'ladder-rack',
  name: 'Ladder rack',
  what: 'Hoops over the load with a ladder lying on them',
  workOut: (s) => {
    const y = s.outerY - 0.08;
    const z = s.topZ + 0.12;
    // Over a load behind a cab the hoops stand on the body; on a van they stand on its roof.
    const overVan = s.cabRearX - s.tailX < 1;
    const rearX = s.tailX + 0.3;
    const frontX = overVan ? s.roofFrontX - 0.5 : s.cabRearX - 0.2;
    const footZ = overVan ? s.roofZ - 0.02 : s.sillZ + 0.5;
    const hoops = [rearX, frontX];
    return assemble({
      solids: [
        ...hoops.flatMap((x, i) => [
          box(`hoop-${i}`, [x, -y, z - 0.05], [x + 0.05, y, z]),
          ...mirrored([box(`hoop-post-${i}-left`, [x, y - 0.05, footZ], [x + 0.05, y, z - 0.05])]),
        ]),
        ...[0.2, 0.55].map((yy, i) =>
          box(`ladder-rail-${i}`, [rearX - 0.1, -yy - 0.03, z], [frontX + 0.3, -yy, z + 0.08]),
        ),
      ],
      zones: [
        zone({
          id: 'hoop-rear',
          name: 'Rear hoop',
          face: 'rear',
          mount: 'panel',
          centre: [rearX - 0.002, 0, z - 0.035],
          n: [-1, 0, 0],
          widthM: 2 * y - 0.2,
          heightM: 0.06,
          behind: 'Tube of the rear hoop: bracket',
          fixings: ['bracket'],
        }),
      ],
      art: [
        ...onSides((b) => [
          ...hoops.map((x) => b.fill('shade', rect(x, x + 0.05, footZ, z, 0.02))),
          b.fill('trim', rect(rearX - 0.1, frontX + 0.3, z, z + 0.08, 0.02)),
        ]),
        ...(['front', 'rear'] as const).flatMap((view) =>
          onView(view, (b) => [
            b.fill('shade', rect(-y, y, z - 0.05, z, 0.02)),
            ...(view === 'rear'
              ? [-1, 1].map((k) => b.fill('shade', rect(k * (y - 0.05), k * y, footZ, z, 0.01)))
              : []),
          ]),
        ),
        ...onView('plan', (b) => [
          ...hoops.map((x) => b.fill('shade', rect(x, x + 0.05, -y, y))),
          ...[0.2, 0.55].map((yy) => b.fill('trim', rect(rearX - 0.1, frontX + 0.3, -yy - 0.03, -yy))),
          ...[0.15, 0.3, 0.45, 0.6, 0.75, 0.9].map((k) => {
            const x = rearX + (frontX - rearX) * k;
            return b.fill('trim', rect(x, x + 0.03, -0.55, -0.2));
          }),
        ]),
      ],
    });
  },
};

export const DECK_VISOR: VehicleOption = {
  id: 'deck-visor',
  name: 'Raised deck visor',
  what: 'A shelf raised over the cab’s front; it blocks low lamps behind it',
  workOut: (s) => {
    const y = s.railY - 0.02;
    const x1 = s.roofFrontX + 0.22;
    const z = s.roofZ + 0.22;
    return assemble({
      solids: [
        box('visor', [x1 - 0.7, -y, z], [x1, y, z + 0.04]),
        ...mirrored([box('visor-post-left', [x1 - 0.68, y - 0.06, s.roofZ], [x1 - 0.3, y, z])]),
      ],
      zones: [
        zone({
          id: 'visor-edge',
          name: 'Visor, front edge',
          face: 'front',
          mount: 'panel',
          centre: [x1 + 0.002, 0, z + 0.02],
          n: [1, 0, 0],
          widthM: 2 * y - 0.1,
          heightM: 0.06,
          behind: 'Folded front edge of the visor',
        }),
        zone({
          id: 'visor-top',
          name: 'Visor, top',
          face: 'top',
          mount: 'roof',
          centre: [x1 - 0.35, 0, z + 0.042],
          n: [0, 0, 1],
          widthM: 2 * y - 0.1,
          heightM: 0.5,
          behind: 'Deck of the visor: bolts through',
        }),
      ],
      art: [
        ...onSides((b) => [
          b.fill('body', rect(x1 - 0.7, x1, z, z + 0.04, 0.02)),
          b.fill('shade', rect(x1 - 0.68, x1 - 0.3, s.roofZ - 0.02, z, 0.02)),
        ]),
        ...onView('front', (b) => [
          b.fill('body', rect(-y, y, z, z + 0.04, 0.02)),
          ...[-1, 1].map((k) => b.fill('shade', rect(k * (y - 0.06), k * y, s.roofZ - 0.02, z))),
        ]),
        ...onView('plan', (b) => [b.fill('body', rect(x1 - 0.7, x1, -y, y, 0.04))]),
      ],
    });
  },
};

export const MAST_BOARD: VehicleOption = {
  id: 'mast-board',
  name: 'Lightboard on a mast',
  what: 'A board behind the cab that travels low and is raised to work',
  workOut: (s) => {
    const x = s.cabRearX - 0.2;
    const z0 = s.topZ - 0.75;
    const z1 = z0 + 0.7;
    const y = 0.75;
    const mast = { partId: 'mast' };
    const face = (id: string, name: string, n: 1 | -1) =>
      zone({
        id,
        name,
        face: n === 1 ? 'front' : 'rear',
        mount: 'panel',
        partId: 'mast',
        centre: [x + (n === 1 ? 0.062 : -0.002), 0, (z0 + z1) / 2],
        n: [n, 0, 0],
        widthM: 2 * y - 0.04,
        heightM: z1 - z0 - 0.04,
        behind: 'Plate of the lightboard: bolts through, cable down the mast',
      });
    return assemble({
      parts: [part('mast', 'Lightboard mast', 'mast', slideBy([0, 0, 1.1]), 'raised')],
      solids: [
        box('mast-board', [x, -y, z0], [x + 0.06, y, z1], mast),
        box('mast-foot', [x - 0.02, -0.08, s.sillZ], [x + 0.08, 0.08, z0]),
      ],
      zones: [
        face('mast-rear', 'Lightboard, to the rear', -1),
        face('mast-front', 'Lightboard, to the front', 1),
      ],
      art: [
        ...onSides((b) => [
          b.fill('shade', rect(x - 0.02, x + 0.08, s.sillZ, z0)),
          b.fill('body', rect(x, x + 0.06, z0, z1, 0.02), 'mast'),
        ]),
        ...(['front', 'rear'] as const).flatMap((view) =>
          onView(view, (b) => [b.fill('shade', rect(-y, y, z0, z1, 0.05), 'mast')]),
        ),
        ...onView('plan', (b) => [b.fill('shade', rect(x, x + 0.06, -y, y, 0.02), 'mast')]),
      ],
    });
  },
};
