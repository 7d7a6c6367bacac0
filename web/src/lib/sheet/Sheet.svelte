<script lang="ts">
  import { misfit, rollToFit } from '@flarik/core/resolve/place';
  import type { DrawnRect } from '@flarik/core/vehicle/picture/drawn';
  import type { View } from '@flarik/core/vehicle/types';
  import { onMount } from 'svelte';
  import { getEditor } from '$lib/editor/context';
  import { arrange, VIEWS } from './arrangement';
  import Dimension from './Dimension.svelte';
  import { markOf } from './dimensions';
  import { glows } from './glow';
  import Hatches from './Hatches.svelte';
  import { firstLayers, type Layers } from './layers';
  import { Paper } from './paper.svelte';
  import { rememberedPictures } from './pictures';
  import SheetTools from './SheetTools.svelte';
  import SheetView from './SheetView.svelte';
  import AimGrip from './tools/AimGrip.svelte';
  import ChooseBox from './tools/ChooseBox.svelte';
  import DrawCanvas from './tools/DrawCanvas.svelte';
  import { DropTool } from './tools/dropTool.svelte';
  import { MoveTool } from './tools/moveTool.svelte';
  import { zoomable, type Zoomer } from './zoom';

  /** The unfolded vehicle in five views with all that stands on it, and the tools that work there. */
  let {
    editable = true,
    show = {},
    measured = null,
    drawing = false,
    ondrawn,
    ondropper,
  }: {
    editable?: boolean;
    /** Layers drawn at first besides the usual ones. */
    show?: Partial<Layers>;
    /** The dimension of the vehicle whose place is shown. */
    measured?: string | null;
    /** A rectangle is drawn on a view instead of a lamp being moved. */
    drawing?: boolean;
    ondrawn?: (rect: DrawnRect) => void;
    /** Hands out the function that places the carried fixture where the pointer let it go. */
    ondropper?: (drop: (clientX: number, clientY: number) => void) => void;
  } = $props();

  const editor = getEditor()();
  const open = $derived(editor.open);
  const sheet = $derived(arrange(editor.vehicle, open));
  const shownMs = $derived(
    editor.preview.playing || editor.preview.timeMs > 0 ? editor.preview.timeMs : null,
  );
  const lit = $derived(glows(editor.seen, editor.drives, shownMs));
  // What is shown at first is asked once; afterwards the user chooses.
  // svelte-ignore state_referenced_locally
  let layers = $state({ ...firstLayers(), ...show });
  const present = $derived(
    editor.build.placements.filter(({ status }) =>
      editor.isBefore ? status === 'removed' || status === 'kept' : status !== 'removed',
    ),
  );
  const pictures = $derived(present.flatMap((p) => rememberedPictures(editor.lookup, p, open)));

  const paper = new Paper();
  const mover = new MoveTool(editor, paper);
  const dropper = new DropTool(editor, paper);
  let chooser: { press: (event: PointerEvent) => void } | undefined = $state();
  /** How far a beam is turned, while it is. */
  let turning = $state.raw<string | null>(null);
  const aimed = $derived(
    editable && layers.beams && editor.selected.length <= 2 ? editor.selected[0] : undefined,
  );
  const mark = $derived(measured === null ? null : markOf(editor.build.vehicle, editor.vehicle, measured));

  let enlarged = $state<View | 'all'>('all');
  let zoomer: Zoomer | undefined;
  const zoom = $derived(
    zoomable(
      sheet,
      ({ x, y, k }) => (paper.transform = { x, y, k }),
      (ready) => (zoomer = ready),
    ),
  );

  $effect(() => {
    const element = paper.svg;
    if (element === undefined) return;
    const observer = new ResizeObserver(() => {
      // Folded away it has no size; it keeps the scale that it had.
      const pxPerM = Math.min(element.clientWidth / sheet.width, element.clientHeight / sheet.height);
      if (pxPerM > 0) paper.pxPerM = pxPerM;
    });
    observer.observe(element);
    return () => observer.disconnect();
  });

  function enlarge(view: View | 'all'): void {
    enlarged = view;
    if (view === 'all') return zoomer?.show(null);
    const f = sheet.frames[view];
    zoomer?.show({ x: f.left - 0.1, y: f.top - 0.15, width: f.width + 0.2, height: f.height + 0.4 });
  }

  const status = $derived.by(() => {
    const { carried, hovered } = dropper;
    if (mark !== null) return `${mark.text}, ${mark.measured}.`;
    if (drawing) return 'Draw a rectangle on the view that shows the place best. Esc leaves it.';
    if (turning !== null) return turning;
    if (mover.moving !== null && mover.moving.onto !== null)
      return `Let go to move it to ${mover.moving.onto}.`;
    if (mover.moving !== null)
      return mover.moving.guides
        .map((g) => (g.axis === 'u' ? `across: ${g.why}` : `up: ${g.why}`))
        .join('; ');
    if (carried === null) return null;
    if (hovered === null)
      return `${carried.name}: select a green zone, or a zone from the list. Esc cancels.`;
    const rollDeg = rollToFit(carried, hovered);
    if (rollDeg === null) return `${hovered.name}: does not fit; ${misfit(carried, hovered)}.`;
    return `${hovered.name}: fits${rollDeg === 0 ? '' : `, turned by ${rollDeg}°`}. ${hovered.behind}`;
  });

  $effect(() => {
    const at = editor.carry?.at;
    if (at !== null && at !== undefined) dropper.hover(at.x, at.y);
  });

  onMount(() => {
    ondropper?.((x, y) => dropper.dropAt(x, y));
  });
</script>

<section class="sheet" aria-label="Vehicle drawing">
  <SheetTools
    {enlarged}
    bind:layers
    choosable={editable}
    onenlarge={enlarge}
    onzoom={(factor: number) => zoomer?.by(factor)}
  />
  <svg
    bind:this={paper.svg}
    {@attach zoom}
    viewBox="0 0 {sheet.width} {sheet.height}"
    class:night={editor.state.ambient === 'night'}
    role="group"
    aria-label="Five views of the vehicle"
  >
    <Hatches />
    <rect
      class="paper"
      x={-sheet.width}
      y={-sheet.height}
      width={3 * sheet.width}
      height={3 * sheet.height}
      role="presentation"
      data-paper
      onpointerdown={(event) => chooser?.press(event)}
      onclick={(event) => {
        if (editor.carry === null && !event.shiftKey) editor.select([]);
      }}
    />
    <g
      transform="translate({paper.transform.x},{paper.transform.y}) scale({paper.transform.k})"
      style:--px="{paper.px}px"
    >
      {#each VIEWS as view (view)}
        <SheetView
          {view}
          frame={sheet.frames[view]}
          titleM={sheet.titleM}
          {paper}
          {layers}
          {present}
          pictures={pictures.filter((p) => p.view === view)}
          {mover}
          {dropper}
          {editable}
          {lit}
          {shownMs}
        >
          {#if view === 'plan' && aimed !== undefined}
            <AimGrip
              lamp={aimed}
              px={paper.px}
              onplan={(x: number, y: number) => paper.onView('plan', x, y)}
              onsay={(text: string | null) => (turning = text)}
            />
          {/if}
          {#if mark?.view === view}
            <Dimension from={mark.from} to={mark.to} text={mark.text} strong />
          {/if}
          {#if drawing}
            <DrawCanvas
              {view}
              frame={sheet.frames[view]}
              onview={(x: number, y: number) => paper.onView(view, x, y)}
              ondrawn={(rect: DrawnRect) => ondrawn?.(rect)}
            />
          {/if}
        </SheetView>
      {/each}
    </g>
    <ChooseBox bind:this={chooser} {paper} />
  </svg>
  <p class="status" role="status">{status ?? ''}</p>
</section>

<style>
  .sheet {
    position: relative;
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
    height: 100%;
    background: var(--sheet);
  }

  svg {
    flex: 1;
    min-height: 0;
    width: 100%;
    touch-action: none;
    user-select: none;
  }

  svg.night {
    background: var(--sheet-night);
  }

  .paper {
    fill: transparent;
  }

  .status {
    position: absolute;
    bottom: 0;
    left: 0;
    right: 0;
    padding: 0.25rem 0.75rem;
    font-size: 12px;
    background: color-mix(in srgb, var(--sheet) 80%, transparent);
    pointer-events: none;
  }

  .status:empty {
    display: none;
  }
</style>
