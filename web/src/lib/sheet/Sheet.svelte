<script lang="ts">
  import { changePlacement } from '@flarik/core/arrange/lamps';
  import { misfit } from '@flarik/core/resolve/place';
  import type { Build } from '@flarik/core/design/schema';
  import { snapOnZone, type Guide } from '@flarik/core/arrange/snap';
  import type { DrawnRect } from '@flarik/core/vehicle/picture/drawn';
  import type { MountZone, View } from '@flarik/core/vehicle/types';
  import { zoneOf } from '@flarik/core/vehicle/vehicle';
  import type { Point2 } from '@flarik/core/vehicle/picture/views';
  import { onMount } from 'svelte';
  import { getEditor } from '$lib/editor/context';
  import { nameOf } from '$lib/editor/names';
  import { placeAt } from '$lib/editor/placing';
  import { trackDrag } from '$lib/editor/trackDrag';
  import AimGrip from './AimGrip.svelte';
  import { arrange, viewName, VIEWS } from './arrangement';
  import Dimension from './Dimension.svelte';
  import { dimensionsOf, guidesOf, markOf } from './dimensions';
  import { beamsOf, wedgePath } from './directions';
  import DrawCanvas from './DrawCanvas.svelte';
  import { glows } from './glow';
  import KeepOuts from './KeepOuts.svelte';
  import Lamp from './Lamp.svelte';
  import { movedWith, onLampKey, toggleSelected, zoneNow } from './lampKeys';
  import { lampsWithin } from './lampsWithin';
  import { firstLayers, type Layers, type When } from './layers';
  import OwnShapes from './OwnShapes.svelte';
  import { rememberedPictures, stepOnZone, zonePictures, type LampPicture } from './pictures';
  import SheetTools from './SheetTools.svelte';
  import ViewPicture from './ViewPicture.svelte';
  import { zoomable, type Zoomer } from './zoom';

  /** A moved lamp is drawn to a place this near on the screen, px, and on the vehicle, m. */
  const SNAP_PX = 7;
  const MOST_SNAP_M = 0.06;
  /** Letters are left out of a sheet smaller than this: they would be too small to read, px/m. */
  const SMALLEST_LETTERS = 55;
  /** Beams of more lamps than this hide the drawing. */
  const MOST_BEAMS = 4;

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
  const open = $derived(new Set(editor.state.open));
  const sheet = $derived(arrange(editor.vehicle, open));
  const instant = $derived(
    editor.preview.playing || editor.preview.timeMs > 0 ? editor.preview.timeMs : null,
  );
  const shown = $derived(glows(editor.build, editor.drives, instant));
  // What is shown at first is asked once; afterwards the user chooses.
  // svelte-ignore state_referenced_locally
  let layers = $state({ ...firstLayers(), ...show });
  let when = $state<When>('after');
  const retrofit = $derived(editor.build.placements.some((p) => p.status !== 'new'));
  const present = $derived(
    editor.build.placements.filter(({ status }) =>
      when === 'after' ? status !== 'removed' : status === 'removed' || status === 'kept',
    ),
  );
  const pictures = $derived(present.flatMap((p) => rememberedPictures(editor.lookup, p, open)));
  const carried = $derived(editor.carry === null ? null : editor.lookup.fixture(editor.carry.fixtureId));

  let enlarged = $state<View | 'all'>('all');
  let hovered = $state.raw<MountZone | null>(null);
  let transform = $state.raw({ x: 0, y: 0, k: 1 });
  let zoomer: Zoomer | undefined;
  let svg: SVGSVGElement | undefined = $state();
  const groups: Partial<Record<View, SVGGElement>> = $state({});
  let pxPerM = $state(70);
  /** The lamp being dragged, where, and what it was drawn to. */
  let moving = $state.raw<{ id: string; view: View; guides: readonly Guide[] } | null>(null);
  let box = $state.raw<{ from: Point2; to: Point2 } | null>(null);
  let turning = $state.raw<string | null>(null);

  const zoom = $derived(
    zoomable(
      sheet,
      ({ x, y, k }) => (transform = { x, y, k }),
      (ready) => (zoomer = ready),
    ),
  );
  const px = $derived(1 / (pxPerM * transform.k));

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

  function within(element: SVGGraphicsElement | undefined, clientX: number, clientY: number): Point2 | null {
    const matrix = element?.getScreenCTM();
    if (matrix === null || matrix === undefined) return null;
    const p = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse());
    return [p.x, p.y];
  }

  /** Where the pointer is on a view, m. */
  const onView = (view: View, clientX: number, clientY: number): Point2 | null =>
    within(groups[view], clientX, clientY);

  const zoneIdOf = (id: string): string => editor.build.placements.find((p) => p.id === id)?.zoneId ?? '';
  function press(event: PointerEvent, picture: LampPicture): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    const { placement, view } = picture;
    const already = editor.selection.has(placement.id);
    if (event.shiftKey) {
      toggleSelected(editor, placement.id);
      return;
    }
    if (!already) editor.select([placement.id]);
    editor.clearShown();
    const choose = () => editor.select([placement.id]);
    if (!editable) return choose();
    const from = onView(view, event.clientX, event.clientY);
    const lamps = movedWith(editor, placement);
    const lead = zoneNow(editor, placement.zoneId);
    const change = (x: number, y: number) => {
      const to = onView(view, x, y);
      const step: Point2 = from === null || to === null ? [0, 0] : [to[0] - from[0], to[1] - from[1]];
      const { du, dv } = stepOnZone(view, lead, step);
      const others = editor.build.placements.filter(
        (p) => !lamps.some((q) => q.id === p.id) && p.id !== placement.partnerId && p.status !== 'removed',
      );
      const at = snapOnZone(
        editor.lookup,
        others,
        placement,
        { uM: placement.uM + du, vM: placement.vM + dv },
        Math.min(SNAP_PX * px, MOST_SNAP_M),
      );
      moving = { id: placement.id, view, guides: at.guides };
      return (build: Build): Build =>
        lamps.slice(1).reduce(
          (b, p) => {
            const move = stepOnZone(view, zoneNow(editor, p.zoneId), step);
            return changePlacement(b, p.id, { uM: p.uM + move.du, vM: p.vM + move.dv });
          },
          changePlacement(build, placement.id, { uM: at.uM, vM: at.vM }),
        );
    };
    const what = nameOf(
      editor.build,
      lamps.map((p) => p.id),
    );
    trackDrag(event, {
      move: (x, y) => editor.drag(change(x, y)),
      drop: (x, y) => {
        editor.edit(`Move ${what}`, change(x, y));
        moving = null;
      },
      click: choose,
      cancel: () => {
        editor.cancelDrag();
        moving = null;
      },
    });
  }

  /** Puts the carried fixture where the pointer is on a zone. */
  function drop(view: View, zone: MountZone, clientX: number, clientY: number): void {
    const p = onView(view, clientX, clientY);
    if (editor.carry === null || carried === null || p === null || misfit(carried, zone) !== null) return;
    const picture = zonePictures(editor.vehicle, view, open).find((z) => z.zone.id === zone.id);
    if (picture === undefined) return;
    const { du, dv } = stepOnZone(view, zoneNow(editor, zone.id), [
      p[0] - picture.at[0],
      p[1] - picture.at[1],
    ]);
    const at = snapOnZone(
      editor.lookup,
      present,
      { fixtureId: carried.id, zoneId: zone.id },
      { uM: du, vM: dv },
      Math.min(SNAP_PX * px, MOST_SNAP_M),
    );
    placeAt(editor, editor.carry.fixtureId, zone, { uM: at.uM, vM: at.vM, pair: false });
  }

  const beams = $derived(
    layers.beams && editor.selected.length <= MOST_BEAMS ? beamsOf(editor.lookup, editor.selected, open) : [],
  );
  const aimed = $derived(
    editable && layers.beams && editor.selected.length <= 2 ? editor.selected[0] : undefined,
  );
  const wedges = $derived(editor.marked.map((sector) => wedgePath(editor.vehicle, sector)));

  /** Chooses all lamps in a box drawn with Shift held. */
  function chooseBox(event: PointerEvent): void {
    if (event.button !== 0 || !event.shiftKey || svg === undefined) return;
    const paper = svg;
    const start = within(paper, event.clientX, event.clientY);
    if (start === null) return;
    trackDrag(event, {
      move: (x, y) => (box = { from: start, to: within(paper, x, y) ?? start }),
      drop: (x, y) => {
        box = null;
        const ids = lampsWithin(paper, [event.clientX, event.clientY], [x, y]);
        editor.select([...new Set([...editor.selection, ...ids])]);
      },
      cancel: () => (box = null),
    });
  }

  const mark = $derived(measured === null ? null : markOf(editor.build.vehicle, editor.vehicle, measured));
  const sized = $derived(
    moving === null && !layers.sizes
      ? []
      : pictures.filter((p) =>
          moving === null
            ? p.primary && editor.selection.has(p.placement.id)
            : p.placement.id === moving.id && p.view === moving.view,
        ),
  );

  const status = $derived.by(() => {
    if (mark !== null) return `${mark.text}, ${mark.measured}.`;
    if (drawing) return 'Draw a rectangle on the view that shows the place best. Esc leaves it.';
    if (turning !== null) return turning;
    if (moving !== null)
      return moving.guides.map((g) => (g.axis === 'u' ? `across: ${g.why}` : `up: ${g.why}`)).join('; ');
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
    bind:when
    {retrofit}
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
      <pattern
        id="keep-out-hatch"
        width="0.07"
        height="0.07"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      >
        <line x1="0" y1="0" x2="0" y2="0.07" stroke="var(--gap)" stroke-width="0.012" />
      </pattern>
    </defs>
    <rect
      class="paper"
      x={-sheet.width}
      y={-sheet.height}
      width={3 * sheet.width}
      height={3 * sheet.height}
      role="presentation"
      data-paper
      onpointerdown={chooseBox}
      onclick={(event) => {
        if (editor.carry === null && !event.shiftKey) editor.select([]);
      }}
    />
    <g transform="translate({transform.x},{transform.y}) scale({transform.k})" style:--px="{px}px">
      {#each VIEWS as view (view)}
        {@const frame = sheet.frames[view]}
        <text
          class="title"
          x={frame.left + (view === 'plan' ? 0.35 : frame.width / 2)}
          y={frame.top + frame.height + (view === 'plan' ? 0.12 : 0.18)}>{viewName[view]}</text
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
          <OwnShapes vehicle={editor.vehicle} spec={editor.build.vehicle} {view} />
          {#if layers.keepOuts}<KeepOuts vehicle={editor.vehicle} {view} {open} />{/if}
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
                letters={layers.letters && !layers.offLook && pxPerM * transform.k > SMALLEST_LETTERS}
                named={layers.names && picture.primary}
                unlit={layers.offLook}
                calm={instant !== null && !editor.preview.trueSpeed}
                reach={7 * px}
                onpress={press}
                onkey={(event: KeyboardEvent, at: LampPicture) => onLampKey(event, editor, at, editable)}
                onreach={() => (hovered = null)}
              />
            {/each}
          </g>
          {#if moving !== null && moving.view === view}
            {#each guidesOf(editor.lookup, moving.guides, zoneIdOf(moving.id), view, open) as guide (guide.id)}
              <path class="guide" d="M{guide.from[0]},{guide.from[1]}L{guide.to[0]},{guide.to[1]}" />
            {/each}
          {/if}
          {#each sized.filter((p) => p.view === view) as picture (picture.placement.id)}
            {#each dimensionsOf(editor.lookup, present, picture.placement, view, open) as d (d.id)}
              <Dimension from={d.from} to={d.to} text={d.text} />
            {/each}
          {/each}
          {#if view === 'plan' && aimed !== undefined}
            <AimGrip
              lamp={aimed}
              {px}
              onplan={(x: number, y: number) => onView('plan', x, y)}
              onsay={(text: string | null) => (turning = text)}
            />
          {/if}
          {#if mark?.view === view}
            <Dimension from={mark.from} to={mark.to} text={mark.text} strong />
          {/if}
          {#if drawing}
            <DrawCanvas
              {view}
              {frame}
              onview={(x: number, y: number) => onView(view, x, y)}
              ondrawn={(rect: DrawnRect) => ondrawn?.(rect)}
            />
          {/if}
        </g>
      {/each}
    </g>
    {#if box !== null}
      <rect
        class="drawn"
        x={Math.min(box.from[0], box.to[0])}
        y={Math.min(box.from[1], box.to[1])}
        width={Math.abs(box.to[0] - box.from[0])}
        height={Math.abs(box.to[1] - box.from[1])}
      />
    {/if}
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

  .guide {
    stroke: var(--good);
    stroke-width: 1.5;
    stroke-dasharray: 6 3;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }

  .drawn {
    fill: color-mix(in srgb, var(--zone-fit) 30%, transparent);
    stroke: var(--zone-fit);
    stroke-width: 1.5;
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
