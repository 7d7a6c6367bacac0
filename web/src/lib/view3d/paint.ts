import { project } from '@flarik/core/vehicle/picture/views';
import type { ArtShape, Vehicle, View } from '@flarik/core/vehicle/types';
import { isOpen, type OpenParts } from '@flarik/core/vehicle/vehicle';

/** A view's picture as pixels, and how a point of the view finds its place on it. */
export interface Painted {
  readonly canvas: HTMLCanvasElement;
  /** From metres of the view to shares of the picture's width and height. */
  readonly at: (a: number, b: number) => readonly [u: number, v: number];
}

const PIXELS_PER_M = 150;
const MARGIN_M = 0.4;

interface Ink {
  readonly fill?: string;
  readonly stroke?: string;
  readonly px?: number;
}

const INK: Readonly<Record<ArtShape['kind'], Ink>> = {
  body: { fill: '#aab2ba', stroke: '#5b6670', px: 2 },
  shade: { fill: '#6b747d', stroke: '#4a535b', px: 1 },
  glass: { fill: '#1d2a35', stroke: '#44535f', px: 1.5 },
  trim: { fill: '#3c444b' },
  tyre: { fill: '#17191b' },
  rim: { fill: '#7c858d' },
  cut: { stroke: '#565f68', px: 1.5 },
  opening: { fill: '#0b0d0f' },
  shine: { stroke: '#c8d0d7', px: 1.5 },
};

const REARWARD: readonly string[] = ['tail', 'stop'];

/** Half the extent of a view across and its height, m. */
function extentOf(vehicle: Vehicle, view: View): { half: number; low: number; high: number } {
  if (view === 'plan')
    return { half: vehicle.lengthM / 2, low: -vehicle.widthM / 2, high: vehicle.widthM / 2 };
  const across = view === 'front' || view === 'rear' ? vehicle.widthM : vehicle.lengthM;
  return { half: across / 2, low: 0, high: vehicle.heightM };
}

/** What is filled is spread so far beyond its outline, m: no face that follows it ends in the bare ground of the picture. */
const SPREAD_M = 0.2;

/** What of a drawing is painted: the whole, or its wheels alone. */
export type Of = 'vehicle' | 'wheels';
const WHEELS: ReadonlySet<ArtShape['kind']> = new Set<ArtShape['kind']>(['tyre', 'rim']);

/**
 * Paints a view of the vehicle as it is drawn on the sheet, for laying on its solids: its body spread a little beyond
 * its outline; or its wheels.
 */
export function paintView(vehicle: Vehicle, view: View, open: OpenParts, of: Of = 'vehicle'): Painted {
  const { half, low, high } = extentOf(vehicle, view);
  const width = 2 * (half + MARGIN_M);
  const height = high - low + 2 * MARGIN_M;
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(width * PIXELS_PER_M);
  canvas.height = Math.ceil(height * PIXELS_PER_M);
  const pen = canvas.getContext('2d');
  const at = (a: number, b: number) => [(a + width / 2) / width, (b - low + MARGIN_M) / height] as const;
  if (pen === null) return { canvas, at };
  // Metres, b up.
  pen.setTransform(
    PIXELS_PER_M,
    0,
    0,
    -PIXELS_PER_M,
    (width / 2) * PIXELS_PER_M,
    (high + MARGIN_M) * PIXELS_PER_M,
  );
  pen.lineJoin = 'round';
  if (of === 'vehicle')
    for (const { view: drawn, kind, path } of vehicle.art) {
      if (drawn !== view || (kind !== 'body' && kind !== 'shade' && kind !== 'trim')) continue;
      const { fill } = INK[kind];
      if (fill !== undefined)
        draw(pen, new Path2D(path), { fill, stroke: fill, px: 2 * SPREAD_M * PIXELS_PER_M });
    }
  for (const shape of vehicle.art) {
    if (shape.view !== view || (of === 'wheels' && !WHEELS.has(shape.kind))) continue;
    const stands = isOpen(vehicle, shape.partId, open);
    if (shape.kind === 'opening' ? !stands : stands) continue;
    draw(pen, new Path2D(shape.path), INK[shape.kind]);
  }
  if (of === 'wheels') return { canvas, at };
  for (const lamp of vehicle.factoryLamps) {
    if (!facing(view, lamp.outline[0]?.[0] ?? 0, lamp.outline[0]?.[1] ?? 0, lamp.does)) continue;
    const path = new Path2D(
      `M${lamp.outline
        .map((p) => project(view, p))
        .map(([a, b]) => `${a},${b}`)
        .join('L')}Z`,
    );
    draw(pen, path, { fill: REARWARD.includes(lamp.does) ? '#6d2027' : '#cfd6dc', stroke: '#4a535b', px: 1 });
  }
  return { canvas, at };
}

function facing(view: View, x: number, y: number, does: string): boolean {
  if (view === 'front') return x > 0.5 && !REARWARD.includes(does);
  if (view === 'rear') return x < -0.5 && does !== 'head' && does !== 'low beam';
  return (view === 'left' && y > 0.7) || (view === 'right' && y < -0.7);
}

function draw(pen: CanvasRenderingContext2D, path: Path2D, { fill, stroke, px = 1 }: Ink): void {
  if (fill !== undefined) {
    pen.fillStyle = fill;
    pen.fill(path);
  }
  if (stroke !== undefined) {
    pen.strokeStyle = stroke;
    pen.lineWidth = px / PIXELS_PER_M;
    pen.stroke(path);
  }
}
