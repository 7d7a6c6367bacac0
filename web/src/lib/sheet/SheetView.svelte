<script lang="ts">
  import type { Placement } from '@flarik/core/design/placement';
  import type { View } from '@flarik/core/vehicle/types';
  import { getEditor } from '$lib/editor/context';
  import { viewName, type Frame } from './arrangement';
  import Dimension from './Dimension.svelte';
  import { dimensionsOf, guidesOf } from './dimensions';
  import { beamsOf, wedgePath } from './directions';
  import type { glows } from './glow';
  import KeepOuts from './KeepOuts.svelte';
  import Lamp from './Lamp.svelte';
  import { onLampKey } from './lampKeys';
  import type { Layers } from './layers';
  import OwnShapes from './OwnShapes.svelte';
  import type { Paper } from './paper.svelte';
  import type { LampPicture } from './pictures';
  import type { DropTool } from './tools/dropTool.svelte';
  import type { MoveTool } from './tools/moveTool.svelte';
  import ViewPicture from './ViewPicture.svelte';
  import Zones from './Zones.svelte';
  import type { Snippet } from 'svelte';

  /** Letters are left out of a sheet smaller than this: they would be too small to read, px/m. */
  const SMALLEST_LETTERS = 55;
  /** Letters are as high as this, and never higher than so much of the vehicle. */
  const LETTER_PX = 13;
  const LETTER_M = 0.125;
  /** A view's title is as high as this, and never higher than its room; left out where it could not be read, px. */
  const TITLE_PX = 12;
  const SMALLEST_TITLE_PX = 8;
  /** Beams of more lamps than this hide the drawing. */
  const MOST_BEAMS = 4;
  /** A lamp is taken hold of this near its edge, px. */
  const REACH_PX = 7;

  /** One view of the vehicle with its lamps, and whatever a tool draws on it. */
  let {
    view,
    frame,
    titleM,
    paper,
    layers,
    present,
    pictures,
    mover,
    dropper,
    editable,
    lit,
    shownMs,
    children,
  }: {
    view: View;
    frame: Frame;
    /** Room below the view for its title, m. */
    titleM: number;
    paper: Paper;
    layers: Layers;
    /** The lamps that are there, before or after the work. */
    present: readonly Placement[];
    /** Those seen in this view. */
    pictures: readonly LampPicture[];
    mover: MoveTool;
    dropper: DropTool;
    editable: boolean;
    /** What lights there. */
    lit: ReturnType<typeof glows>;
    /** The moment that is shown, ms; null shows what lights at some moment. */
    shownMs: number | null;
    children?: Snippet;
  } = $props();

  const editor = getEditor()();
  /** What may go on another zone: from the catalogue, or a lamp that is dragged. */
  const carried = $derived.by(() => {
    const moved = present.find(({ id }) => id === mover.moving?.id);
    return dropper.carried ?? (moved === undefined ? null : editor.lookup.fixture(moved.fixtureId));
  });
  const open = $derived(editor.open);
  const plan = $derived(view === 'plan');
  const titleSize = $derived(Math.min(TITLE_PX * paper.px, 0.8 * titleM));
  const wedges = $derived(plan ? editor.marked.map((sector) => wedgePath(editor.vehicle, sector)) : []);
  const beams = $derived(
    plan && layers.beams && editor.selected.length <= MOST_BEAMS
      ? beamsOf(editor.lookup, editor.selected, open)
      : [],
  );
  const moving = $derived(mover.moving?.view === view ? mover.moving : null);
  const guides = $derived.by(() => {
    if (moving === null) return [];
    const { zoneId = '' } = editor.build.placements.find((p) => p.id === moving.id) ?? {};
    return guidesOf(editor.lookup, moving.guides, zoneId, view, open);
  });
  const sized = $derived(
    pictures.filter((p) =>
      mover.moving === null
        ? layers.sizes && p.primary && editor.selection.has(p.placement.id)
        : p.placement.id === moving?.id,
    ),
  );
</script>

{#if titleSize >= SMALLEST_TITLE_PX * paper.px}
  <text
    class="title"
    font-size={titleSize}
    x={frame.left + frame.width / 2}
    y={frame.top + frame.height + 0.78 * titleM}>{viewName[view]}</text
  >
{/if}
{#if !plan}
  <line class="ground" x1={frame.left - 0.1} x2={frame.left + frame.width + 0.1} y1={frame.y} y2={frame.y} />
{/if}
<g bind:this={paper.views[view]} transform="translate({frame.x},{frame.y}) scale(1,-1)">
  {#each wedges as path, i (i)}<path class="wedge" d={path} />{/each}
  <ViewPicture vehicle={editor.vehicle} {view} {open} factoryLamps={layers.factory} />
  <OwnShapes vehicle={editor.vehicle} spec={editor.build.vehicle} {view} />
  {#if layers.keepOuts}<KeepOuts vehicle={editor.vehicle} {view} {open} />{/if}
  {#each beams as beam (beam.key)}<path
      class="beam"
      style:--lamp="var(--lamp-{lit.get(beam.key)?.colour ?? 'white'})"
      d={beam.path}
    />{/each}
  {#if layers.zones || carried !== null}<Zones {view} tool={dropper} {carried} />{/if}
  <g class:through={dropper.carried !== null}>
    {#each pictures as picture (picture.placement.id)}
      <Lamp
        {picture}
        glows={lit}
        selected={editor.selection.has(picture.placement.id)}
        letters={layers.letters && !layers.offLook && 1 / paper.px > SMALLEST_LETTERS}
        named={layers.names && picture.primary}
        unlit={layers.offLook}
        calm={shownMs !== null && !editor.preview.trueSpeed}
        reach={REACH_PX * paper.px}
        letterM={Math.min(LETTER_M, LETTER_PX * paper.px)}
        onpress={(event: PointerEvent, of: LampPicture) => mover.press(event, of, editable)}
        onkey={(event: KeyboardEvent, of: LampPicture) => onLampKey(event, editor, of, editable)}
        onreach={() => (dropper.hovered = null)}
      />
    {/each}
  </g>
  {#each guides as guide (guide.id)}
    <path class="guide" d="M{guide.from[0]},{guide.from[1]}L{guide.to[0]},{guide.to[1]}" />
  {/each}
  {#each sized as picture (picture.placement.id)}
    {#each dimensionsOf(editor.lookup, present, picture.placement, view, open) as d (d.id)}
      <Dimension from={d.from} to={d.to} text={d.text} />
    {/each}
  {/each}
  {@render children?.()}
</g>

<style>
  .title {
    letter-spacing: 0;
    text-anchor: middle;
    fill: var(--cds-text-02);
  }

  .ground {
    stroke: var(--sheet-line);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }

  .through {
    pointer-events: none;
  }

  .wedge {
    fill: url(#gap-hatch);
    stroke: var(--gap);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }

  .beam {
    fill: var(--lamp);
    stroke: var(--lamp);
    fill-opacity: 0.14;
    stroke-opacity: 0.6;
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }

  .guide {
    stroke: var(--good);
    stroke-width: 1.5;
    stroke-dasharray: 6 3;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
</style>
