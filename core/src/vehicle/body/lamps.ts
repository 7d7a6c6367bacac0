import type { Vec3 } from '../../geometry/vec.ts';
import type { FactoryLamp } from '../types.ts';
import { acrossRect, alongRect, lamp, lampPair } from './assembly.ts';
import type { Stations } from './dimension.ts';

/**
 * The lamps that every vehicle has besides those its body draws: day-running and parking lamps under the head lamps,
 * markers on the flanks and over a wide cab, turn repeaters on the mirrors, a lamp in the load space; and tail lamps apart from the stop
 * lamps they share a lens with.
 */
export const fittedLamps = (s: Stations, drawn: readonly FactoryLamp[]): FactoryLamp[] => [
  ...drawn.flatMap(tailApart),
  ...underHeadLamps(drawn),
  ...lampPair('marker-front-left', 'Left front marker', 'marker', flankRect(s, frontMarkerX(s), s.halfWidth)),
  ...lampPair('marker-rear-left', 'Left rear marker', 'marker', flankRect(s, rearMarkerX(s), s.outerY)),
  ...lampPair(
    'mirror-turn-left',
    'Left mirror turn signal',
    'mirror turn',
    acrossRect(s.doorFrontX + 0.002, s.halfWidth + 0.14, s.halfWidth + 0.22, s.beltZ + 0.12, s.beltZ + 0.14),
    'door-front-left',
  ),
  ...(2 * s.outerY < WIDE_M ? [] : clearance(s)),
  ...(drawn.some(({ does }) => does === 'cargo')
    ? []
    : [lamp('cargo', 'Load space lamp', 'cargo', ceiling(s))]),
];

/** A tail and stop lamp drawn as one lens, as the two lamps it holds: the tail below, the stop above. */
function tailApart(drawn: FactoryLamp): FactoryLamp[] {
  const [a, b, c, d] = drawn.outline;
  if (!drawn.id.startsWith('tail-') || drawn.does !== 'stop') return [drawn];
  if (a === undefined || b === undefined || c === undefined || d === undefined) return [drawn];
  const half = (p: Vec3, q: Vec3): Vec3 => [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2];
  const [right, left] = [half(b, c), half(a, d)];
  const named = (does: 'tail' | 'stop') => drawn.name.replace('tail and stop lamp', `${does} lamp`);
  return [
    lamp(drawn.id, named('tail'), 'tail', [a, b, right, left], drawn.partId),
    lamp(drawn.id.replace('tail', 'stop'), named('stop'), 'stop', [left, right, c, d], drawn.partId),
  ];
}

/** Day-running and parking lamps: two strips under the inner end of each head lamp. */
function underHeadLamps(drawn: readonly FactoryLamp[]): FactoryLamp[] {
  const head = drawn.find(({ id }) => id === 'head-left');
  if (head === undefined) return [];
  const x = Math.max(...head.outline.map((p) => p[0]));
  const y = Math.min(...head.outline.map((p) => p[1]));
  const z = Math.min(...head.outline.map((p) => p[2]));
  return [
    ...lampPair(
      'day-left',
      'Left day-running lamp',
      'day',
      acrossRect(x, y + 0.01, y + 0.13, z - 0.07, z - 0.035),
    ),
    ...lampPair(
      'parking-left',
      'Left parking lamp',
      'parking',
      acrossRect(x, y + 0.14, y + 0.18, z - 0.07, z - 0.035),
    ),
  ];
}

/** A vehicle this wide shows its width at the top of its cab, m. */
const WIDE_M = 2.1;

/** Clearance lamps over the windscreen: one at each end, one in the middle. */
function clearance(s: Stations): FactoryLamp[] {
  const rect = (y: number): Vec3[] =>
    acrossRect(s.roofFrontX, y - MARKER_M / 2, y + MARKER_M / 2, s.roofZ - 0.03, s.roofZ - 0.005);
  return [
    ...lampPair('clearance-left', 'Left roof clearance lamp', 'marker', rect(s.railY - 0.08)),
    lamp('clearance-centre', 'Middle roof clearance lamp', 'marker', rect(0)),
  ];
}

const MARKER_M = 0.08;

/** Between nose and front wheel, or as near to it as there is room. */
const frontMarkerX = (s: Stations): number =>
  Math.min(s.frontAxleX + s.wheelRadius + 0.12, s.noseX - MARKER_M - 0.16);

/** Between rear wheel and tail. */
const rearMarkerX = (s: Stations): number =>
  Math.max(s.rearAxleX - s.wheelRadius - 0.2, s.tailX + MARKER_M + 0.1);

const flankRect = (s: Stations, x: number, y: number): Vec3[] =>
  alongRect(y + 0.001, x, x + MARKER_M, s.bumperTopZ - 0.07, s.bumperTopZ - 0.04);

/** A rectangle under the roof at the rear, looking down. */
function ceiling(s: Stations): Vec3[] {
  const x = Math.max(s.roofRearX, s.tailX) + 0.3;
  const z = s.railZ - 0.12;
  return [
    [x, -0.08, z],
    [x, 0.08, z],
    [x + 0.06, 0.08, z],
    [x + 0.06, -0.08, z],
  ];
}
