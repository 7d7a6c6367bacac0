<script lang="ts">
  import type { Placement } from '@flarik/core/design/placement';
  import { changePlacement } from '@flarik/core/arrange/lamps';
  import type { Build } from '@flarik/core/design/schema';
  import type { Point2 } from '@flarik/core/geometry/polygon';
  import { getEditor } from '$lib/editor/context';
  import { trackDrag } from '$lib/editor/trackDrag';
  import { gripOf, panToward, turned, TURN_DEG } from '../directions';

  /** The end of a lamp's beam on the plan, by which it is aimed: in steps of 5°, or of 1° with Alt held. */
  let {
    lamp,
    px,
    onplan,
    onsay,
  }: {
    lamp: Placement;
    /** A pixel on the screen, m. */
    px: number;
    /** Where the pointer is on the plan, m. */
    onplan: (clientX: number, clientY: number) => Point2 | null;
    /** Says how far it is turned while it is dragged; null when it is let go. */
    onsay: (text: string | null) => void;
  } = $props();

  const editor = getEditor()();
  const grip = $derived(gripOf(editor.lookup, lamp, editor.open));

  function aim(event: PointerEvent): void {
    if (event.button !== 0 || grip === null) return;
    event.stopPropagation();
    const held = grip;
    const stepDeg = event.altKey ? 1 : TURN_DEG;
    const { id, label, panDeg: before } = lamp;
    const change = (x: number, y: number) => {
      const to = onplan(x, y);
      const panDeg = turned(before, to === null ? 0 : panToward(held, to, stepDeg));
      onsay(`pan ${Math.round(panDeg)}°`);
      return (b: Build): Build => changePlacement(b, id, { panDeg });
    };
    trackDrag(event, {
      move: (x, y) => editor.drag(change(x, y)),
      drop: (x, y) => {
        editor.edit(`Aim ${label}`, change(x, y));
        onsay(null);
      },
      cancel: () => {
        editor.cancelDrag();
        onsay(null);
      },
    });
  }
</script>

{#if grip !== null}
  <path d="M{grip.from[0]},{grip.from[1]}L{grip.at[0]},{grip.at[1]}" />
  <circle
    class="grip"
    cx={grip.at[0]}
    cy={grip.at[1]}
    r={7 * px}
    role="presentation"
    onpointerdown={(event) => aim(event)}
  >
    <title>Drag to aim {lamp.label}; keys [ and ] turn it by 5°</title>
  </circle>
{/if}

<style>
  path {
    stroke: var(--accent);
    stroke-width: 1;
    stroke-dasharray: 3 3;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }

  .grip {
    fill: var(--sheet);
    stroke: var(--accent);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
    cursor: grab;
  }
</style>
