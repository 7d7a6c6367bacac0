import { mirrorY, type Vec3 } from '../../geometry/vec.ts';
import type { FactoryLamp } from '../types.ts';
import type { MidSuvPoints } from './points.ts';

export function midSuvFactoryLamps(p: MidSuvPoints): FactoryLamp[] {
  const w = p.halfWidth;
  const left: FactoryLamp[] = [
    {
      id: 'head-left',
      name: 'Left head lamp',
      does: 'head',
      partId: null,
      outline: [
        [p.noseX - 0.07, 0.6, p.noseZ - 0.16],
        [p.noseX - 0.3, w, p.noseZ - 0.1],
        [p.noseX - 0.42, w, p.noseZ - 0.02],
        [p.noseX - 0.12, 0.58, p.noseZ - 0.05],
      ],
    },
    {
      id: 'turn-front-left',
      name: 'Left front turn signal',
      does: 'turn',
      partId: null,
      outline: [
        [p.noseX - 0.1, 0.66, p.noseZ - 0.21],
        [p.noseX - 0.3, w, p.noseZ - 0.16],
        [p.noseX - 0.32, w, p.noseZ - 0.12],
        [p.noseX - 0.1, 0.66, p.noseZ - 0.17],
      ],
    },
    {
      id: 'tail-left',
      name: 'Left tail and stop lamp',
      does: 'stop',
      partId: null,
      outline: [
        [p.hatchFootX - 0.01, 0.72, p.beltZ - 0.2],
        [p.tailX + 0.3, w, p.beltZ - 0.18],
        [p.tailX + 0.26, w, p.beltZ - 0.02],
        [p.hatchFootX + 0.01, w - 0.2, p.beltZ - 0.05],
      ],
    },
    {
      id: 'turn-rear-left',
      name: 'Left rear turn signal',
      does: 'turn',
      partId: null,
      outline: [
        [p.hatchFootX - 0.01, w - 0.14, p.beltZ - 0.29],
        [p.tailX + 0.26, w, p.beltZ - 0.27],
        [p.tailX + 0.28, w, p.beltZ - 0.2],
        [p.hatchFootX - 0.01, w - 0.16, p.beltZ - 0.21],
      ],
    },
    {
      id: 'reverse-left',
      name: 'Left reversing lamp',
      does: 'reverse',
      partId: null,
      outline: rectangle(p.tailX, 0.66, 0.82, 0.44, 0.49),
    },
  ];
  const right = left.map((lamp) => ({
    ...lamp,
    id: lamp.id.replace('left', 'right'),
    name: lamp.name.replace('Left', 'Right'),
    outline: lamp.outline.map(mirrorY),
  }));
  return [
    ...left,
    ...right,
    {
      id: 'stop-centre',
      name: 'High stop lamp',
      does: 'stop',
      partId: 'hatch',
      outline: rectangle(p.roofRearX - 0.12, -0.16, 0.16, p.railZ - 0.005, p.railZ + 0.015),
    },
    {
      id: 'plate',
      name: 'Number-plate lamp',
      does: 'plate',
      partId: 'hatch',
      outline: rectangle(p.hatchFootX - 0.03, -0.07, 0.07, p.beltZ - 0.1, p.beltZ - 0.085),
    },
  ];
}

/** An upright rectangle facing along x. */
const rectangle = (x: number, y0: number, y1: number, z0: number, z1: number): Vec3[] => [
  [x, y0, z0],
  [x, y1, z0],
  [x, y1, z1],
  [x, y0, z1],
];
