<script lang="ts">
  import type { Sector } from '@flarik/core/coverage/sectors';
  import type { HiddenLamp } from '@flarik/core/sight/hiders';
  import { getEditor } from '$lib/editor/context';
  import { glowKey, glows } from '$lib/sheet/glow';
  import { lampPictures } from '$lib/sheet/pictures';
  import ViewPicture from '$lib/sheet/ViewPicture.svelte';

  /** A polar chart about the vehicle's plan, front up, with a logarithmic radius. */
  let {
    values,
    floor,
    gaps,
    marked,
    bearing,
    decades,
    unit,
    stale,
    hidden,
    onpoint,
  }: {
    values: Float64Array;
    floor: Float64Array | null;
    gaps: readonly Sector[];
    marked: readonly Sector[];
    bearing: number;
    /** Powers of ten at the inner and the outer circle. */
    decades: readonly [number, number];
    unit: string;
    stale: boolean;
    /** Lamps that would light the direction pointed at, each with its ray to what hides it. */
    hidden: readonly HiddenLamp[];
    onpoint: (bearing: number) => void;
  } = $props();

  const SIZE = 520;
  const MOST_RAYS = 8;
  const INNER = 84;
  const OUTER = 216;
  const editor = getEditor()();
  const open = $derived(editor.open);
  const lit = $derived(glows(editor.seen, editor.drives, null));
  const carScale = $derived((INNER * 1.7) / editor.vehicle.lengthM);
  const lamps = $derived(
    editor.seen.placements.flatMap((p) =>
      lampPictures(editor.lookup, p, open).filter((l) => l.view === 'plan'),
    ),
  );

  const radius = (value: number): number => {
    const [low, high] = decades;
    const log = Math.log10(Math.max(value, 10 ** low));
    return INNER + ((Math.min(log, high) - low) / (high - low)) * (OUTER - INNER);
  };
  const at = (b: number, r: number): string => {
    const a = (b * Math.PI) / 180;
    return `${(r * Math.sin(a)).toFixed(2)},${(-r * Math.cos(a)).toFixed(2)}`;
  };
  const loop = (of: (b: number) => number): string =>
    `M${Array.from({ length: 360 }, (_, b) => at(b, of(b))).join('L')}Z`;
  const hole = `M${Array.from({ length: 360 }, (_, b) => at(359 - b, INNER)).join('L')}Z`;

  const shape = $derived(loop((b) => radius(values[b] ?? 0)) + hole);
  const floorRuns = $derived.by(() => {
    const line = floor;
    if (line === null) return '';
    return Array.from({ length: 361 }, (_, i) => {
      const b = i % 360;
      const value = line[b] ?? 0;
      const joined = i > 0 && (line[(b + 359) % 360] ?? 0) > 0;
      return value > 0 ? `${joined ? 'L' : 'M'}${at(b, radius(value))}` : '';
    }).join('');
  });
  const wedge = ({ fromDeg, toDeg }: Sector, r0: number, r1: number): string => {
    const span = (toDeg - fromDeg + 360) % 360;
    const steps = Array.from(
      { length: Math.ceil(span / 2) + 1 },
      (_, i) => fromDeg - 0.5 + Math.min(span, i * 2) * ((span + 1) / Math.max(span, 1)),
    );
    return `M${steps.map((b) => at(b, r1)).join('L')}L${steps
      .toReversed()
      .map((b) => at(b, r0))
      .join('L')}Z`;
  };
  const rings = $derived(
    Array.from({ length: decades[1] - decades[0] + 1 }, (_, i) => ({
      power: decades[0] + i,
      r: radius(10 ** (decades[0] + i)),
    })),
  );
  const THOUSANDS = ['', 'k', 'M', 'G'];
  const powerText = (power: number): string =>
    `${10 ** (power % 3)}${THOUSANDS[Math.floor(power / 3)] ?? ''}`;

  function point(event: PointerEvent & { currentTarget: SVGSVGElement }): void {
    const matrix = event.currentTarget.getScreenCTM();
    if (matrix === null) return;
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    if (Math.hypot(p.x, p.y) < INNER / 2) return;
    onpoint(Math.round(((Math.atan2(p.x, -p.y) * 180) / Math.PI + 360) % 360) % 360);
  }
</script>

<svg
  class:stale
  viewBox="{-SIZE / 2} {-SIZE / 2} {SIZE} {SIZE}"
  role="img"
  aria-label="Light by bearing around the vehicle, {unit}; the values are listed beside it"
  onpointermove={point}
  onpointerdown={point}
>
  <defs>
    <pattern id="ring-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line x1="0" y1="0" x2="0" y2="7" stroke="var(--gap)" stroke-width="2.4" />
    </pattern>
  </defs>
  {#each rings as ring (ring.power)}
    <circle class="decade" r={ring.r} />
  {/each}
  {#each [0, 45, 90, 135, 180, 225, 270, 315] as b (b)}
    <path class="spoke" d="M{at(b, INNER)}L{at(b, OUTER)}" />
    <text class="bearing" transform="translate({at(b, OUTER + (b === 90 || b === 270 ? 40 : 24))})" dy="4">
      {b}°{b === 0 ? ' front' : b === 90 ? ' right' : b === 180 ? ' rear' : b === 270 ? ' left' : ''}
    </text>
  {/each}
  {#each marked as sector, i (i)}<path class="marked" d={wedge(sector, INNER, OUTER + 6)} />{/each}
  <path class="light" d={shape} />
  {#each gaps as gap, i (i)}<path class="gap" d={wedge(gap, INNER, OUTER)} />{/each}
  {#if floorRuns !== ''}<path class="floor" d={floorRuns} />{/if}
  {#each rings.slice(1) as ring (ring.power)}
    <text class="decade-text" x={at(22.5, ring.r).split(',')[0]} y={at(22.5, ring.r).split(',')[1]}
      >{powerText(ring.power)}</text
    >
  {/each}
  <path class="pointer" d="M{at(bearing, INNER - 8)}L{at(bearing, OUTER + 8)}" />
  <g transform="rotate(-90) scale({carScale},{-carScale})">
    <ViewPicture vehicle={editor.vehicle} view="plan" {open} />
    {#each lamps as lamp (lamp.placement.id)}
      <path class="lamp" class:selected={editor.selection.has(lamp.placement.id)} d={lamp.housing} />
      {#each lamp.lenses as lens (lens.moduleId)}
        {@const glow = lit.get(glowKey(lamp.placement.id, lens.moduleId))}
        {#if glow !== undefined}
          <path
            class="lens"
            class:dark={!glow.driven}
            style:--lamp="var(--lamp-{glow.colour})"
            d={lens.path}
          />
        {/if}
      {/each}
    {/each}
    {#each hidden.slice(0, MOST_RAYS) as { placementId, from, to } (placementId)}
      <path class="ray" d="M{from[0]} {from[1]}L{to[0]} {to[1]}" />
      <circle class="met" cx={to[0]} cy={to[1]} r={3 / carScale} />
    {/each}
  </g>
</svg>

<style>
  svg {
    width: 100%;
    height: 100%;
    touch-action: none;
    cursor: crosshair;
  }

  .ray {
    fill: none;
    stroke: var(--gap);
    stroke-width: 1.5;
    stroke-dasharray: 4 3;
    vector-effect: non-scaling-stroke;
  }

  .met {
    fill: var(--gap);
  }

  .stale .light {
    opacity: 0.55;
  }

  .decade {
    fill: none;
    stroke: var(--sheet-line);
  }

  .spoke {
    stroke: var(--sheet-line);
  }

  text {
    letter-spacing: 0;
    fill: var(--cds-text-02);
    font-size: 12px;
    text-anchor: middle;
  }

  .decade-text {
    font-family: var(--mono);
    font-size: 11px;
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
    fill: var(--cds-text-01);
  }

  .light {
    fill: color-mix(in srgb, var(--accent) 34%, transparent);
    fill-rule: evenodd;
    stroke: var(--accent);
    stroke-width: 1.6;
  }

  .gap {
    fill: url(#ring-hatch);
    stroke: var(--gap);
    stroke-width: 1.5;
  }

  .marked {
    fill: color-mix(in srgb, var(--warn) 22%, transparent);
    stroke: var(--warn);
    stroke-dasharray: 4 3;
  }

  .floor {
    fill: none;
    stroke: var(--warn);
    stroke-width: 2;
    stroke-dasharray: 6 4;
  }

  .pointer {
    stroke: var(--cds-text-01);
    stroke-width: 1.5;
  }

  .lens {
    fill: var(--lamp);
    stroke: var(--lamp);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }

  .lens.dark {
    opacity: 0.3;
  }

  .lamp {
    fill: var(--car-opening);
    stroke: #000;
    stroke-width: 0.5;
    vector-effect: non-scaling-stroke;
  }

  .lamp.selected {
    fill: var(--accent);
    stroke: var(--cds-text-01);
    stroke-width: 1.5;
  }
</style>
