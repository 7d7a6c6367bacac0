<script lang="ts">
  import type { DrawnRect } from '@flarik/core/vehicle/picture/drawn';
  import type { View } from '@flarik/core/vehicle/types';
  import type { Point2 } from '@flarik/core/geometry/polygon';
  import { trackDrag } from '$lib/editor/trackDrag';
  import type { Frame } from '../arrangement';
  import Dimension from '../Dimension.svelte';

  /** A view on which a rectangle is drawn, to 5 mm. */
  let {
    view,
    frame,
    onview,
    ondrawn,
  }: {
    view: View;
    frame: Frame;
    /** Where the pointer is on the view, m. */
    onview: (clientX: number, clientY: number) => Point2 | null;
    ondrawn: (rect: DrawnRect) => void;
  } = $props();

  const GRAIN_M = 0.005;
  /** What is drawn smaller than this was a slip of the hand, m. */
  const LEAST_M = 0.02;
  let rect = $state.raw<DrawnRect | null>(null);

  const round = ([a, b]: Point2): Point2 => [
    Math.round(a / GRAIN_M) * GRAIN_M,
    Math.round(b / GRAIN_M) * GRAIN_M,
  ];
  const sizeOf = ({ from, to }: DrawnRect): Point2 => [Math.abs(to[0] - from[0]), Math.abs(to[1] - from[1])];

  function draw(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    const start = onview(event.clientX, event.clientY);
    if (start === null) return;
    const upTo = (x: number, y: number): DrawnRect => ({
      view,
      from: round(start),
      to: round(onview(x, y) ?? start),
    });
    trackDrag(event, {
      move: (x, y) => (rect = upTo(x, y)),
      drop: (x, y) => {
        const drawn = upTo(x, y);
        rect = null;
        if (Math.min(...sizeOf(drawn)) >= LEAST_M) ondrawn(drawn);
      },
      cancel: () => (rect = null),
    });
  }
</script>

<rect
  class="canvas"
  x={frame.left - frame.x}
  y={frame.y - frame.top - frame.height}
  width={frame.width}
  height={frame.height}
  role="presentation"
  data-draw={view}
  onpointerdown={(event) => draw(event)}
/>
{#if rect !== null}
  {@const [width, height] = sizeOf(rect)}
  <rect
    class="drawn"
    x={Math.min(rect.from[0], rect.to[0])}
    y={Math.min(rect.from[1], rect.to[1])}
    {width}
    {height}
  />
  <Dimension
    from={[rect.from[0], rect.to[1]]}
    to={rect.to}
    text="{Math.round(width * 1000)} × {Math.round(height * 1000)} mm"
  />
{/if}

<style>
  .canvas {
    fill: color-mix(in srgb, var(--zone-fit) 7%, transparent);
    stroke: var(--zone-fit);
    stroke-dasharray: 6 4;
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    cursor: crosshair;
  }

  .drawn {
    fill: color-mix(in srgb, var(--zone-fit) 30%, transparent);
    stroke: var(--zone-fit);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
</style>
