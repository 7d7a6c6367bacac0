<script lang="ts">
  import { changePlacement, removePlacements } from '@flarik/core/build/edits';
  import { misfit } from '@flarik/core/build/place';
  import { fixtureOf } from '@flarik/core/fixture/catalogue/catalogue';
  import type { MountZone, View } from '@flarik/core/vehicle/types';
  import { posedZone, zoneOf } from '@flarik/core/vehicle/vehicle';
  import type { Point2 } from '@flarik/core/vehicle/views';
  import { onMount } from 'svelte';
  import { getEditor } from '$lib/editor/context';
  import { nameOf } from '$lib/editor/names';
  import { placeAt } from '$lib/editor/placing';
  import { trackDrag } from '$lib/editor/trackDrag';
  import { arrange, viewName, VIEWS } from './arrangement';
  import { beamsOf, wedgePath } from './directions';
  import { glows } from './glow';
  import Lamp from './Lamp.svelte';
  import { lampPictures, stepOnZone, zonePictures, type LampPicture } from './pictures';
  import SheetTools from './SheetTools.svelte';
  import ViewPicture from './ViewPicture.svelte';
  import { zoomable, type Zoomer } from './zoom';

  const NUDGE_M = 0.005;
  const BIG_NUDGE_M = 0.025;
  /** Letters are left out of a sheet smaller than this: they would be too small to read, px/m. */
  const SMALLEST_LETTERS = 55;
  /** Beams of more lamps than this hide the drawing. */
  const MOST_BEAMS = 4;

  let {
    editable = true,
    ondropper,
  }: {
    editable?: boolean;
    /** Hands out the function that places the carried fixture where the pointer let it go. */
    ondropper?: (drop: (clientX: number, clientY: number) => void) => void;
  } = $props();

  const editor = getEditor()();
  const sheet = $derived(arrange(editor.vehicle));
  const open = $derived(new Set(editor.state.open));
  const instant = $derived(
    editor.preview.playing || editor.preview.timeMs > 0 ? editor.preview.timeMs : null,
  );
  const shown = $derived(glows(editor.build, editor.drives, instant));
  const pictures = $derived(editor.build.placements.flatMap((p) => lampPictures(editor.vehicle, p, open)));
  const carried = $derived(editor.carry === null ? null : fixtureOf(editor.carry.fixtureId));

  let layers = $state({ zones: false, factory: true, letters: true, beams: true });
  let enlarged = $state<View | 'all'>('all');
  let hovered = $state.raw<MountZone | null>(null);
  let transform = $state.raw({ x: 0, y: 0, k: 1 });
  let zoomer: Zoomer | undefined;
  let svg: SVGSVGElement | undefined = $state();
  const groups: Partial<Record<View, SVGGElement>> = $state({});
  let pxPerM = $state(70);

  const zoom = $derived(
    zoomable(
      sheet,
      ({ x, y, k }) => (transform = { x, y, k }),
      (ready) => (zoomer = ready),
    ),
  );

  $effect(() => {
    const element = svg;
    if (element === undefined) return;
    const observer = new ResizeObserver(() => {
      pxPerM = Math.min(element.clientWidth / sheet.width, element.clientHeight / sheet.height);
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

  /** Where the pointer is on a view, m. */
  function onView(view: View, clientX: number, clientY: number): Point2 | null {
    const matrix = groups[view]?.getScreenCTM();
    if (matrix === null || matrix === undefined) return null;
    const p = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse());
    return [p.x, p.y];
  }

  function press(event: PointerEvent, picture: LampPicture): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    const { placement, view } = picture;
    const already = editor.selection.has(placement.id);
    if (event.shiftKey) {
      const rest = [...editor.selection].filter((id) => id !== placement.id);
      editor.select(already ? rest : [...rest, placement.id]);
      return;
    }
    if (!already || editor.selection.size > 1) editor.select([placement.id]);
    editor.clearShown();
    if (!editable) return;
    const from = onView(view, event.clientX, event.clientY);
    const zone = posedZone(editor.vehicle, zoneOf(editor.vehicle, placement.zoneId), open);
    const change = (x: number, y: number) => {
      const to = onView(view, x, y);
      const { du, dv } =
        from === null || to === null
          ? { du: 0, dv: 0 }
          : stepOnZone(view, zone, [to[0] - from[0], to[1] - from[1]]);
      return (build: typeof editor.build) =>
        changePlacement(build, placement.id, { uM: placement.uM + du, vM: placement.vM + dv });
    };
    trackDrag(event, {
      move: (x, y) => editor.drag(change(x, y)),
      drop: (x, y) => editor.edit(`Move ${placement.label}`, change(x, y)),
      cancel: () => editor.cancelDrag(),
    });
  }

  const ARROWS: Readonly<Record<string, Point2>> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  };

  function key(event: KeyboardEvent, { placement, view }: LampPicture): void {
    const arrow = ARROWS[event.key];
    if (event.key === 'Enter') editor.select([placement.id]);
    else if (!editable) return;
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      const ids = editor.selection.has(placement.id) ? editor.selection : new Set([placement.id]);
      editor.edit(`Delete ${nameOf(editor.build, [...ids])}`, (b) => removePlacements(b, ids));
    } else if (arrow !== undefined) {
      const size = event.shiftKey ? BIG_NUDGE_M : NUDGE_M;
      const zone = posedZone(editor.vehicle, zoneOf(editor.vehicle, placement.zoneId), open);
      const { du, dv } = stepOnZone(view, zone, [arrow[0] * size, arrow[1] * size]);
      const round = (v: number) => Math.round(v / NUDGE_M) * NUDGE_M;
      editor.select([placement.id]);
      editor.edit(
        `Nudge ${placement.label}`,
        (b) =>
          changePlacement(b, placement.id, { uM: placement.uM + round(du), vM: placement.vM + round(dv) }),
        `nudge ${placement.id}`,
      );
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Puts the carried fixture where the pointer is on a zone. */
  function drop(view: View, zone: MountZone, clientX: number, clientY: number): void {
    const p = onView(view, clientX, clientY);
    if (editor.carry === null || carried === null || p === null || misfit(carried, zone) !== null) return;
    const posed = posedZone(editor.vehicle, zone, open);
    const picture = zonePictures(editor.vehicle, view, open).find((z) => z.zone.id === zone.id);
    if (picture === undefined) return;
    const { du, dv } = stepOnZone(view, posed, [p[0] - picture.at[0], p[1] - picture.at[1]]);
    placeAt(editor, editor.carry.fixtureId, zone, { uM: du, vM: dv, pair: false });
  }

  const beams = $derived(
    layers.beams && editor.selected.length <= MOST_BEAMS
      ? beamsOf(editor.vehicle, editor.selected, open)
      : [],
  );
  const wedges = $derived(editor.marked.map((sector) => wedgePath(editor.vehicle, sector)));

  const status = $derived.by(() => {
    if (carried === null) return null;
    if (hovered === null)
      return `${carried.name}: choose a green zone, or a zone from the list. Esc puts it back.`;
    const why = misfit(carried, hovered);
    return why === null
      ? `${hovered.name}: fits. ${hovered.behind}`
      : `${hovered.name}: does not fit; ${why}.`;
  });

  $effect(() => {
    const at = editor.carry?.at;
    if (at === null || at === undefined) return;
    const element = document.elementFromPoint(at.x, at.y);
    const id = element?.getAttribute('data-zone');
    hovered = id === null || id === undefined ? null : zoneOf(editor.vehicle, id);
  });

  function dropCarried(clientX: number, clientY: number): void {
    const element = document.elementFromPoint(clientX, clientY);
    const id = element?.getAttribute('data-zone');
    const view = VIEWS.find((v) => v === element?.getAttribute('data-view'));
    if (id !== null && id !== undefined && view !== undefined)
      drop(view, zoneOf(editor.vehicle, id), clientX, clientY);
  }

  onMount(() => {
    ondropper?.(dropCarried);
  });
</script>

<section class="sheet" aria-label="Sheet of the vehicle">
  <SheetTools
    {enlarged}
    bind:layers
    choosable={editable}
    onenlarge={enlarge}
    onzoom={(factor: number) => zoomer?.by(factor)}
  />
  <svg
    bind:this={svg}
    {@attach zoom}
    viewBox="0 0 {sheet.width} {sheet.height}"
    class:night={editor.state.ambient === 'night'}
    role="group"
    aria-label="Five views of the vehicle"
  >
    <defs>
      <pattern
        id="gap-hatch"
        width="0.09"
        height="0.09"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <line x1="0" y1="0" x2="0" y2="0.09" stroke="var(--gap)" stroke-width="0.03" />
      </pattern>
    </defs>
    <rect
      class="paper"
      width={sheet.width}
      height={sheet.height}
      role="presentation"
      data-paper
      onclick={() => {
        if (editor.carry === null) editor.select([]);
      }}
    />
    <g
      transform="translate({transform.x},{transform.y}) scale({transform.k})"
      style:--px="{1 / (pxPerM * transform.k)}px"
    >
      {#each VIEWS as view (view)}
        {@const frame = sheet.frames[view]}
        <text
          class="title"
          x={frame.left + (view === 'plan' ? 0.35 : frame.width / 2)}
          y={frame.top + frame.height + (view === 'plan' ? -0.02 : 0.18)}>{viewName[view]}</text
        >
        {#if view !== 'plan'}
          <line
            class="ground"
            x1={frame.left - 0.1}
            x2={frame.left + frame.width + 0.1}
            y1={frame.y}
            y2={frame.y}
          />
        {/if}
        <g bind:this={groups[view]} transform="translate({frame.x},{frame.y}) scale(1,-1)">
          {#if view === 'plan'}
            {#each wedges as path, i (i)}<path class="wedge" d={path} />{/each}
          {/if}
          <ViewPicture vehicle={editor.vehicle} {view} {open} factoryLamps={layers.factory} />
          {#if view === 'plan'}
            {#each beams as beam (beam.key)}<path
                class="beam"
                style:--lamp="var(--lamp-{shown.get(beam.key)?.colour ?? 'white'})"
                d={beam.path}
              />{/each}
          {/if}
          {#if layers.zones || carried !== null}
            {#each zonePictures(editor.vehicle, view, open) as { zone, path } (zone.id)}
              {@const fits = carried !== null && misfit(carried, zone) === null}
              <path
                class="zone"
                class:fits
                class:misfit={carried !== null && !fits}
                class:hot={hovered?.id === zone.id}
                d={path}
                data-zone={zone.id}
                data-view={view}
                role="presentation"
                onpointerenter={() => (hovered = zone)}
                onpointerleave={() => (hovered = null)}
                onclick={(event) => drop(view, zone, event.clientX, event.clientY)}
              >
                <title>{zone.name}: {zone.behind}</title>
              </path>
            {/each}
          {/if}
          <g class:through={carried !== null}>
            {#each pictures.filter((p) => p.view === view) as picture (picture.placement.id)}
              <Lamp
                {picture}
                glows={shown}
                selected={editor.selection.has(picture.placement.id)}
                letters={layers.letters && pxPerM * transform.k > SMALLEST_LETTERS}
                calm={instant !== null && !editor.preview.trueSpeed}
                reach={7 / (pxPerM * transform.k)}
                onpress={press}
                onkey={key}
                onreach={() => (hovered = null)}
              />
            {/each}
          </g>
        </g>
      {/each}
    </g>
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

  .title {
    font-size: calc(11 * var(--px));
    letter-spacing: 0;
    text-anchor: middle;
    fill: var(--cds-text-02);
  }

  .ground {
    stroke: var(--sheet-line);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }

  .zone {
    fill: transparent;
    stroke: var(--accent);
    stroke-width: 1;
    stroke-dasharray: 4 3;
    vector-effect: non-scaling-stroke;
  }

  .zone.fits {
    stroke: var(--zone-fit);
    stroke-width: 2;
    stroke-dasharray: none;
    fill: color-mix(in srgb, var(--zone-fit) 28%, transparent);
    cursor: copy;
  }

  .zone.fits.hot {
    fill: color-mix(in srgb, var(--zone-fit) 55%, transparent);
  }

  .zone.misfit {
    stroke: var(--zone-misfit);
    cursor: not-allowed;
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
