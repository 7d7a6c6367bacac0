<script lang="ts">
  import type { ApproachResult, ApproachCurve } from '@flarik/core/sight/approach';
  import {
    Chart,
    LinearScale,
    LineController,
    LineElement,
    LogarithmicScale,
    PointElement,
    Tooltip,
  } from 'chart.js';

  /** The light that arrives over the distance, against what is needed to see it, and where one must brake. */
  let { result, curve }: { result: ApproachResult; curve: ApproachCurve } = $props();
  Chart.register(LinearScale, LineController, LineElement, LogarithmicScale, PointElement, Tooltip);
  let canvas = $state<HTMLCanvasElement>();

  const colourOf = (name: string): string =>
    getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  const line = (label: string, data: { x: number; y: number }[], colour: string, dash: number[] = []) => ({
    label,
    data,
    borderColor: colour,
    backgroundColor: colour,
    borderWidth: 2,
    borderDash: dash,
    pointRadius: 0,
  });

  $effect(() => {
    if (canvas === undefined) return;
    const shown = curve.points.filter(({ lx }) => lx > 0);
    const most = Math.max(curve.thresholdLx, ...shown.map(({ lx }) => lx));
    const least = Math.min(
      curve.thresholdLx / 10,
      ...shown.map(({ lx }) => Math.max(lx, curve.thresholdLx / 1000)),
    );
    const [first, last] = [curve.points[0]?.distanceM ?? 20, curve.points.at(-1)?.distanceM ?? 3000];
    const text = colourOf('--cds-text-02');
    const grid = { color: colourOf('--sheet-line') };
    const ticks = { color: text };
    const chart = new Chart(canvas, {
      type: 'line',
      data: {
        datasets: [
          line(
            'light at the eye',
            shown.map(({ distanceM, lx }) => ({ x: distanceM, y: lx })),
            colourOf('--accent'),
          ),
          line(
            'needed to see it',
            [first, last].map((x) => ({ x, y: curve.thresholdLx })),
            colourOf('--warn'),
            [6, 4],
          ),
          line(
            'needed to stop',
            [least, most].map((y) => ({ x: result.neededM, y })),
            colourOf('--gap'),
            [2, 3],
          ),
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        interaction: { mode: 'nearest', intersect: false },
        scales: {
          x: {
            type: 'logarithmic',
            min: first,
            max: last,
            title: { display: true, text: 'distance, m', color: text },
            grid,
            ticks,
          },
          y: {
            type: 'logarithmic',
            min: least,
            max: most * 2,
            title: { display: true, text: 'lx at the eye', color: text },
            grid,
            ticks: { ...ticks, maxTicksLimit: 8, callback: (v) => Number(v).toExponential(0) },
          },
        },
      },
    });
    return () => chart.destroy();
  });
</script>

<div class="chart" role="img" aria-label="Light at the eye by distance, with the detection threshold">
  <canvas bind:this={canvas}></canvas>
</div>
<p class="key" aria-hidden="true">
  <span class="light">light at the eye</span>
  <span class="see">detection threshold</span>
  <span class="stop">stopping distance</span>
</p>

<style>
  .chart {
    position: relative;
    height: 190px;
  }

  .key {
    display: flex;
    gap: 1rem;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .key span {
    padding-left: 1.5rem;
    background: linear-gradient(currentcolor, currentcolor) left center / 1.1rem 2px no-repeat;
  }

  .light {
    background-image: linear-gradient(var(--accent), var(--accent)) !important;
  }

  .see {
    background-image: linear-gradient(var(--warn), var(--warn)) !important;
  }

  .stop {
    background-image: linear-gradient(var(--gap), var(--gap)) !important;
  }
</style>
