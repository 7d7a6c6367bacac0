<script lang="ts">
  import type { Point2 } from '@flarik/core/geometry/polygon';

  /** A measured distance: a line between two ticks with its figure beside it. */
  let {
    from,
    to,
    text,
    strong = false,
  }: { from: Point2; to: Point2; text: string; strong?: boolean } = $props();
  const TICK_M = 0.03;

  const along = $derived.by((): Point2 => {
    const length = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
    return [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  });
  const upright = $derived(Math.abs(along[1]) > 0.7);
  const tick = ([a, b]: Point2): string =>
    `M${a - along[1] * TICK_M},${b + along[0] * TICK_M}L${a + along[1] * TICK_M},${b - along[0] * TICK_M}`;
</script>

<g class:strong aria-hidden="true">
  <path d="M{from[0]},{from[1]}L{to[0]},{to[1]}{tick(from)}{tick(to)}" />
  <text
    class:upright
    transform="translate({(from[0] + to[0]) / 2 + (upright ? 0.025 : 0)},{(from[1] + to[1]) / 2 +
      (upright ? 0 : 0.025)}) scale(1,-1)">{text}</text
  >
</g>

<style>
  path {
    stroke: var(--accent);
    stroke-width: 1.2;
    vector-effect: non-scaling-stroke;
    fill: none;
  }

  text {
    font-size: calc(11 * var(--px));
    letter-spacing: 0;
    text-anchor: middle;
    fill: var(--accent);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: calc(3 * var(--px));
  }

  .upright {
    text-anchor: start;
    dominant-baseline: middle;
  }

  .strong path {
    stroke: var(--warn);
    stroke-width: 2;
  }

  .strong text {
    font-size: calc(14 * var(--px));
    font-weight: 600;
    fill: var(--warn);
  }

  g {
    pointer-events: none;
  }
</style>
