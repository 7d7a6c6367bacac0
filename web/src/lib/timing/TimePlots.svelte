<script lang="ts">
  import { piecesBetween } from '@flarik/core/coverage/seen';
  import { currentOf, currentOverTime } from '@flarik/core/resolve/current';
  import { getEditor } from '$lib/editor/context';
  import { piecesPath, topOf } from '$lib/pieces/plots';
  import SeenPlot from '$lib/pieces/SeenPlot.svelte';
  import { thresholdIn } from '@flarik/core/rules/threshold';
  import type { TimeWindow } from './window.svelte';

  /** Under the score, on its time: the current of all, and what is seen from a bearing. */
  let {
    time,
    left,
    plot,
    width,
    x,
  }: {
    time: TimeWindow;
    left: number;
    plot: number;
    width: number;
    x: (ms: number) => number;
  } = $props();

  const AMPS_H = 34;
  const SEEN_H = 62;
  const editor = getEditor()();
  let longest = $state(0);

  const amps = $derived(piecesBetween(currentOverTime(editor.drives), time.fromMs, time.toMs));
  const current = $derived(currentOf(editor.drives));
  const mostA = $derived(Math.max(topOf(amps), current.worstA.value, 0.1));
  const y = $derived((a: number) => AMPS_H - 1 - (a / mostA) * (AMPS_H - 4));
</script>

<div class="plots">
  <svg
    {width}
    height={AMPS_H}
    role="img"
    aria-label="Current over time; at most {current.worstA.value.toFixed(1)} A"
  >
    <text x="4" y="14">Current</text>
    <text class="sub" x="4" y="28"
      >mean {current.meanA.toFixed(1)} A, worst {current.worstA.value.toFixed(1)} A</text
    >
    <path class="amps" d={piecesPath(amps, x, y, true)} />
    <line
      class="worst"
      x1={left}
      x2={left + plot}
      y1={y(current.worstA.value)}
      y2={y(current.worstA.value)}
    />
  </svg>
  <div class="seen">
    <label>
      Seen from
      <input
        type="number"
        min="0"
        max="359"
        value={editor.bearing}
        aria-label="Bearing, degrees"
        onchange={(event) => {
          const deg = ((Math.round(event.currentTarget.valueAsNumber || 0) % 360) + 360) % 360;
          event.currentTarget.valueAsNumber = deg;
          editor.bearing = deg;
        }}
      />°
      <span class="sub"
        >{longest > 0 ? `dark ${Math.round(longest)} ms` : 'never dark'}, below {thresholdIn(
          editor.build,
          editor.state.on,
        )} cd</span
      >
    </label>
    <SeenPlot
      fromMs={time.fromMs}
      toMs={time.toMs}
      {left}
      {plot}
      {width}
      height={SEEN_H}
      ondark={(ms: number) => (longest = ms)}
    />
  </div>
</div>

<style>
  .plots {
    flex: none;
    border-top: 1px solid var(--cds-ui-03);
  }

  svg {
    display: block;
  }

  text {
    fill: var(--cds-text-01);
    font-size: 12px;
    letter-spacing: 0;
  }

  .sub {
    fill: var(--cds-text-02);
    color: var(--cds-text-02);
    font-size: 11px;
  }

  .seen {
    position: relative;
  }

  label {
    position: absolute;
    left: 4px;
    top: 4px;
    width: 160px;
    font-size: 12px;
    line-height: 1.35;
  }

  label .sub {
    display: block;
    margin-top: 2px;
  }

  input {
    width: 3.4rem;
    height: 22px;
    font-size: 12px;
  }

  .amps {
    fill: color-mix(in srgb, var(--accent) 45%, transparent);
    stroke: var(--accent);
  }

  .worst {
    stroke: var(--warn);
    stroke-dasharray: 5 3;
  }
</style>
