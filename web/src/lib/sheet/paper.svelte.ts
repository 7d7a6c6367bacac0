import type { Point2 } from '@flarik/core/geometry/polygon';
import type { View } from '@flarik/core/vehicle/types';

/** The sheet on the screen: how large it is drawn, and where on it the pointer is. */
export class Paper {
  svg = $state.raw<SVGSVGElement | undefined>();
  /** The drawing of each view, in its own metres. */
  readonly views: Partial<Record<View, SVGGElement>> = $state({});
  /** As zoomed and dragged by the user. */
  transform = $state.raw({ x: 0, y: 0, k: 1 });
  /** Pixels to a metre before zooming. */
  pxPerM = $state(70);

  /** One pixel on the screen, m. */
  readonly px = $derived(1 / (this.pxPerM * this.transform.k));

  /** Where the pointer is on the whole sheet, m. */
  at(clientX: number, clientY: number): Point2 | null {
    return within(this.svg, clientX, clientY);
  }

  /** Where the pointer is on a view, m. */
  onView(view: View, clientX: number, clientY: number): Point2 | null {
    return within(this.views[view], clientX, clientY);
  }
}

function within(element: SVGGraphicsElement | undefined, clientX: number, clientY: number): Point2 | null {
  const matrix = element?.getScreenCTM();
  if (matrix === null || matrix === undefined) return null;
  const p = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse());
  return [p.x, p.y];
}
