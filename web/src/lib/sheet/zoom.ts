import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom';
import type { Attachment } from 'svelte/attachments';

export interface Zoomer {
  /** Shows a rectangle of the drawing, in its own units; null shows all. */
  show: (area: { x: number; y: number; width: number; height: number } | null) => void;
  by: (factor: number) => void;
}

/** Wheel and drag zoom for an SVG whose viewBox is `size`; `onmove` gets each new transform. */
export function zoomable(
  size: { width: number; height: number },
  onmove: (transform: ZoomTransform) => void,
  onready: (zoomer: Zoomer) => void,
): Attachment<SVGSVGElement> {
  return (svg) => {
    const target = select<SVGSVGElement, unknown>(svg);
    const behaviour = zoom<SVGSVGElement, unknown>()
      .scaleExtent([1, 14])
      .extent([
        [0, 0],
        [size.width, size.height],
      ])
      .translateExtent([
        [-1, -1],
        [size.width + 1, size.height + 1],
      ])
      .filter(
        (event: Event) =>
          event.type === 'wheel' ||
          (event.target instanceof Element &&
            event.target.hasAttribute('data-paper') &&
            !(event instanceof MouseEvent && event.shiftKey)),
      )
      .on('zoom', (event: { transform: ZoomTransform }) => onmove(event.transform));
    target.call(behaviour).on('dblclick.zoom', null);
    onready({
      show: (area) => {
        if (area === null) return void target.call(behaviour.transform.bind(behaviour), zoomIdentity);
        const k = Math.min(size.width / area.width, size.height / area.height) * 0.94;
        const to = zoomIdentity
          .translate(size.width / 2, size.height / 2)
          .scale(k)
          .translate(-(area.x + area.width / 2), -(area.y + area.height / 2));
        target.call(behaviour.transform.bind(behaviour), to);
      },
      by: (factor) => void target.call(behaviour.scaleBy.bind(behaviour), factor),
    });
    return () => target.on('.zoom', null);
  };
}
