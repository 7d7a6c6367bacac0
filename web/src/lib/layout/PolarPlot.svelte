<script lang="ts">
  import type { Curve, Polar } from '@flarik/core/resolve/polar';

  /** Intensity by direction: the level plane drawn through, the upright plane dashed; straight ahead is up. */
  let { polar }: { polar: Polar } = $props();
  const R = 92;
  const SPOKES = [-150, -120, -90, -60, -30, 0, 30, 60, 90, 120, 150, 180];
  const most = $derived(Math.max(1, ...polar.level.map((p) => p.cd), ...polar.upright.map((p) => p.cd)));

  const at = (deg: number, r: number): string => {
    const a = (deg * Math.PI) / 180;
    return `${(r * Math.sin(a)).toFixed(2)},${(-r * Math.cos(a)).toFixed(2)}`;
  };
  const pathOf = (curve: Curve): string =>
    `M${curve.map(({ deg, cd }) => at(deg, (R * cd) / most)).join('L')}Z`;
</script>

<figure>
  <svg viewBox="-118 -112 236 224" role="img" aria-label="Polar plot, greatest {Math.round(most)} candela">
    {#each [0.25, 0.5, 0.75, 1] as ring (ring)}<circle class="grid" r={R * ring} />{/each}
    {#each SPOKES as deg (deg)}
      <path class="grid" d="M0,0L{at(deg, R)}" />
      <text x={at(deg, R + 10).split(',')[0]} y={Number(at(deg, R + 10).split(',')[1]) + 3}
        >{Math.abs(deg)}°</text
      >
    {/each}
    <path class="level" d={pathOf(polar.level)} />
    <path class="upright" d={pathOf(polar.upright)} />
    <text class="scale" x="3" y={-R / 2 - 2}>{Math.round(most / 2)} cd</text>
    <text class="scale" x="3" y={-R + 8}>{Math.round(most)} cd</text>
  </svg>
  <figcaption class="quiet">
    ── level plane, ┄┄ upright plane; {polar.measured
      ? 'from the attached file'
      : 'from the catalogue’s beam'}
  </figcaption>
</figure>

<style>
  figure {
    margin: 0;
  }

  svg {
    width: 100%;
    max-height: 300px;
  }

  .grid {
    fill: none;
    stroke: var(--cds-ui-04);
    stroke-width: 0.5;
  }

  .level {
    fill: color-mix(in srgb, var(--warn) 22%, transparent);
    stroke: var(--warn);
    stroke-width: 1.6;
  }

  .upright {
    fill: none;
    stroke: var(--accent);
    stroke-width: 1.4;
    stroke-dasharray: 4 3;
  }

  text {
    font-size: 8px;
    letter-spacing: 0;
    text-anchor: middle;
    fill: var(--cds-text-02);
  }

  .scale {
    text-anchor: start;
    fill: var(--cds-text-01);
  }

  figcaption {
    font-size: 12px;
  }
</style>
