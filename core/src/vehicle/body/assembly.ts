import { mirrorSolid, type Solid } from '../../geometry/solid.ts';
import { turnAbout, type Motion } from '../../geometry/frame.ts';
import { mirrorY, type Vec3 } from '../../geometry/vec.ts';
import type {
  Assembly,
  FactoryFunction,
  FactoryLamp,
  KeepOut,
  KeepOutKind,
  MovingPart,
  PartKind,
} from '../types.ts';

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
const mayTie = (does: FactoryFunction): boolean => !['stop', 'turn', 'plate'].includes(does);

export const lamp = (
  id: string,
  name: string,
  does: FactoryFunction,
  outline: readonly Vec3[],
  partId: string | null = null,
): FactoryLamp => ({ id, name, does, mayTie: mayTie(does), partId, outline });

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
