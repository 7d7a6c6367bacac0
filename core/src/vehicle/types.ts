import type { MountStyle } from '../fixture/types.ts';
import type { Motion } from '../geometry/frame.ts';
import type { Mesh } from '../geometry/mesh.ts';
import type { Solid } from '../geometry/solid.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { FactoryFunction } from '../words/factoryFunction.ts';

export type ZoneFace = 'front' | 'right' | 'rear' | 'left' | 'corner' | 'top' | 'under' | 'inside';

/** How a fixture is held on its zone. Only "drill" makes holes. */
export const FIXINGS = ['drill', 'bracket', 'adhesive', 'magnet', 'as fitted'] as const;
export type Fixing = (typeof FIXINGS)[number];

export type PartKind = 'door' | 'hatch' | 'bonnet' | 'tailgate' | 'shutter' | 'blade' | 'lift' | 'mast';

/** A place in which a moving part can stand besides shut. */
export interface PartPosition {
  /** As a state names it; the part's own id when it has one stop alone. */
  readonly id: string;
  /** In words: "open", "pinned at 180°". */
  readonly name: string;
  /** The part there, from shut. */
  readonly motion: Motion;
}

/** A part that turns or slides between shut and its stops. */
export interface MovingPart {
  readonly id: string;
  readonly name: string;
  readonly kind: PartKind;
  readonly stops: readonly [PartPosition, ...PartPosition[]];
}

/** A flat patch for lamps. `u` is to the right as seen from outside, `v` up (or forward on the roof), `n` outward. */
export interface MountZone {
  readonly id: string;
  readonly name: string;
  readonly face: ZoneFace;
  readonly mount: MountStyle;
  readonly partId: string | null;
  /** The zone that mirrors this one across the centre plane; itself when it lies across the centreline. */
  readonly mirrorId: string;
  readonly centre: Vec3;
  readonly u: Vec3;
  readonly v: Vec3;
  readonly n: Vec3;
  readonly widthM: number;
  readonly heightM: number;
  /** What the installer meets behind it. */
  readonly behind: string;
  /** Free depth behind it, and how far a lamp may stand out of it, m; null when not known. */
  readonly behindM: number | null;
  readonly outM: number | null;
  /** What it bears, the usual way first. */
  readonly fixings: readonly Fixing[];
  /** A panel of one skin: it must not be drilled. */
  readonly singleWall: boolean;
  /** What the factory lamp is for that a fixture here ties in; null on every other zone. */
  readonly tiesIn: FactoryFunction | null;
  /** Whether a lamp here can be serviced without taking the vehicle apart. */
  readonly reach: 'free' | 'behind trim' | 'none';
}

/** A lamp the maker fitted: drawn, named, left alone unless it may be tied in. */
export interface FactoryLamp {
  readonly id: string;
  readonly name: string;
  readonly does: FactoryFunction;
  /** Whether a flasher may drive it besides its own circuit. */
  readonly mayTie: boolean;
  readonly partId: string | null;
  /** Where its light goes, whatever way its lens slopes; a unit vector. */
  readonly aim: Vec3;
  /** Corners of its lens, in order. */
  readonly outline: readonly Vec3[];
}

export const KEEP_OUT_KINDS = [
  'radar',
  'camera',
  'airbag',
  'latch',
  'sliding glass',
  'plate',
  'other',
] as const;
export type KeepOutKind = (typeof KEEP_OUT_KINDS)[number];

/** A volume where no lamp may stand: a sensor's view, an airbag's way, a latch. */
export interface KeepOut {
  readonly id: string;
  readonly name: string;
  readonly kind: KeepOutKind;
  readonly solid: Solid;
}

export type View = 'plan' | 'left' | 'right' | 'front' | 'rear';

/** One stroke or patch of a view's picture: an SVG path in metres, a to the viewer's right, b up. */
export interface ArtShape {
  readonly view: View;
  readonly kind: 'body' | 'shade' | 'glass' | 'trim' | 'tyre' | 'rim' | 'cut' | 'opening' | 'shine';
  /** Drawn only while this part is shut ("opening": only while open). */
  readonly partId: string | null;
  readonly path: string;
}

/** From where to where a dimension is measured. */
export interface Mark {
  readonly view: View;
  readonly from: Vec3;
  readonly to: Vec3;
}

/** What a body, or an option on it, is made of. */
export interface Assembly {
  readonly solids: readonly Solid[];
  readonly parts: readonly MovingPart[];
  readonly zones: readonly MountZone[];
  readonly factoryLamps: readonly FactoryLamp[];
  readonly keepOuts: readonly KeepOut[];
  /** In the order of painting. */
  readonly art: readonly ArtShape[];
}

/** A vehicle worked out from its dimensions. */
export interface Vehicle extends Assembly {
  readonly name: string;
  readonly lengthM: number;
  readonly widthM: number;
  readonly heightM: number;
  /** A body read from a file; null without one. */
  readonly mesh: Mesh | null;
  /** Whether the mesh stands in for the body's own fixed solids. */
  readonly meshReplacesBody: boolean;
  /** Where each dimension is measured, by its key. */
  readonly marks: Readonly<Record<string, Mark>>;
}
