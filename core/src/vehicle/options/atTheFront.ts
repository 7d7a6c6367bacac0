import { slideBy } from '../../geometry/frame.ts';
import { box } from '../../geometry/solid.ts';
import { onSides, onView, rect } from '../picture/pen.ts';
import { assemble, keepOut, mirrored, part } from '../body/assembly.ts';
import { zone, zonePair } from '../body/zone.ts';
import type { VehicleOption } from './option.ts';

export const BUMPER_GUARD: VehicleOption = {
  id: 'bumper-guard',
  name: 'Bumper guard',
  what: 'Tubes before grille and bumper',
  workOut: (s) => {
    const x0 = s.noseX + 0.03;
    const x1 = s.noseX + 0.11;
    const y = s.halfWidth - 0.36;
    const top = s.noseZ + 0.04;
    const bars = [s.floorZ + 0.12, (s.floorZ + top) / 2 + 0.06, top - 0.06];
    return assemble({
      solids: [
        ...bars.map((z, i) => box(`guard-bar-${i}`, [x0, -y, z], [x1, y, z + 0.05])),
        ...mirrored([box('guard-post-left', [x0, y - 0.06, s.floorZ + 0.08], [x1, y, top])]),
      ],
      zones: [
        zone({
          id: 'guard-top',
          name: 'Guard, top tube',
          face: 'front',
          mount: 'panel',
          centre: [x1 + 0.002, 0, top - 0.035],
          n: [1, 0, 0],
          widthM: 2 * y - 0.1,
          heightM: 0.06,
          behind: 'Guard tube: clamp or welded tab',
          fixings: ['bracket'],
        }),
        ...zonePair({
          id: 'guard-side-left',
          name: 'Guard, side left',
          face: 'left',
          mount: 'panel',
          centre: [(x0 + x1) / 2, y + 0.002, (s.floorZ + top) / 2],
          n: [0, 1, 0],
          widthM: 0.09,
          heightM: 0.3,
          behind: 'Post of the guard: bracket',
          fixings: ['bracket'],
        }),
      ],
      art: [
        ...onView('front', (b) => [
          ...bars.map((z) => b.fill('shade', rect(-y, y, z, z + 0.05, 0.025))),
          ...[-1, 1].map((k) => b.fill('shade', rect(k * (y - 0.06), k * y, s.floorZ + 0.08, top, 0.025))),
        ]),
        ...onSides((b) => [b.fill('shade', rect(x0, x1, s.floorZ + 0.08, top, 0.04))]),
        ...onView('plan', (b) => [b.fill('shade', rect(x0, x1, -y, y, 0.04))]),
      ],
    });
  },
};

export const FRONT_BLADE: VehicleOption = {
  id: 'front-blade',
  name: 'Front blade',
  what: 'A blade before the bumper, working or raised; raised it is in front of the headlamps',
  ranges: { bladeHeightM: [0.45, 1.2, 0.72], bladeTravelM: [0.2, 0.9, 0.5] },
  workOut: (s, { bladeHeightM: topZ = 0.72, bladeTravelM = 0.5 }) => {
    const y = s.halfWidth + 0.15;
    const x = s.noseX + 0.35;
    const raised = { partId: 'blade' };
    return assemble({
      parts: [part('blade', 'Blade', 'blade', slideBy([-0.06, 0, bladeTravelM]), 'raised')],
      solids: [
        box('blade', [x, -y, 0.03], [x + 0.12, y, topZ], raised),
        box('blade-frame', [s.noseX - 0.02, -0.35, 0.25], [x, 0.35, 0.45]),
      ],
      zones: [
        zone({
          id: 'blade-lamp-bar',
          name: 'Lamp bar over the blade',
          face: 'front',
          mount: 'panel',
          centre: [s.noseX + 0.12, 0, s.beltZ + 0.05],
          n: [1, 0, 0],
          widthM: 2 * s.halfWidth - 0.5,
          heightM: 0.12,
          behind: 'Lamp bar on the blade’s frame, clear of the raised blade',
          fixings: ['bracket'],
        }),
      ],
      art: [
        ...onView('front', (b) => [
          b.fill('trim', rect(-y, y, 0.03, topZ, 0.05), 'blade'),
          ...[-0.6, -0.2, 0.2, 0.6].map((k) =>
            b.stroke(
              'cut',
              [
                [k * y, 0.06],
                [k * y, topZ - 0.04],
              ],
              'blade',
            ),
          ),
        ]),
        ...onSides((b) => [
          b.fill('shade', rect(s.noseX - 0.02, x, 0.25, 0.42)),
          b.fill(
            'trim',
            [
              [x, 0.03, 0.1],
              [x + 0.14, 0.03],
              [x + 0.1, 0.35, 0.2],
              [x + 0.14, topZ],
              [x, topZ, 0.05],
            ],
            'blade',
          ),
        ]),
        ...onView('plan', (b) => [b.fill('trim', rect(x, x + 0.12, -y, y, 0.02), 'blade')]),
      ],
    });
  },
};

export const WINCH: VehicleOption = {
  id: 'winch',
  name: 'Winch',
  what: 'In the middle of the front bumper, its rope to be kept clear',
  workOut: (s) => {
    const z = s.bumperTopZ - 0.02;
    return assemble({
      solids: [box('winch', [s.noseX - 0.12, -0.32, z - 0.2], [s.noseX + 0.12, 0.32, z + 0.02])],
      keepOuts: [
        keepOut(
          'Winch rope',
          'other',
          box('winch-rope', [s.noseX + 0.12, -0.18, z - 0.2], [s.noseX + 1, 0.18, z + 0.02]),
        ),
      ],
      art: [
        ...onView('front', (b) => [
          b.fill('shade', rect(-0.32, 0.32, z - 0.2, z + 0.02, 0.04)),
          b.fill('trim', rect(-0.12, 0.12, z - 0.13, z - 0.05, 0.02)),
        ]),
        ...onSides((b) => [b.fill('shade', rect(s.noseX - 0.12, s.noseX + 0.12, z - 0.2, z + 0.02, 0.05))]),
        ...onView('plan', (b) => [b.fill('shade', rect(s.noseX - 0.12, s.noseX + 0.12, -0.32, 0.32, 0.05))]),
      ],
    });
  },
};

export const WIDE_MIRRORS: VehicleOption = {
  id: 'wide-mirrors',
  name: 'Wide mirrors',
  what: 'Long-arm mirrors in place of the usual ones',
  workOut: (s) => {
    const y0 = s.halfWidth + 0.2;
    const y1 = s.halfWidth + 0.42;
    const x1 = s.doorFrontX;
    const door = 'door-front-left';
    return assemble({
      solids: mirrored([
        box('wide-mirror-left', [x1 - 0.12, y0, s.beltZ - 0.06], [x1, y1, s.beltZ + 0.32], { partId: door }),
      ]),
      zones: zonePair({
        id: 'wide-mirror-left',
        name: 'Wide mirror left',
        face: 'front',
        mount: 'mirror',
        partId: door,
        centre: [x1 + 0.002, (y0 + y1) / 2, s.beltZ + 0.2],
        n: [1, 0.3, 0],
        widthM: 0.2,
        heightM: 0.16,
        behind: 'Shell of the mirror head',
      }),
      art: [
        ...(['front', 'rear'] as const).flatMap((view) =>
          onView(view, (b) =>
            ([1, -1] as const).map((k) =>
              b.fill(
                'shade',
                rect(k * y0, k * y1, s.beltZ - 0.06, s.beltZ + 0.32, 0.05),
                (k === 1) === (view === 'front') ? door : 'door-front-right',
              ),
            ),
          ),
        ),
        ...onSides((b) => [
          b.fill('shade', rect(x1 - 0.14, x1 + 0.02, s.beltZ - 0.06, s.beltZ + 0.32, 0.05), door),
        ]),
        ...onView('plan', (b) =>
          ([1, -1] as const).map((k) =>
            b.fill('shade', rect(x1 - 0.12, x1, k * y0, k * y1, 0.03), k === 1 ? door : 'door-front-right'),
          ),
        ),
      ],
    });
  },
};
