import { box } from '../../../geometry/solid.ts';
import type { Assembly } from '../../types.ts';
import { onSides, onView, rect } from '../../picture/pen.ts';
import { acrossRect, assemble, lampPair } from '../assembly.ts';
import type { Stations } from '../dimension.ts';
import { zone, zonePair } from '../zone.ts';
import { plate } from './rearBumper.ts';

/** A flat deck with a headboard, on chassis rails. */
export function flatBed(s: Stations, deckZ: number): Assembly {
  const y = s.outerY;
  const x0 = s.tailX;
  const x1 = s.cabRearX - 0.12;
  const under = deckZ - 0.14;
  const headZ = s.roofZ - 0.12;
  return assemble(
    {
      solids: [
        box('deck', [x0, -y, under], [x1, y, deckZ]),
        box('headboard', [x1 - 0.06, -y + 0.05, deckZ], [x1, y - 0.05, headZ], { transmission: 0.55 }),
        box('under-run', [x0 + 0.02, -y + 0.15, under - 0.3], [x0 + 0.1, y - 0.15, under - 0.16]),
      ],
      zones: [
        ...zonePair({
          id: 'deck-side-left',
          name: 'Deck edge left',
          face: 'left',
          mount: 'panel',
          centre: [(x0 + x1) / 2, y + 0.002, deckZ - 0.07],
          n: [0, 1, 0],
          widthM: x1 - x0 - 0.2,
          heightM: 0.1,
          behind: 'Steel edge rail of the deck; stake pockets every 0.6 m',
        }),
        zone({
          id: 'deck-rear',
          name: 'Deck rear edge',
          face: 'rear',
          mount: 'panel',
          centre: [x0 - 0.002, 0, deckZ - 0.07],
          n: [-1, 0, 0],
          widthM: 2 * y - 0.1,
          heightM: 0.1,
          behind: 'Rear rail of the deck',
        }),
        zone({
          id: 'headboard-top',
          name: 'Headboard, to the rear',
          face: 'rear',
          mount: 'panel',
          centre: [x1 - 0.064, 0, headZ - 0.1],
          n: [-1, 0, 0],
          widthM: 2 * y - 0.3,
          heightM: 0.18,
          behind: 'Headboard frame behind the cab',
        }),
        zone({
          id: 'under-run',
          name: 'Rear under-run bar',
          face: 'rear',
          mount: 'panel',
          centre: [x0 + 0.018, 0, under - 0.23],
          n: [-1, 0, 0],
          widthM: 2 * y - 0.4,
          heightM: 0.12,
          behind: 'Under-run protection: brackets only, no holes',
          fixings: ['bracket'],
        }),
      ],
      factoryLamps: [
        ...lampPair(
          'tail-left',
          'Left tail and stop lamp',
          'stop',
          acrossRect(x0 - 0.01, y - 0.3, y - 0.1, under - 0.14, under - 0.02),
        ),
        ...lampPair(
          'turn-rear-left',
          'Left rear turn signal',
          'turn',
          acrossRect(x0 - 0.01, y - 0.44, y - 0.31, under - 0.14, under - 0.02),
        ),
        ...lampPair(
          'reverse-left',
          'Left reversing lamp',
          'reverse',
          acrossRect(x0 - 0.01, y - 0.54, y - 0.45, under - 0.14, under - 0.02),
        ),
      ],
      art: [
        ...onView('front', (b) => [b.fill('shade', rect(-y, y, under, deckZ, 0.02))]),
        ...onSides((b) => [
          b.fill('body', rect(x0, x1, under, deckZ, 0.02)),
          ...Array.from({ length: Math.floor((x1 - x0) / 0.6) }, (_, i) => x0 + 0.3 + i * 0.6).map((x) =>
            b.fill('shade', rect(x, x + 0.07, under + 0.03, deckZ - 0.02)),
          ),
          b.fill('shade', rect(x1 - 0.07, x1, deckZ, headZ, 0.02)),
          b.fill('shade', rect(x0 + 0.02, x0 + 0.1, under - 0.3, under, 0.02)),
        ]),
        ...onView('rear', (b) => [
          b.fill('cut', rect(-y + 0.05, y - 0.05, deckZ, headZ, 0.04)),
          ...[-0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75].map((k) =>
            b.stroke('cut', [
              [k * y, deckZ],
              [k * y, headZ],
            ]),
          ),
          b.fill('body', rect(-y, y, under, deckZ, 0.02)),
          b.fill('shade', rect(-y + 0.08, y - 0.08, under - 0.16, under, 0.02)),
          b.fill('shade', rect(-y + 0.15, y - 0.15, under - 0.3, under - 0.16, 0.02)),
        ]),
        ...onView('plan', (b) => [
          b.fill('body', rect(x0, x1, -y, y, 0.03)),
          ...Array.from({ length: 9 }, (_, i) => -y + ((i + 1) * 2 * y) / 10).map((yy) =>
            b.stroke('cut', [
              [x0 + 0.05, yy],
              [x1 - 0.1, yy],
            ]),
          ),
          b.fill('shade', rect(x1 - 0.07, x1, -y + 0.05, y - 0.05)),
        ]),
      ],
    },
    plate(x0, under - 0.15, null),
  );
}
