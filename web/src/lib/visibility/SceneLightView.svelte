<script lang="ts">
  import { functionAt, readOn } from '@flarik/core/design/controls';
  import { addOwn } from '@flarik/core/design/ownEdits';
  import { MOST_OWN, type WorkPlace } from '@flarik/core/design/site';
  import { areaLight, lightOf, workAreasOf } from '@flarik/core/sight/ground';
  import { outlineOf } from '@flarik/core/sight/stations';
  import { extentOf, placeOf, stretchAbove, usualWorkPlaces } from '@flarik/core/sight/workPlace';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import ViewPicture from '$lib/sheet/ViewPicture.svelte';
  import Beside from './Beside.svelte';
  import ContourNames from './ContourNames.svelte';
  import { contoursOf } from './contours';
  import LampList from './LampList.svelte';
  import PlacesOnPlan from './PlacesOnPlan.svelte';
  import Scale from './Scale.svelte';
  import Shaded from './Shaded.svelte';
  import WorkPlaceEdit from './WorkPlaceEdit.svelte';
  import type { Looked, Sight } from '$lib/editor/sight.svelte';
  import type { GroundAnswer } from '$lib/workers/sight.worker';

  /** Light to work by on the ground around the vehicle, seen from above with the front up. */
  let {
    answer,
    stale,
    sight,
    looked,
  }: { answer: GroundAnswer; stale: boolean; sight: Sight; looked: Looked } = $props();
  const { grid } = $derived(answer);
  const editor = getEditor()();
  const DECADES = [-1, 3] as const;
  const CONTOURS_LX = [1, 5, 10, 20, 50] as const;
  /** Enough to work by. */
  let limitLx = $state(10);
  let probe = $state<{ readonly x: number; readonly y: number } | null>(null);

  const outline = $derived(outlineOf(editor.vehicle));
  const areas = $derived(workAreasOf(outline));
  const lit = $derived(areas.map((area) => ({ area, ...areaLight(grid, area, limitLx) })));
  /** The work places of the build, each with its light as far as it is known. */
  const places = $derived(
    editor.build.workPlaces.map((place) => ({
      place,
      light: lightOf(answer.places.find((one) => one.place.id === place.id)?.lx ?? [], limitLx),
    })),
  );
  let chosenId = $state<string | null>(null);
  const chosen = $derived(editor.build.workPlaces.find(({ id }) => id === chosenId));
  /** A usual piece of ground never has the id of a work place of the build. */
  const areaId = ({ id }: { readonly id: string }): string => `usual:${id}`;
  const chosenArea = $derived(areas.find((area) => areaId(area) === chosenId));
  const toggle = (id: string): string | null => (chosenId = id === chosenId ? null : id);
  const asked = $derived(chosen ?? (chosenArea === undefined ? null : placeOf(chosenArea)));
  $effect(() => {
    if (chosenId !== null && asked !== null)
      void sight.placeLamps.run({ looked, id: chosenId, place: asked });
  });
  const lamps = $derived(
    sight.placeLamps.answer?.id === chosenId ? (sight.placeLamps.answer?.lamps ?? []) : [],
  );
  /** Of a place so long one asks how far the light reaches along it, m. */
  const LONG_M = 5;
  const stretch = $derived.by(() => {
    const lx = answer.places.find(({ place }) => place.id === chosenId)?.lx;
    return chosen === undefined || lx === undefined ? null : stretchAbove(chosen, lx, limitLx);
  });
  const thrownBackLx = $derived(answer.places.find(({ place }) => place.id === chosenId)?.thrownBackLx);
  const wide = $derived(grid.columns * grid.stepM);
  const deep = $derived(grid.rows * grid.stepM);
  /** Body axes to the picture: x (forward) to the right, y (left) up. */
  const px = (x: number): number => x - grid.fromX + grid.stepM / 2;
  const py = (y: number): number => deep - (y - grid.fromY + grid.stepM / 2);
  const contours = $derived(contoursOf(grid.lx, grid.columns, grid.rows, CONTOURS_LX));
  const open = $derived(editor.open);
  const workLights = $derived(
    editor.named.filter(({ on }) => functionAt(editor.build, readOn(on).id).kind === 'light'),
  );
  const dark = $derived(grid.lx.every((lx) => lx < 0.05));
  const probed = $derived.by(() => {
    if (probe === null) return null;
    const column = Math.round((probe.x - grid.fromX) / grid.stepM);
    const row = Math.round((probe.y - grid.fromY) / grid.stepM);
    return grid.lx[row * grid.columns + column] ?? null;
  });
  const metres = (m: number): string => (m < 20 ? String(Number(m.toFixed(1))) : m.toFixed(0));
  const number = (v: number): string => (v < 0.05 ? '0' : v < 10 ? v.toFixed(1) : v.toFixed(0));

  const full = $derived(editor.build.workPlaces.length >= MOST_OWN);
  function add(like: Omit<WorkPlace, 'id'>): void {
    const id = freshId('place');
    editor.edit(`Add ${like.name}`, (b) => addOwn(b, 'workPlaces', { ...like, id }));
    chosenId = id;
  }
  let map = $state<HTMLElement>();

  /** The window to body axes, m. */
  function bodyAt(clientX: number, clientY: number): { readonly xM: number; readonly yM: number } {
    const { left, top, width, height } = map?.getBoundingClientRect() ?? new DOMRect();
    return {
      xM: grid.fromX - grid.stepM / 2 + ((clientX - left) / width) * wide,
      yM: grid.fromY - grid.stepM / 2 + (1 - (clientY - top) / height) * deep,
    };
  }

  function point({ clientX, clientY }: PointerEvent): void {
    const { xM, yM } = bodyAt(clientX, clientY);
    probe = { x: xM, y: yM };
  }
</script>

<Beside label="Ground illuminance" stale={stale || sight.placeLamps.running}>
  <figure>
    <div
      class="map"
      bind:this={map}
      style:aspect-ratio="{wide} / {deep}"
      role="img"
      aria-label="Ground illuminance around the vehicle in lux, front to the right; the table lists the values"
      onpointermove={point}
      onpointerdown={point}
    >
      <Shaded
        values={grid.lx}
        columns={grid.columns}
        rows={grid.rows}
        decades={DECADES}
        label="Light on the ground"
      />
      <svg viewBox="0 0 {grid.columns} {grid.rows}" preserveAspectRatio="none">
        {#each contours as { level, path } (level)}
          <path class="contour" class:limit={level === limitLx} d={path} />
        {/each}
      </svg>
      <ContourNames {contours} nameOf={(level: number) => `${level} lx`} marked={limitLx} />
      <svg viewBox="0 0 {wide} {deep}">
        {#each areas as { id, rearX, frontX, rightY, leftY } (id)}
          <rect
            class="area"
            class:chosen={id === chosenArea?.id}
            x={px(rearX)}
            y={py(leftY)}
            width={frontX - rearX}
            height={leftY - rightY}
          />
        {/each}
        <PlacesOnPlan {px} {py} {chosenId} {bodyAt} choose={(id) => (chosenId = id)} />
        <g transform="translate({px(0)} {py(0)}) scale(1,-1)">
          <ViewPicture vehicle={editor.vehicle} view="plan" {open} />
        </g>
      </svg>
    </div>
    <figcaption>
      <Scale decades={DECADES} unit="lx" />
      <span class="quiet">contours at {CONTOURS_LX.join(', ')} lx; front to the right</span>
    </figcaption>
  </figure>
  {#snippet says()}
    <h2>Work light functions</h2>
    {#if workLights.length === 0}
      <p class="quiet">This build has no work light function.</p>
    {/if}
    {#each workLights as { on, name } (on)}
      <label class="light"
        ><input type="checkbox" checked={editor.state.on.includes(on)} onchange={() => editor.toggleOn(on)} />
        {name}</label
      >
    {/each}
    {#if dark}
      <p class="none">No lamp is lit steady in this state: there is no work light.</p>
    {/if}
    <h2>Work areas</h2>
    <label class="limit-field"
      >Required, at least
      <select bind:value={limitLx} aria-label="Required illuminance, lx">
        {#each CONTOURS_LX as level (level)}<option value={level}>{level} lx</option>{/each}
      </select></label
    >
    <table>
      <thead>
        <tr
          ><th>Area</th><th>Average, lx</th><th>Minimum, lx</th><th>Uniformity</th><th>Area above limit</th
          ></tr
        >
      </thead>
      <tbody>
        {#each lit as { area, meanLx, leastLx, evenness, aboveShare } (area.id)}
          <tr class:chosen={area === chosenArea}>
            <td
              ><button class="link" aria-pressed={area === chosenArea} onclick={() => toggle(areaId(area))}
                >{area.name}</button
              ></td
            >
            <td class="figure">{number(meanLx)}</td>
            <td class="figure">{number(leastLx)}</td>
            <td class="figure">{evenness.toFixed(2)}</td>
            <td class="figure" class:dark={aboveShare < 0.5}>{Math.round(aboveShare * 100)} %</td>
          </tr>
        {/each}
        {#each places as { place, light } (place.id)}
          <tr class:chosen={place.id === chosenId}>
            <td
              ><button class="link" aria-pressed={place.id === chosenId} onclick={() => toggle(place.id)}
                >{place.name}</button
              ></td
            >
            <td class="figure">{number(light.meanLx)}</td>
            <td class="figure">{number(light.leastLx)}</td>
            <td class="figure">{light.evenness.toFixed(2)}</td>
            <td class="figure" class:dark={light.aboveShare < 0.5}>{Math.round(light.aboveShare * 100)} %</td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if chosen !== undefined}
      {#if extentOf(chosen).alongM >= LONG_M}
        <p>
          {#if stretch === null}
            No part is above {limitLx} lx.
          {:else}
            Above {limitLx} lx from {metres(stretch.fromM)} to {metres(stretch.toM)} m of its
            {metres(extentOf(chosen).alongM)} m, from the end nearest to the vehicle.
          {/if}
        </p>
      {/if}
      {#if thrownBackLx !== undefined}
        <p>
          About <strong class="figure">{number(thrownBackLx)} lx</strong> are added by reflection from surroundings
          (single bounce).
        </p>
      {/if}
      <WorkPlaceEdit one={chosen} />
    {/if}
    {#if lamps.length > 0}
      <h3>{chosen?.name ?? chosenArea?.name}, by lamp: average and minimum</h3>
      <LampList
        rows={lamps.slice(0, 8).map(({ placementId, meanLx, atDarkestLx }) => ({
          placementId,
          note: `${number(meanLx)} lx`,
          figure: `${number(atDarkestLx)} lx`,
        }))}
      />
    {/if}
    <p class="add" role="group" aria-label="Add a work area">
      Add:
      {#each usualWorkPlaces(outline) as like (like.name)}
        <button class="link" disabled={full} onclick={() => add(like)}>{like.name}</button>
      {/each}
      {#if full}<span class="quiet">A build can have at most {MOST_OWN}.</span>{/if}
    </p>
    <p>
      Under the pointer
      <strong class="figure">{probed === null ? '—' : `${number(probed)} lx`}</strong>
      {#if probe !== null}<span class="quiet"
          >{probe.x.toFixed(1)} m ahead, {probe.y.toFixed(1)} m left of the centre</span
        >{/if}
    </p>
    <p class="quiet small">
      Level ground or the plane of a work area, steady lamps only. Uniformity is minimum divided by average.
      Body, open parts and other housings cast shadows; people do not. Reflection from ground and walls is
      shown separately for the selected area.
    </p>
  {/snippet}
</Beside>

<style>
  .link {
    font-size: 13px;
  }

  figure {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    justify-items: center;
    margin: 0;
    padding: 0.5rem 0.75rem;
    min-height: 0;
  }

  .map {
    position: relative;
    max-width: 100%;
    height: 100%;
    cursor: crosshair;
  }

  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }

  .contour {
    fill: none;
    stroke: #ffffff;
    stroke-width: 1;
    stroke-opacity: 0.55;
    vector-effect: non-scaling-stroke;
  }

  .contour.limit {
    stroke: #ff5a60;
    stroke-width: 2;
    stroke-opacity: 1;
  }

  .area {
    fill: none;
    stroke: #ffffff;
    stroke-width: 1;
    stroke-dasharray: 5 4;
    vector-effect: non-scaling-stroke;
  }

  .area.chosen {
    stroke: var(--on);
    stroke-width: 2.5;
  }

  h3 {
    font-size: 13px;
    font-weight: 600;
  }

  tr.chosen td {
    background: var(--cds-ui-02);
  }

  .add {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.75rem;
    font-size: 13px;
  }

  figcaption {
    display: flex;
    gap: 1.5rem;
    align-items: center;
    padding-top: 0.4rem;
    font-size: 12px;
  }

  table {
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.2rem 0.3rem;
    text-align: right;
  }

  th {
    color: var(--cds-text-02);
    font-weight: 400;
  }

  th:first-child,
  td:first-child {
    width: 34%;
    text-align: left;
  }

  td.figure {
    white-space: nowrap;
  }

  td {
    border-top: 1px solid var(--cds-ui-03);
  }

  .dark {
    color: var(--gap);
    font-weight: 600;
  }

  .light {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    font-size: 13px;
  }

  .none {
    color: var(--warn);
    font-size: 13px;
  }

  .limit-field {
    font-size: 13px;
  }
</style>
