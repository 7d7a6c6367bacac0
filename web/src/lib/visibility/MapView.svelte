<script lang="ts">
  import { positionName } from '@flarik/core/coverage/gaps';
  import { MAP_FROM_DEG, MAP_STEP_DEG, MAP_TO_DEG } from '@flarik/core/coverage/map';
  import { sectorText } from '@flarik/core/coverage/sectors';
  import type { MapGap } from '@flarik/core/rules/mapGaps';
  import type { MapAnswer } from '$lib/workers/sight.worker';
  import Scale from './Scale.svelte';
  import Shaded from './Shaded.svelte';
  import ContourNames from './ContourNames.svelte';
  import { contoursOf } from './contours';
  import { powerText, scaleOf } from './shades';

  /** The light toward every direction: bearing across, elevation up; the front in the middle. */
  let {
    map,
    floor,
    bearing,
    elevationDeg,
    stale,
    onpoint,
  }: {
    map: MapAnswer;
    /** What the packs ask for by bearing, seen level; null where it is not asked of what is shown. */
    floor: Float64Array | null;
    bearing: number;
    elevationDeg: number;
    stale: boolean;
    onpoint: (bearing: number, elevationDeg: number) => void;
  } = $props();

  const COLUMNS = 360;
  const MOST_ORDERS = 3;
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
    // As orders of magnitude above what is asked, so that a line lies between what is far below and far above.
    const above = turned.map((value, i) => {
      const least = asked[bearingAt(i % COLUMNS)] ?? 0;
      return least === 0
        ? MOST_ORDERS
        : Math.min(MOST_ORDERS, Math.max(-MOST_ORDERS, Math.log10(value / least)));
    });
    return contoursOf(above, COLUMNS, rows, [0])[0]?.path ?? '';
  });
  /** Lines of equal light, one for each power of ten between darkest and brightest. */
  const lines = $derived.by(() => {
    const [low, high] = decades;
    const orders = turned.map((value) => Math.max(low - 1, Math.log10(value)));
    const levels = Array.from({ length: high - low - 1 }, (_, i) => low + 1 + i);
    return contoursOf(orders, COLUMNS, rows, levels);
  });
  /** Gaps, hatched: a strip for each run of rows. */
  const hatched = $derived(
    map.gaps
      .flatMap(({ runs }) => runs)
      .map(
        ({ bearing: b, fromRow, toRow }) =>
          `M${columnOf(b)} ${rows - 1 - toRow}h1v${toRow - fromRow + 1}h-1z`,
      )
      .join(''),
  );
  /** Where the middle of a gap is, of all columns. */
  const middleOf = ({ fromDeg, toDeg }: MapGap): number =>
    ((columnOf(fromDeg) + ((toDeg - fromDeg + COLUMNS) % COLUMNS) / 2) % COLUMNS) / COLUMNS;
  /** Names of gaps side by side stand one above the other. */
  const MOST_NAMED = 6;
  const NAME_ROWS = 3;
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
    aria-label="Light by bearing and elevation, {unit}; the values are listed beside it"
    onpointerdown={point}
    onpointermove={(event) => event.buttons > 0 && point(event)}
  >
    <Shaded values={turned} columns={COLUMNS} {rows} {decades} label="Light toward every direction" />
    <svg viewBox="0 0 {COLUMNS} {rows}" preserveAspectRatio="none">
      <defs>
        <pattern id="map-gap" width="4" height="1.2" patternUnits="userSpaceOnUse">
          <path class="hatch" d="M0 1.2L4 0" />
        </pattern>
      </defs>
      {#each lines as { level, path } (level)}<path class="line" d={path} />{/each}
      <path class="gap" d={hatched} />
      <path class="limit" d={limit} />
      <path class="level" d="M0 {upOf(0)}H{COLUMNS}" />
      <path class="here" d="M{columnOf(bearing) + 0.5} 0V{rows}M0 {upOf(elevationDeg)}H{COLUMNS}" />
    </svg>
    <ContourNames contours={lines} nameOf={powerText} />
    {#each map.gaps.slice(0, MOST_NAMED) as gap, i (gap.fromDeg)}
      <span
        class="name"
        style:left="{Math.min(0.9, Math.max(0.1, middleOf(gap))) * 100}%"
        style:top="calc({(upOf(0) / rows) * 100}% + {0.4 + (i % NAME_ROWS) * 1.4}rem)"
        >gap {positionName(gap)}, {sectorText(gap)}</span
      >
    {/each}
  </div>
  <div class="along" aria-hidden="true">
    {#each SIDES as { column, text } (column)}
      <span style:left="{(column / COLUMNS) * 100}%">{text}</span>
    {/each}
  </div>
  <figcaption>
    <Scale {decades} {unit} />
    <span class="quiet">contours at each power of ten</span>
    {#if limit !== ''}<span class="key"><i></i>minimum of the rule packs</span>{/if}
    {#if map.gaps.length > 0}<span class="key"
        ><i class="hatched"></i>gap{map.gaps.length > MOST_NAMED ? `; ${map.gaps.length} in total` : ''}</span
      >{/if}
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

  .gap {
    fill: url(#map-gap);
  }

  .hatch {
    stroke: #ff5a60;
    stroke-width: 1.5;
  }

  .name {
    position: absolute;
    padding: 0 0.3rem;
    transform: translateX(-50%);
    background: #10182bcc;
    color: #ffffff;
    font-size: 12px;
    white-space: nowrap;
    pointer-events: none;
  }

  .line {
    stroke: #ffffff;
    stroke-opacity: 0.45;
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

  .key i.hatched {
    height: 12px;
    background: repeating-linear-gradient(-45deg, #ff5a60 0 1.5px, transparent 1.5px 5px);
  }
</style>
