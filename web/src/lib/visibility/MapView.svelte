<script lang="ts">
  import { MAP_FROM_DEG, MAP_STEP_DEG, MAP_TO_DEG, type DirectionMap } from '@flarik/core/coverage/map';
  import Scale from './Scale.svelte';
  import Shaded from './Shaded.svelte';
  import { border, scaleOf } from './shades';

  /** The light toward every direction: bearing across, elevation up; the front in the middle. */
  let {
    map,
    floor,
    bearing,
    elevationDeg,
    stale,
    onpoint,
  }: {
    map: DirectionMap;
    /** What the packs ask for by bearing, seen level; null where it is not asked of what is shown. */
    floor: Float64Array | null;
    bearing: number;
    elevationDeg: number;
    stale: boolean;
    onpoint: (bearing: number, elevationDeg: number) => void;
  } = $props();

  const COLUMNS = 360;
  const rows = $derived(map.elevationsDeg.length);
  const { decades, unit } = $derived(scaleOf(map.quantity));
  /** The front in the middle: column 0 is straight behind. */
  const bearingAt = (column: number): number => (column + 180) % COLUMNS;
  const columnOf = (b: number): number => (b + 180) % COLUMNS;
  const turned = $derived(
    Float64Array.from(
      map.values,
      (_, i) => map.values[Math.floor(i / COLUMNS) * COLUMNS + bearingAt(i % COLUMNS)] ?? 0,
    ),
  );
  const limit = $derived.by(() => {
    const asked = floor;
    if (asked === null || asked.every((v) => v === 0)) return '';
    return border(
      COLUMNS,
      rows,
      (column, row) => (turned[row * COLUMNS + column] ?? 0) >= (asked[bearingAt(column)] ?? 0),
    );
  });
  const upOf = (deg: number): number => rows - 0.5 - (deg - MAP_FROM_DEG) / MAP_STEP_DEG;
  const SIDES = [
    { column: 0, text: 'rear' },
    { column: 90, text: 'left' },
    { column: 180, text: 'front' },
    { column: 270, text: 'right' },
    { column: 359, text: 'rear' },
  ];

  function point(event: PointerEvent & { currentTarget: HTMLElement }): void {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    const column = Math.min(COLUMNS - 1, Math.max(0, Math.floor(((event.clientX - left) / width) * COLUMNS)));
    const row = Math.min(rows - 1, Math.max(0, Math.floor((1 - (event.clientY - top) / height) * rows)));
    onpoint(bearingAt(column), MAP_FROM_DEG + row * MAP_STEP_DEG);
  }
</script>

<figure class:stale>
  <div class="up" aria-hidden="true">
    {#each [MAP_TO_DEG, 45, 30, 15, 0, -15, MAP_FROM_DEG] as deg (deg)}
      <span style:top="{(upOf(deg) / rows) * 100}%">{deg}°</span>
    {/each}
  </div>
  <div
    class="map"
    role="img"
    aria-label="Light by bearing and elevation, {unit}; the figures stand beside it"
    onpointerdown={point}
    onpointermove={(event) => event.buttons > 0 && point(event)}
  >
    <Shaded values={turned} columns={COLUMNS} {rows} {decades} label="Light toward every direction" />
    <svg viewBox="0 0 {COLUMNS} {rows}" preserveAspectRatio="none">
      <path class="limit" d={limit} />
      <path class="level" d="M0 {upOf(0)}H{COLUMNS}" />
      <path class="here" d="M{columnOf(bearing) + 0.5} 0V{rows}M0 {upOf(elevationDeg)}H{COLUMNS}" />
    </svg>
  </div>
  <div class="along" aria-hidden="true">
    {#each SIDES as { column, text } (column)}
      <span style:left="{(column / COLUMNS) * 100}%">{text}</span>
    {/each}
  </div>
  <figcaption>
    <Scale {decades} {unit} />
    {#if limit !== ''}<span class="key"><i></i>what the packs ask for, seen level</span>{/if}
  </figcaption>
</figure>

<style>
  figure {
    display: grid;
    grid-template: minmax(0, 1fr) 1.4rem auto / 2.6rem minmax(0, 1fr);
    height: 100%;
    margin: 0;
    padding: 0.5rem 1rem 0.5rem 0.25rem;
  }

  .stale {
    opacity: 0.6;
  }

  .map,
  .up,
  .along {
    position: relative;
  }

  .map {
    overflow: hidden;
    cursor: crosshair;
    touch-action: none;
  }

  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }

  path {
    fill: none;
    vector-effect: non-scaling-stroke;
  }

  .limit {
    stroke: #ff5a60;
    stroke-width: 2;
  }

  .level {
    stroke: #ffffff80;
    stroke-dasharray: 4 4;
  }

  .here {
    stroke: #ffffff;
    stroke-width: 1;
  }

  .up span,
  .along span {
    position: absolute;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .up span {
    right: 0.4rem;
    transform: translateY(-50%);
  }

  .up span:first-child {
    transform: none;
  }

  .up span:last-child {
    transform: translateY(-90%);
  }

  .along span {
    transform: translateX(-50%);
  }

  .along span:first-child {
    transform: none;
  }

  .along span:last-child {
    transform: translateX(-100%);
  }

  .along {
    grid-column: 2;
  }

  figcaption {
    grid-column: 2;
    display: flex;
    gap: 1.5rem;
  }

  .key {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .key i {
    width: 18px;
    height: 2px;
    background: #ff5a60;
  }
</style>
