<script lang="ts">
  import { changeOwn } from '@flarik/core/design/ownEdits';
  import { addCorner, cornersIn, moveCorner } from '@flarik/core/design/shapeEdits';
  import type { WorkPlace } from '@flarik/core/design/site';
  import { cornersOf } from '@flarik/core/sight/workPlace';
  import { InputError } from '@flarik/core/words/errors';
  import { getEditor } from '$lib/editor/context';
  import { trackDrag } from '$lib/editor/trackDrag';

  /** The work places of the build on the plan: each dragged by its middle, and by its corners where it lies level. */
  let {
    px,
    py,
    chosenId,
    bodyAt,
    choose,
  }: {
    /** Body axes to the picture. */
    px: (xM: number) => number;
    py: (yM: number) => number;
    chosenId: string | null;
    /** The window to body axes, m. */
    bodyAt: (clientX: number, clientY: number) => { readonly xM: number; readonly yM: number };
    choose: (id: string) => void;
  } = $props();
  const editor = getEditor()();
  const places = $derived(editor.build.workPlaces);
  type Edit = (build: typeof editor.build) => typeof editor.build;

  const within = (m: number, most: number): number =>
    Math.min(most, Math.max(-most, Math.round(m * 20) / 20));

  function drag(press: PointerEvent, name: string, to: (clientX: number, clientY: number) => Edit): void {
    press.preventDefault();
    press.stopPropagation();
    trackDrag(press, {
      move: (x, y) => taken(() => editor.drag(to(x, y))),
      drop: (x, y) => {
        if (!taken(() => editor.edit(name, to(x, y)))) editor.cancelDrag();
      },
      cancel: () => editor.cancelDrag(),
    });
  }

  /** An outline that crosses itself is not taken: the last that was stays. */
  function taken(edit: () => void): boolean {
    try {
      edit();
      return true;
    } catch (error) {
      if (error instanceof InputError) return false;
      throw error;
    }
  }

  function dragPlace(press: PointerEvent, { id, name }: WorkPlace): void {
    choose(id);
    drag(press, `Move ${name}`, (clientX, clientY) => {
      const { xM, yM } = bodyAt(clientX, clientY);
      return (b) => changeOwn(b, 'workPlaces', id, { xM: within(xM, 60), yM: within(yM, 60) });
    });
  }

  /** @param isNew - a corner in the middle of the edge after that one is drawn out */
  function dragCorner(press: PointerEvent, place: WorkPlace, corner: number, isNew: boolean): void {
    const { id, name } = place;
    const shape = isNew ? addCorner(place.shape, corner) : place.shape;
    const at = isNew ? corner + 1 : corner;
    drag(press, isNew ? `New corner of ${name}` : `Corner of ${name}`, (clientX, clientY) => {
      const { xM, yM } = bodyAt(clientX, clientY);
      const to = { alongM: within(xM - place.xM, 40), acrossM: within(yM - place.yM, 30) };
      return (b) => changeOwn(b, 'workPlaces', id, { shape: moveCorner(shape, at, to) });
    });
  }
</script>

{#each places as place (place.id)}
  {@const corners = cornersOf(place)}
  <polygon
    class="place"
    class:chosen={place.id === chosenId}
    points={corners.map(([x, y]) => `${px(x)},${py(y)}`).join(' ')}
  />
  <circle
    class="grip"
    class:chosen={place.id === chosenId}
    role="presentation"
    cx={px(place.xM)}
    cy={py(place.yM)}
    r="0.28"
    onpointerdown={(event) => dragPlace(event, place)}
  />
  {#if place.id === chosenId && place.facing === 'up' && place.shape.kind === 'corners'}
    {#each cornersIn(place.shape) as { alongM, acrossM }, i (i)}
      {@const next = cornersIn(place.shape)[(i + 1) % corners.length]}
      {#if next !== undefined}
        <circle
          class="between"
          role="presentation"
          cx={px(place.xM + (alongM + next.alongM) / 2)}
          cy={py(place.yM + (acrossM + next.acrossM) / 2)}
          r="0.16"
          onpointerdown={(event) => dragCorner(event, place, i, true)}
        />
      {/if}
      <rect
        class="corner"
        role="presentation"
        x={px(place.xM + alongM) - 0.2}
        y={py(place.yM + acrossM) - 0.2}
        width="0.4"
        height="0.4"
        onpointerdown={(event) => dragCorner(event, place, i, false)}
      />
    {/each}
  {/if}
{/each}

<style>
  .place {
    fill: color-mix(in srgb, var(--accent) 25%, transparent);
    stroke: #ffffff;
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }

  .place.chosen {
    stroke: var(--on);
    stroke-width: 2.5;
  }

  .grip,
  .corner,
  .between {
    fill: var(--accent);
    stroke: #ffffff;
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    pointer-events: auto;
    cursor: move;
  }

  .grip.chosen,
  .corner {
    fill: var(--on);
  }

  .between {
    fill: #ffffff;
    stroke: var(--on);
  }
</style>
