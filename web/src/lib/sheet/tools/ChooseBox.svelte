<script lang="ts">
  import type { Point2 } from '@flarik/core/geometry/polygon';
  import { getEditor } from '$lib/editor/context';
  import { trackDrag } from '$lib/editor/trackDrag';
  import type { Paper } from '../paper.svelte';
  import { lampsWithin } from './lampsWithin';

  /** Chooses all lamps in a box that is drawn with Shift held. */
  let { paper }: { paper: Paper } = $props();

  const editor = getEditor()();
  let box = $state.raw<{ from: Point2; to: Point2 } | null>(null);

  export function press(event: PointerEvent): void {
    const { svg } = paper;
    if (event.button !== 0 || !event.shiftKey || svg === undefined) return;
    const start = paper.at(event.clientX, event.clientY);
    if (start === null) return;
    trackDrag(event, {
      move: (x, y) => (box = { from: start, to: paper.at(x, y) ?? start }),
      drop: (x, y) => {
        box = null;
        const ids = lampsWithin(svg, [event.clientX, event.clientY], [x, y]);
        editor.select([...new Set([...editor.selection, ...ids])]);
      },
      cancel: () => (box = null),
    });
  }
</script>

{#if box !== null}
  <rect
    x={Math.min(box.from[0], box.to[0])}
    y={Math.min(box.from[1], box.to[1])}
    width={Math.abs(box.to[0] - box.from[0])}
    height={Math.abs(box.to[1] - box.from[1])}
  />
{/if}

<style>
  rect {
    fill: color-mix(in srgb, var(--zone-fit) 30%, transparent);
    stroke: var(--zone-fit);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
</style>
