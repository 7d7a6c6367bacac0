import { mirrorSolid, type Solid } from '../../geometry/solid.ts';
import { turnAbout, type Motion } from '../../geometry/frame.ts';
import { mirrorY, type Vec3 } from '../../geometry/vec.ts';
import type { FactoryFunction } from '../../words/factoryFunction.ts';
import type { Assembly, FactoryLamp, KeepOut, KeepOutKind, MovingPart, PartKind } from '../types.ts';

/** Puts pieces together, in the order of painting. */
export function assemble(...pieces: readonly Partial<Assembly>[]): Assembly {
  return {
    solids: pieces.flatMap((p) => p.solids ?? []),
    parts: pieces.flatMap((p) => p.parts ?? []),
    zones: pieces.flatMap((p) => p.zones ?? []),
    factoryLamps: pieces.flatMap((p) => p.factoryLamps ?? []),
    keepOuts: pieces.flatMap((p) => p.keepOuts ?? []),
    art: pieces.flatMap((p) => p.art ?? []),
  };
}

const right = (text: string): string => text.replace('left', 'right').replace('Left', 'Right');

/** Solids of the left side and their mirror images. */
export const mirrored = (solids: readonly Solid[]): Solid[] => [...solids, ...solids.map(mirrorSolid)];

/** A part with one stop, named like the part. */
export const part = (
  id: string,
  name: string,
  kind: PartKind,
  motion: Motion,
  stop = 'open',
): MovingPart => ({
  id,
  name,
  kind,
  stops: [{ id, name: stop, motion }],
});

const mirrorMotion = (m: Motion): Motion => ({
  through: mirrorY(m.through),
  axis: mirrorY(m.axis),
  angleDeg: -m.angleDeg,
  by: mirrorY(m.by),
});

/** A left-hand part and its mirror image. */
export function partPair(left: MovingPart): MovingPart[] {
  const [first, ...rest] = left.stops.map((s) => ({
    ...s,
    id: right(s.id),
    motion: mirrorMotion(s.motion),
  }));
  if (first === undefined) return [left];
  return [left, { ...left, id: right(left.id), name: right(left.name), stops: [first, ...rest] }];
}

/** A hinged door of the left side: its hinge is a vertical line. */
export const doorPair = (id: string, name: string, hinge: Vec3, angleDeg: number): MovingPart[] =>
  partPair(part(id, name, 'door', turnAbout(hinge, [0, 0, 1], angleDeg)));

/** A lamp may be tied in unless the law gives it a meaning of its own. */
export const mayTie = (does: FactoryFunction): boolean =>
  !['stop', 'turn', 'mirror turn', 'marker', 'plate'].includes(does);

/** A lens thinner than this along an axis has no extent along it, m. */
const FLAT_M = 0.001;

/** Lamps that shine to their side; all others shine along the vehicle. */
const SIDEWARD: ReadonlySet<FactoryFunction> = new Set<FactoryFunction>(['marker']);

/**
 * Where a lamp's light goes: along the vehicle out of the end it sits at, to its side for lamps of a flank, down
 * from a ceiling. The lens may slope as it likes; the optics behind it do not.
 */
function aimOf(does: FactoryFunction, outline: readonly Vec3[]): Vec3 {
  const extent = (axis: 0 | 1 | 2): number => {
    const along = outline.map((p) => p[axis]);
    return Math.max(...along) - Math.min(...along);
  };
  if (extent(2) < FLAT_M) return [0, 0, -1];
  const mean = (axis: 0 | 1): number => outline.reduce((sum, p) => sum + p[axis], 0) / outline.length;
  // A lens drawn on a flank has no width across the vehicle.
  if (extent(1) < FLAT_M || (SIDEWARD.has(does) && extent(1) < extent(0)))
    return [0, mean(1) > 0 ? 1 : -1, 0];
  return [does === 'cargo' || (does !== 'mirror turn' && mean(0) < 0) ? -1 : 1, 0, 0];
}

export const lamp = (
  id: string,
  name: string,
  does: FactoryFunction,
  outline: readonly Vec3[],
  partId: string | null = null,
): FactoryLamp => ({ id, name, does, mayTie: mayTie(does), partId, aim: aimOf(does, outline), outline });

/** A left-hand lamp and its mirror image. */
export function lampPair(
  id: string,
  name: string,
  does: FactoryFunction,
  outline: readonly Vec3[],
  partId: string | null = null,
): FactoryLamp[] {
  const left = lamp(id, name, does, outline, partId);
  return [
    left,
    {
      ...left,
      id: right(id),
      name: right(name),
      partId: partId === null ? null : right(partId),
      aim: mirrorY(left.aim),
      outline: outline.map(mirrorY),
    },
  ];
}

/** An upright rectangle facing along x. */
export const acrossRect = (x: number, y0: number, y1: number, z0: number, z1: number): Vec3[] => [
  [x, y0, z0],
  [x, y1, z0],
  [x, y1, z1],
  [x, y0, z1],
];

/** An upright rectangle facing along y. */
export const alongRect = (y: number, x0: number, x1: number, z0: number, z1: number): Vec3[] => [
  [x0, y, z0],
  [x1, y, z0],
  [x1, y, z1],
  [x0, y, z1],
];

export const keepOut = (name: string, kind: KeepOutKind, solid: Solid): KeepOut => ({
  id: solid.id,
  name,
  kind,
  solid,
});

/** A left-hand keep-out and its mirror image. */
export const keepOutPair = (name: string, kind: KeepOutKind, solid: Solid): KeepOut[] => [
  keepOut(name, kind, solid),
  keepOut(right(name), kind, mirrorSolid(solid)),
];
