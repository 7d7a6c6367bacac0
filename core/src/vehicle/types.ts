import type { Motion } from '../geometry/frame.ts';
import type { Solid } from '../geometry/solid.ts';
import type { Vec3 } from '../geometry/vec.ts';

export type Face = 'front' | 'right' | 'rear' | 'left' | 'corner' | 'top' | 'inside';

/** How a zone takes a fixture. */
export type MountStyle = 'panel' | 'glass' | 'roof' | 'mirror' | 'edge';

/** A part that turns about a hinge between shut and open. */
export interface MovingPart {
  readonly id: string;
  readonly name: string;
  /** The part when fully open, from shut. */
  readonly open: Motion;
}

/** A flat patch for lamps. `u` is to the right as seen from outside, `v` up (or forward on the roof), `n` outward. */
export interface MountZone {
  readonly id: string;
  readonly name: string;
  readonly face: Face;
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
}

export type FactoryFunction = 'head' | 'turn' | 'tail' | 'stop' | 'reverse' | 'plate';

/** A lamp the maker fitted: drawn, named, left alone. */
export interface FactoryLamp {
  readonly id: string;
  readonly name: string;
  readonly does: FactoryFunction;
  readonly partId: string | null;
  /** Corners of its lens, in order. */
  readonly outline: readonly Vec3[];
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

/** A vehicle worked out from its dimensions. */
export interface Vehicle {
  readonly name: string;
  readonly lengthM: number;
  readonly widthM: number;
  readonly heightM: number;
  readonly solids: readonly Solid[];
  readonly parts: readonly MovingPart[];
  readonly zones: readonly MountZone[];
  readonly factoryLamps: readonly FactoryLamp[];
  readonly art: readonly ArtShape[];
}
