import { turnAbout } from '../../../geometry/frame.ts';
import { box } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { onSides, onView, rect } from '../../picture/pen.ts';
import { acrossRect, assemble, lampPair, mirrored, part } from '../assembly.ts';
import type { Stations } from '../dimension.ts';
import { shutterPair, wallWith } from '../openings.ts';
import { zonePair } from '../zone.ts';
import { plate, rearBumper } from './rearBumper.ts';

/** A service body: tool boxes along both flanks with a load floor and a tailgate between them. */
export function serviceBody(s: Stations, topZ: number): Assembly {
  const y = s.outerY;
  const x0 = s.tailX + 0.08;
  const x1 = s.cabRearX - 0.06;
  const floorZ = s.sillZ + 0.24;
  const innerY = y - 0.42;
  const z0 = floorZ - 0.12;
  const axle = s.rearAxleX;
  const overZ = 2 * s.wheelRadius + 0.12;
  const compartments = [
    {
      id: 'front',
      name: 'Front tool box',
      x0: axle + s.wheelRadius + 0.12,
      x1: x1 - 0.06,
      z0: z0 + 0.04,
      z1: topZ - 0.08,
    },
    {
      id: 'wheel',
      name: 'Wheel tool box',
      x0: axle - s.wheelRadius - 0.06,
      x1: axle + s.wheelRadius + 0.06,
      z0: overZ,
      z1: topZ - 0.08,
    },
    {
      id: 'rear',
      name: 'Rear tool box',
      x0: x0 + 0.06,
      x1: axle - s.wheelRadius - 0.12,
      z0: z0 + 0.04,
      z1: topZ - 0.08,
    },
  ].filter((c) => c.x1 - c.x0 > 0.2);
  return assemble(
    {
      parts: [part('tailgate', 'Tailgate', 'tailgate', turnAbout([x0, 0, floorZ], [0, 1, 0], -90))],
      solids: [
        box('bed-floor', [x0, -innerY, floorZ - 0.06], [x1, innerY, floorZ]),
        box('tailgate', [x0, -innerY + 0.01, floorZ], [x0 + 0.05, innerY - 0.01, floorZ + 0.45], {
          partId: 'tailgate',
        }),
        ...mirrored([
          ...wallWith('tool-box-left', y, { x0, x1, z0, z1: topZ }, compartments),
          box('tool-box-top-left', [x0, innerY, topZ - 0.04], [x1, y - 0.06, topZ]),
          box('tool-box-inner-left', [x0, innerY, floorZ], [x1, innerY + 0.03, topZ - 0.04]),
          box('tool-box-rear-left', [x0, innerY + 0.03, z0], [x0 + 0.04, y - 0.06, topZ - 0.04]),
        ]),
      ],
      zones: [
        ...zonePair({
          id: 'box-upper-left',
          name: 'Tool box top left',
          face: 'left',
          mount: 'panel',
          centre: [(x0 + x1) / 2, y + 0.002, topZ - 0.04],
          n: [0, 1, 0],
          widthM: x1 - x0 - 0.2,
          heightM: 0.06,
          behind: 'Upper rail of the tool boxes',
        }),
        ...zonePair({
          id: 'box-rear-post-left',
          name: 'Tool box rear left',
          face: 'rear',
          mount: 'panel',
          centre: [x0 - 0.002, (innerY + y) / 2, topZ - 0.2],
          n: [-1, 0, 0],
          widthM: 0.34,
          heightM: 0.28,
          behind: 'Rear wall of the tool box',
        }),
      ],
      factoryLamps: [
        ...lampPair(
          'tail-left',
          'Left tail and stop lamp',
          'stop',
          acrossRect(x0 - 0.01, y - 0.3, y - 0.06, floorZ - 0.02, floorZ + 0.1),
        ),
        ...lampPair(
          'turn-rear-left',
          'Left rear turn signal',
          'turn',
          acrossRect(x0 - 0.01, y - 0.3, y - 0.06, floorZ + 0.12, floorZ + 0.2),
        ),
      ],
      art: [
        ...onView('front', (b) => [b.fill('body', rect(-y, y, z0, topZ, 0.04))]),
        ...onSides((b) => [b.fill('body', rect(x0, x1, z0, topZ, 0.04))]),
        ...onView('rear', (b) => [
          b.fill('body', rect(-y, y, z0, topZ, 0.04)),
          b.fill('opening', rect(-innerY, innerY, floorZ, topZ)),
          b.fill('body', rect(-innerY, innerY, floorZ, floorZ + 0.45, 0.02), 'tailgate'),
          b.fill('shade', rect(-0.13, 0.13, floorZ + 0.3, floorZ + 0.38, 0.02), 'tailgate'),
        ]),
        ...onView('plan', (b) => [
          b.fill('body', rect(x0, x1, -y, y, 0.04)),
          b.fill('shade', rect(x0 + 0.05, x1 - 0.04, -innerY, innerY, 0.02)),
          ...[-1, 1].map((k) =>
            b.stroke('shine', [
              [x0 + 0.08, k * (innerY + 0.2)],
              [x1 - 0.08, k * (innerY + 0.2)],
            ]),
          ),
        ]),
      ],
    },
    ...compartments.map((c) => shutterPair(c.id, c.name, y, c)),
    plate(s.tailX, s.floorZ + 0.16, null),
    rearBumper(s),
  );
}
