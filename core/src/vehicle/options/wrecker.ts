import { turnAbout } from '../../geometry/frame.ts';
import { box, prism } from '../../geometry/solid.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import { assemble, mirrored, part } from '../body/assembly.ts';
import { zone, zonePair } from '../body/zone.ts';
import { onSides, onView, rect } from '../picture/pen.ts';
import type { VehicleOption } from './option.ts';

/** Half-width of the boom, m. */
const BOOM_M = 0.16;

export const WRECKER_BOOM: VehicleOption = {
  id: 'wrecker-boom',
  name: 'Wrecker boom',
  what: 'A recovery boom on a frame behind the cab, lowered over the deck or raised',
  workOut: (s) => {
    const foot = s.cabRearX - 0.55;
    const tip = Math.min(s.tailX + 0.35, foot - 1.2);
    const deck = s.sillZ + 0.25;
    const frameZ = s.roofZ - 0.1;
    const low: [number, number][] = [
      [foot, deck + 0.3],
      [foot, deck + 0.62],
      [tip, deck + 0.98],
      [tip, deck + 0.76],
    ];
    const profile = low.map(([x, z]): Vec3 => [x, -BOOM_M, z]);
    const raised = { partId: 'boom' };
    return assemble({
      parts: [part('boom', 'Boom', 'mast', turnAbout([foot, 0, deck + 0.3], [0, 1, 0], 22), 'raised')],
      solids: [
        prism('boom', profile, [0, 2 * BOOM_M, 0], raised),
        ...mirrored([box('boom-frame-left', [foot + 0.05, 0.55, deck], [foot + 0.17, 0.67, frameZ])]),
        box('boom-frame-top', [foot + 0.05, -0.67, frameZ - 0.12], [foot + 0.17, 0.67, frameZ]),
      ],
      zones: [
        zone({
          id: 'boom-frame-rear',
          name: 'Boom frame, rear',
          face: 'rear',
          mount: 'panel',
          centre: [foot + 0.048, 0, frameZ - 0.06],
          n: [-1, 0, 0],
          widthM: 1.2,
          heightM: 0.1,
          behind: 'Frame tube behind the boom: bracket',
          fixings: ['bracket'],
        }),
        zone({
          id: 'boom-frame-top',
          name: 'Boom frame, top',
          face: 'top',
          mount: 'roof',
          centre: [foot + 0.11, 0, frameZ + 0.002],
          n: [0, 0, 1],
          widthM: 1.2,
          heightM: 0.12,
          behind: 'Frame tube: bracket',
          fixings: ['bracket'],
        }),
        zone({
          id: 'boom-tip',
          name: 'Boom, tip',
          face: 'rear',
          mount: 'panel',
          partId: 'boom',
          centre: [tip - 0.002, 0, deck + 0.87],
          n: [-1, 0, 0],
          widthM: 0.28,
          heightM: 0.16,
          behind: 'Head of the boom: clear of sheaves and ropes',
          fixings: ['bracket'],
        }),
        ...zonePair({
          id: 'boom-side-left',
          name: 'Boom side left',
          face: 'left',
          mount: 'panel',
          partId: 'boom',
          centre: [(foot + tip) / 2, BOOM_M + 0.002, deck + 0.68],
          n: [0, 1, 0],
          widthM: 0.8,
          heightM: 0.16,
          behind: 'Side of the boom: bracket, no holes in load-bearing parts',
          fixings: ['bracket'],
        }),
      ],
      art: [
        ...onSides((b) => [
          b.fill('trim', low, 'boom'),
          b.fill('shade', rect(foot + 0.05, foot + 0.17, deck, frameZ)),
        ]),
        ...onView('rear', (b) => [
          b.fill('shade', rect(-0.67, 0.67, frameZ - 0.12, frameZ)),
          b.fill('shade', rect(-0.67, -0.55, deck, frameZ)),
          b.fill('shade', rect(0.55, 0.67, deck, frameZ)),
          b.fill('trim', rect(-BOOM_M, BOOM_M, deck + 0.76, deck + 0.98, 0.02), 'boom'),
        ]),
        ...onView('plan', (b) => [b.fill('trim', rect(tip, foot, -BOOM_M, BOOM_M, 0.03), 'boom')]),
      ],
    });
  },
};
