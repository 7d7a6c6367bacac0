import type { Point2 } from '@flarik/core/geometry/polygon';

/** The lamps whose middle, in any view, lies in a box on the screen between two corners, px. */
export function lampsWithin(sheet: SVGSVGElement, from: Point2, to: Point2): string[] {
  const [left, right] = [Math.min(from[0], to[0]), Math.max(from[0], to[0])];
  const [top, bottom] = [Math.min(from[1], to[1]), Math.max(from[1], to[1])];
  const inside = [...sheet.querySelectorAll<SVGGElement>('[data-lamp]')].filter((element) => {
    const box = element.getBoundingClientRect();
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    return x >= left && x <= right && y >= top && y <= bottom;
  });
  return [...new Set(inside.flatMap((element) => element.getAttribute('data-lamp') ?? []))];
}
