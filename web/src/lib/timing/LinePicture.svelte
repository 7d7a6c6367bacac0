<script lang="ts">
  import type { Cycle } from '@flarik/core/timing/pattern';
  import { endLevelOf } from '@flarik/core/timing/span';

  /** A pattern's lines as a small picture over one cycle. */
  let { cycle, width = 110 }: { cycle: Cycle; width?: number } = $props();

  const MOST = 8;
  const lines = $derived(cycle.lines.slice(0, MOST));
  const each = $derived(Math.min(11, 30 / lines.length));
  const x = $derived((ms: number) => ((ms / cycle.cycleMs) * width).toFixed(1));
  const paths = $derived(
    lines.map((spans, i) => {
      const low = (i + 1) * each;
      const h = each - 1;
      return spans
        .map(
          (s) =>
            `M${x(s.fromMs)} ${low}V${(low - h * s.level).toFixed(1)}L${x(s.toMs)} ${(low - h * endLevelOf(s)).toFixed(1)}V${low}Z`,
        )
        .join('');
    }),
  );
</script>

<svg {width} height={lines.length * each + 1} aria-hidden="true">
  {#each paths as d, i (i)}
    <path {d} class:other={i % 2 === 1} />
    <line x1="0" x2={width} y1={(i + 1) * each} y2={(i + 1) * each} />
  {/each}
</svg>

<style>
  svg {
    display: block;
  }

  path {
    fill: var(--warn);
  }

  .other {
    fill: var(--accent);
  }

  line {
    stroke: var(--cds-ui-04);
    stroke-width: 0.5;
  }
</style>
