import { COLOURS, type Colour } from '../words/colour.ts';

/** Who looks: the normal eye, or one that sees red (protan) or green (deutan) poorly. */
export const OBSERVERS = ['normal', 'protan', 'deutan'] as const;
export type Observer = (typeof OBSERVERS)[number];

/**
 * Chromaticities of the colours of lamps, CIE 1931 (x, y): the spectrum at 625, 465, 590, 505 nm; daylight of 6500 K;
 * purple as equal parts of red and blue light.
 */
export const CHROMATICITY: Readonly<Record<Colour, readonly [x: number, y: number]>> = {
  red: [0.7006, 0.2993],
  blue: [0.1355, 0.0399],
  amber: [0.5752, 0.4242],
  white: [0.3127, 0.329],
  green: [0.0039, 0.6548],
  purple: purple([0.7006, 0.2993], [0.1355, 0.0399]),
};

/** Two lights of equal luminance added. */
function purple(
  [x1, y1]: readonly [number, number],
  [x2, y2]: readonly [number, number],
): readonly [number, number] {
  const [a, b] = [1 / y1, 1 / y2];
  return [(x1 * a + x2 * b) / (a + b), 2 / (a + b)];
}

/** Smith and Pokorny's (1975) fundamentals at equal-energy white. */
const M_OF_WHITE = 0.33456;
const L_OF_WHITE = 0.6654;

/**
 * How bright a light is for an eye that lacks the long-wave (protan) or the middle-wave (deutan) cones, against how bright
 * it is for the normal eye: the luminance by the cones that are left, alike at equal-energy white.
 *
 * Fundamentals by Smith and Pokorny (1975) on X Y Z. A simplification: CIE 1931 chromaticities meet coefficients for the
 * observer of Judd and Vos, so that deep blue is approximate; tritan eyes and the shift at dusk are left out.
 *
 * @param chromaticity - CIE 1931 x, y
 * @returns 1 for the normal eye
 */
export function relativeLuminance(observer: Observer, [x, y]: readonly [number, number]): number {
  const [X, Z] = [x / y, (1 - x - y) / y];
  switch (observer) {
    case 'normal':
      return 1;
    case 'protan':
      return (-0.15514 * X + 0.45684 + 0.03286 * Z) / M_OF_WHITE;
    case 'deutan':
      return (0.15514 * X + 0.54312 - 0.03286 * Z) / L_OF_WHITE;
  }
}

const byObserver = new Map(
  OBSERVERS.map((observer) => [
    observer,
    new Map(COLOURS.map((colour) => [colour, relativeLuminance(observer, CHROMATICITY[colour])])),
  ]),
);

/** How bright a lamp's colour is for an observer, against the normal eye. */
export const seenBy = (observer: Observer, colour: Colour): number =>
  byObserver.get(observer)?.get(colour) ?? 1;

/**
 * How a picture looks to an eye that lacks the long-wave or the middle-wave cones: factors on linear red, green and blue, row
 * by row (Machado, Oliveira and Fernandes 2009, severity 1).
 */
export const SEEN_AS: Readonly<Record<Exclude<Observer, 'normal'>, readonly (readonly number[])[]>> = {
  protan: [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  deutan: [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
};
