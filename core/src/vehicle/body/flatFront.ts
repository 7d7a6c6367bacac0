import { box, profileAcross } from '../../geometry/solid.ts';
import type { Assembly } from '../types.ts';
import { both, bothSides, onSides, onView, rect } from '../picture/pen.ts';
import { acrossRect, assemble, lampPair, mirrored } from './assembly.ts';
import type { Stations } from './dimension.ts';
import { windscreen } from './front.ts';
import { zone, zonePair } from './zone.ts';

/** Measures that several of its functions need. */
const frontMeasures = (s: Stations) => {
  const w = s.halfWidth;
  const wallX = s.cowlX + 0.04;
  const bumper0 = s.floorZ + 0.02;
  const bumperMidZ = (bumper0 + s.bumperTopZ) / 2;
  const lampZ = s.bumperTopZ + 0.1;
  return { w, wallX, bumper0, bumperMidZ, lampZ };
};
type FrontMeasures = ReturnType<typeof frontMeasures>;

/** An upright cab front over a bumper that stands out before it. */
export function flatFront(s: Stations): Assembly {
  const m = frontMeasures(s);
  const { w, bumper0 } = m;
  return assemble(
    {
      art: onView('front', (b) => [
        b.fill(
          'body',
          both([
            [0, s.floorZ],
            [w - 0.02, s.floorZ, 0.06],
            [w, s.beltZ, 0.1],
            [s.railY + 0.04, s.railZ, 0.1],
            [s.railY - 0.06, s.roofZ, 0.12],
            [0, s.roofZ],
          ]),
        ),
        b.fill(
          'glass',
          both([
            [0, s.beltZ + 0.05],
            [w - 0.12, s.beltZ + 0.05, 0.08],
            [s.railY - 0.04, s.railZ - 0.08, 0.1],
            [0, s.railZ - 0.06],
          ]),
        ),
        b.stroke('cut', [
          [0, s.beltZ + 0.05],
          [0, s.railZ - 0.06],
        ]),
        b.fill('shade', rect(-0.5, 0.5, s.bumperTopZ + 0.06, s.beltZ - 0.12, 0.05)),
        ...[1, 2, 3, 4].map((k) => {
          const z = s.bumperTopZ + 0.06 + (k * (s.beltZ - 0.18 - s.bumperTopZ)) / 5;
          return b.stroke('cut', [
            [-0.46, z],
            [0.46, z],
          ]);
        }),
        b.fill('trim', rect(-w + 0.02, w - 0.02, bumper0, s.bumperTopZ, 0.05)),
        b.fill('shade', rect(-0.34, 0.34, bumper0 + 0.1, s.bumperTopZ - 0.06, 0.04)),
      ]),
    },
    {
      solids: frontSolids(s, m),
      zones: frontZones(s, m),
      factoryLamps: frontLamps(m),
      art: frontArt(s, m),
    },
    windscreen(s),
  );
}

function frontSolids(s: Stations, { w, wallX, bumper0 }: FrontMeasures): Assembly['solids'] {
  return [
    ...profileAcross(
      'cab-front',
      [
        [wallX, s.floorZ],
        [wallX, s.bumperTopZ],
        [s.cowlX, s.beltZ],
        [s.cowlX - 0.08, s.beltZ],
        [s.cowlX - 0.08, s.floorZ],
      ],
      -(w - 0.02),
      w - 0.02,
    ),
    box('front-bumper', [wallX, -(w - 0.02), bumper0], [s.noseX, w - 0.02, s.bumperTopZ]),
    box('dashboard', [s.cowlX - 0.55, -(w - 0.1), s.sillZ], [s.cowlX - 0.08, w - 0.1, s.beltZ - 0.08]),
    ...mirrored([box('wing-left', [s.doorFrontX, w - 0.06, s.floorZ], [s.cowlX - 0.08, w, s.beltZ])]),
  ];
}

function frontZones(s: Stations, { w, wallX, bumperMidZ, lampZ }: FrontMeasures): Assembly['zones'] {
  return [
    zone({
      id: 'grille',
      name: 'Cab front, beside the grille',
      face: 'front',
      mount: 'panel',
      centre: [wallX + 0.002 - 0.02, 0, s.beltZ - 0.06],
      n: [1, 0, 0],
      widthM: 2 * w - 0.3,
      heightM: 0.1,
      behind: 'Front panel of the cab under the windscreen; wiper linkage in the middle',
    }),
    ...zonePair({
      id: 'lamp-panel-left',
      name: 'Lamp panel left',
      face: 'front',
      mount: 'panel',
      centre: [wallX + 0.002, w - 0.34, lampZ + 0.24],
      n: [1, 0, 0],
      widthM: 0.44,
      heightM: 0.16,
      behind: 'Front panel over the head lamps',
    }),
    zone({
      id: 'front-bumper',
      name: 'Front bumper',
      face: 'front',
      mount: 'panel',
      centre: [s.noseX + 0.002, 0, bumperMidZ],
      n: [1, 0, 0],
      widthM: 2 * w - 0.3,
      heightM: 0.2,
      behind: 'Steel bumper; siren loudspeaker in the middle',
    }),
    ...zonePair({
      id: 'corner-front-left',
      name: 'Bumper side left',
      face: 'left',
      mount: 'panel',
      centre: [(wallX + s.noseX) / 2, w - 0.018, bumperMidZ],
      n: [0, 1, 0],
      widthM: Math.max(0.2, s.noseX - wallX - 0.06),
      heightM: 0.2,
      behind: 'End of the bumper',
    }),
    zone({
      id: 'brow',
      name: 'Over the windscreen',
      face: 'front',
      mount: 'panel',
      centre: [s.roofFrontX + 0.062, 0, s.railZ + 0.03],
      n: [1, 0, 0],
      widthM: 2 * s.railY - 0.3,
      heightM: 0.12,
      behind: 'Front of the cab roof over the windscreen',
    }),
  ];
}

function frontLamps({ w, wallX, lampZ }: FrontMeasures): Assembly['factoryLamps'] {
  return [
    ...lampPair(
      'head-left',
      'Left head lamp, low beam',
      'low beam',
      acrossRect(wallX + 0.01, w - 0.34, w - 0.1, lampZ, lampZ + 0.14),
    ),
    ...lampPair(
      'high-left',
      'Left head lamp, high beam',
      'high beam',
      acrossRect(wallX + 0.01, w - 0.56, w - 0.36, lampZ, lampZ + 0.14),
    ),
    ...lampPair(
      'turn-front-left',
      'Left front turn signal',
      'turn',
      acrossRect(wallX + 0.01, w - 0.08, w - 0.01, lampZ, lampZ + 0.14),
    ),
  ];
}

function frontArt(s: Stations, { w, wallX, bumper0, lampZ }: FrontMeasures): Assembly['art'] {
  return [
    ...onSides((b) => [
      b.fill('trim', rect(wallX - 0.02, s.noseX, bumper0, s.bumperTopZ, 0.04)),
      b.fill('shade', rect(wallX, wallX + 0.02, lampZ, lampZ + 0.14)),
    ]),
    ...onView('plan', (b) => [
      b.fill('trim', rect(wallX, s.noseX, -(w - 0.02), w - 0.02, 0.06)),
      b.fill(
        'glass',
        bothSides([
          [s.cowlX + 0.02, w - 0.14, 0.08],
          [s.roofFrontX + 0.02, s.railY - 0.02, 0.04],
        ]),
      ),
    ]),
  ];
}
