import { turnAbout } from '../../geometry/frame.ts';
import { box } from '../../geometry/solid.ts';
import { onSides, onView, rect } from '../picture/pen.ts';
import { assemble, mirrored } from '../body/assembly.ts';
import { shutterPair } from '../body/openings.ts';
import { zone, zonePair } from '../body/zone.ts';
import type { VehicleOption } from './option.ts';

export const HEADACHE_RACK: VehicleOption = {
  id: 'headache-rack',
  name: 'Headache rack',
  what: 'A mesh frame behind the cab, with a beam for lamps on top',
  workOut: (s) => {
    const x = s.cabRearX - 0.14;
    const y = s.halfWidth - 0.12;
    const z0 = s.beltZ - 0.05;
    const z1 = s.roofZ + 0.14;
    const beam = (id: string, name: string, n: 1 | -1) =>
      zone({
        id,
        name,
        face: n === 1 ? 'front' : 'rear',
        mount: 'panel',
        centre: [x + (n === 1 ? 0.062 : -0.002), 0, z1 - 0.05],
        n: [n, 0, 0],
        widthM: 2 * y - 0.1,
        heightM: 0.08,
        behind: 'Top beam of the rack: bracket or tapped holes',
      });
    return assemble({
      solids: [
        box('rack-mesh', [x + 0.02, -y + 0.05, z0], [x + 0.03, y - 0.05, z1 - 0.1], { transmission: 0.6 }),
        box('rack-beam', [x, -y, z1 - 0.1], [x + 0.06, y, z1]),
        ...mirrored([box('rack-post-left', [x, y - 0.05, z0], [x + 0.06, y, z1 - 0.1])]),
      ],
      zones: [
        beam('rack-beam-rear', 'Rack beam, to the rear', -1),
        beam('rack-beam-front', 'Rack beam, to the front', 1),
      ],
      art: [
        ...onSides((b) => [b.fill('shade', rect(x, x + 0.06, z0, z1, 0.02))]),
        ...onView('rear', (b) => [
          b.fill('shade', rect(-y, y, z1 - 0.1, z1, 0.03)),
          ...[-1, 1].map((k) => b.fill('shade', rect(k * (y - 0.05), k * y, z0, z1))),
          ...[-0.8, -0.6, -0.4, -0.2, 0, 0.2, 0.4, 0.6, 0.8].map((k) =>
            b.stroke('cut', [
              [k * y, z0],
              [k * y, z1 - 0.1],
            ]),
          ),
        ]),
        ...onView('front', (b) => [b.fill('shade', rect(-y, y, z1 - 0.1, z1, 0.03))]),
        ...onView('plan', (b) => [b.fill('shade', rect(x, x + 0.06, -y, y, 0.02))]),
      ],
    });
  },
};

export const TAIL_LIFT: VehicleOption = {
  id: 'tail-lift',
  name: 'Tail lift',
  what: 'A platform in front of the rear doors, lowered for loading',
  workOut: (s) => {
    const y = s.outerY - 0.12;
    const x = s.tailX - 0.06;
    const z0 = s.sillZ + 0.02;
    const length = 1.3;
    const id = 'tail-lift';
    return assemble({
      parts: [
        {
          id,
          name: 'Tail lift',
          kind: 'lift',
          stops: [
            { id, name: 'level', motion: turnAbout([x, 0, z0], [0, 1, 0], -90) },
            {
              id: 'tail-lift-ground',
              name: 'on the ground',
              motion: turnAbout([x, 0, z0], [0, 1, 0], -90, [0, 0, -z0 + 0.05]),
            },
          ],
        },
      ],
      solids: [box('tail-lift', [x - 0.05, -y, z0], [x, y, z0 + length], { partId: id })],
      zones: zonePair({
        id: 'tail-lift-edge-left',
        name: 'Tail lift, top edge left',
        face: 'inside',
        mount: 'edge',
        partId: id,
        centre: [x - 0.025, y / 2, z0 + length + 0.002],
        n: [0, 0, 1],
        widthM: y - 0.1,
        heightM: 0.05,
        behind: 'Free edge of the platform: faces the rear when level',
      }),
      art: [
        ...onSides((b) => [b.fill('trim', rect(x - 0.05, x, z0, z0 + length, 0.02), id)]),
        ...onView('rear', (b) => [
          b.fill('trim', rect(-y, y, z0, z0 + length, 0.03), id),
          ...[0.25, 0.5, 0.75].map((k) =>
            b.stroke(
              'cut',
              [
                [-y + 0.05, z0 + length * k],
                [y - 0.05, z0 + length * k],
              ],
              id,
            ),
          ),
        ]),
        ...onView('plan', (b) => [b.fill('trim', rect(x - 0.05, x, -y, y), id)]),
      ],
    });
  },
};

export const TOOL_BOXES: VehicleOption = {
  id: 'tool-boxes',
  name: 'Tool boxes with shutters',
  what: 'Under the deck between cab and rear wheel, one a side',
  workOut: (s) => {
    const y = s.outerY - 0.03;
    const x1 = s.cabRearX - 0.25;
    const x0 = s.rearAxleX + s.wheelRadius + 0.2;
    const z0 = s.floorZ + 0.06;
    const z1 = s.wheelRadius * 2 + 0.02;
    return assemble(
      {
        solids: mirrored([
          box('tool-box-left', [x0, y - 0.55, z0], [x1, y - 0.08, z1]),
          box('tool-box-roof-left', [x0, y - 0.55, z1 - 0.02], [x1, y, z1]),
        ]),
        art: onSides((b) => [b.fill('body', rect(x0 - 0.03, x1 + 0.03, z0 - 0.03, z1 + 0.03, 0.02))]),
      },
      shutterPair('tool', 'Tool box', y, { x0, x1, z0, z1: z1 - 0.02 }),
    );
  },
};

export const REAR_DESK: VehicleOption = {
  id: 'rear-desk',
  name: 'Rear desk',
  what: 'A cabinet with a work top behind the rear opening',
  workOut: (s) => {
    const y = s.halfWidth - 0.3;
    const x0 = s.tailX + 0.3;
    const z1 = s.beltZ - 0.12;
    return assemble({
      solids: [box('rear-desk', [x0, -y, s.sillZ], [x0 + 0.6, y, z1])],
      zones: [
        zone({
          id: 'desk-front',
          name: 'Rear desk, front',
          face: 'inside',
          mount: 'edge',
          centre: [x0 - 0.002, 0, z1 - 0.06],
          n: [-1, 0, 0],
          widthM: 2 * y - 0.1,
          heightM: 0.1,
          behind: 'Front of the desk: covered when closed, faces the rear when open',
        }),
        ...zonePair({
          id: 'desk-light-left',
          name: 'Over the desk left',
          face: 'inside',
          mount: 'edge',
          centre: [x0 + 0.45, y / 2, s.railZ - 0.06],
          n: [-0.6, 0, -1],
          widthM: 0.4,
          heightM: 0.12,
          behind: 'Headliner over the desk',
          reach: 'behind trim',
        }),
      ],
      art: onView('plan', (b) => [b.fill('cut', rect(x0, x0 + 0.6, -y, y, 0.02))]),
    });
  },
};
