import { seenFromM, thresholdLx } from '../../src/coverage/range.ts';
import { illuminanceLx } from '../../src/coverage/near.ts';
import { thresholdIncrement, veilPerLux } from '../../src/sight/glare.ts';
import { relativeLuminance } from '../../src/sight/observer.ts';
import { overCrestM, stoppingM } from '../../src/sight/stopping.ts';
import type { LineSource } from '../../src/sight/source.ts';
import { fogBackscatter } from '../../src/sight/veil.ts';
import { planeLx } from '../../src/sight/ground.ts';
import type { Vec3 } from '../../src/geometry/vec.ts';

/** A figure that the sources of the formulas, or a sum by hand, give. */
export interface Figure {
  readonly quantity: string;
  readonly expected: number;
  /** It comes out as near as this share. */
  readonly within: number;
  readonly found: () => number;
}

const DAY = 10_000;
const NIGHT = 1;
const allRound = (centre: Vec3, cd: number): LineSource => ({
  centre,
  cdToward: () => cd,
  cdOn: () => () => cd,
});
const EYE: Vec3 = [0, 0, 1.3];
const AHEAD: Vec3 = [1, 0, 0];
const veil = (centre: Vec3, v: number): number => fogBackscatter(allRound(centre, 1000), EYE, AHEAD, v);
/** Just seen, with a factor on the threshold: as if the lamp were so much weaker. */
const noticed = (cd: number, v: number, k: number): number => seenFromM(cd / k, v, DAY);

const figure = (quantity: string, expected: number, found: () => number, within = 5e-4): Figure => ({
  quantity,
  expected,
  within,
  found,
});

/** Figures of the formulas of visibility, to be held against what is computed. */
export const FIGURES: readonly Figure[] = [
  figure('Threshold at the eye, L 0, lx', 2.42e-7, () => thresholdLx(0)),
  figure('Threshold at the eye, L 1, lx', 6.449e-7, () => thresholdLx(NIGHT)),
  figure('Threshold at the eye, L 10 000, lx', 9.989e-4, () => thresholdLx(DAY)),
  figure('333.33 cd seen from, V 20 km, day, m', 554.19, () => seenFromM(333.33, 20_000, DAY)),
  figure('333.33 cd seen from, V 200 m, day, m', 166.28, () => seenFromM(333.33, 200, DAY)),
  figure('333.33 cd seen from, V 200 m, night, m', 507.64, () => seenFromM(333.33, 200, NIGHT)),
  figure('500 cd seen from, V 80 m, day, m', 102.95, () => seenFromM(500, 80, DAY)),
  figure('500 cd seen from, V 80 m, night, m', 251.41, () => seenFromM(500, 80, NIGHT)),
  figure('3000 cd seen from, V 80 m, day, m', 135.95, () => seenFromM(3000, 80, DAY)),
  figure('3000 cd noticed (k 20), V 200 m, day, m', 137.93, () => noticed(3000, 200, 20)),
  figure('Stopping from 50 km/h, m', 63.1, () => stoppingM(50, 0, false), 1e-3),
  figure('Stopping from 60 km/h, m', 82.5, () => stoppingM(60, 0, false), 1e-3),
  figure('Stopping from 90 km/h, m', 154.4, () => stoppingM(90, 0, false)),
  figure('Stopping from 90 km/h at −6 %, m', 173.6, () => stoppingM(90, -6, false)),
  figure('Stopping from 90 km/h in the wet, m', 218.75, () => stoppingM(90, 0, true)),
  figure('Stopping from 110 km/h, m', 213.7, () => stoppingM(110, 0, false)),
  figure('Over a crest L 300, A 6, eye 1.08 m, lamp 2.5 m, m', 262, () => overCrestM(300, 6, 1.08, 2.5)),
  figure('Over a crest L 300, A 6, eye 1.08 m, lamp 0.6 m, m', 181.4, () => overCrestM(300, 6, 1.08, 0.6)),
  figure('625 nm for a protan eye', 0.28, () => relativeLuminance('protan', [0.7006, 0.2993]), 2e-3),
  figure('625 nm for a deutan eye', 1.362, () => relativeLuminance('deutan', [0.7006, 0.2993])),
  figure('590 nm for a protan eye', 0.737, () => relativeLuminance('protan', [0.5752, 0.4242]), 1e-3),
  figure('590 nm for a deutan eye', 1.132, () => relativeLuminance('deutan', [0.5752, 0.4242])),
  figure('525 nm for a protan eye', 1.308, () => relativeLuminance('protan', [0.1142, 0.8262])),
  figure('525 nm for a deutan eye', 0.845, () => relativeLuminance('deutan', [0.1142, 0.8262]), 1e-3),
  figure('470 nm for a protan eye', 1.76, () => relativeLuminance('protan', [0.1241, 0.0578])),
  figure('470 nm for a deutan eye', 0.618, () => relativeLuminance('deutan', [0.1241, 0.0578]), 1e-3),
  figure('White 6500 K for a protan eye', 1.032, () => relativeLuminance('protan', [0.3127, 0.329])),
  figure('White 6500 K for a deutan eye', 0.984, () => relativeLuminance('deutan', [0.3127, 0.329])),
  figure('2000 cd all round at 2.5 m: beneath, lx', 320, () =>
    planeLx([allRound([0, 0, 2.5], 2000)], [0, 0, 0]),
  ),
  figure('2000 cd all round at 2.5 m: 3 m aside, lx', 83.96, () =>
    planeLx([allRound([0, 0, 2.5], 2000)], [0, 3, 0]),
  ),
  figure(
    '1000 cd at 10 m, 5° off: E across the view, lx',
    9.96,
    () => illuminanceLx(1000, 10, 1e12) * Math.cos(Math.PI / 36),
  ),
  figure('The same: veil, cd/m²', 3.985, () => veilPerLux(5) * (1000 / 100) * Math.cos(Math.PI / 36)),
  figure('The same: threshold increment at 1 cd/m², %', 259, () =>
    thresholdIncrement(veilPerLux(5) * 10 * Math.cos(Math.PI / 36), 1),
  ),
  figure('Thrown back, lamp above the eye, V 50, cd/m²', 2.003, () => veil([0, 0, 2], 50)),
  figure('Thrown back, lamp above the eye, V 80, cd/m²', 1.387, () => veil([0, 0, 2], 80)),
  figure('Thrown back, lamp above the eye, V 200, cd/m²', 0.629, () => veil([0, 0, 2], 200), 1e-3),
  figure('Thrown back, lamp ahead and below, V 50, cd/m²', 10.24, () => veil([2, 0.3, 0.7], 50)),
  figure('Thrown back, lamp ahead and below, V 80, cd/m²', 6.85, () => veil([2, 0.3, 0.7], 80)),
  figure('Thrown back, lamp ahead and below, V 200, cd/m²', 2.95, () => veil([2, 0.3, 0.7], 200)),
];
