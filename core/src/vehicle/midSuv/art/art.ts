import type { ArtShape } from '../../types.ts';
import type { MidSuvPoints } from '../points.ts';
import { end } from './end.ts';
import { penFor } from './pen.ts';
import { plan } from './plan.ts';
import { side } from './side.ts';

/** The mid SUV's picture in all five views. */
export function midSuvArt(p: MidSuvPoints): ArtShape[] {
  return [
    ...side(p, 'left', penFor(-1)),
    ...side(p, 'right', penFor(1)),
    ...end(p, 'front'),
    ...end(p, 'rear'),
    ...plan(p),
  ];
}
