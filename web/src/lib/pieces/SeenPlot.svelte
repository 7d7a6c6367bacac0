<script lang="ts">
  import { lightSeen, piecesBetween } from '@flarik/core/coverage/seen';
  import { darkIn } from '@flarik/core/timing/signal';
  import { getEditor } from '$lib/editor/context';
  import { piecesPath, topOf } from './plots';
  import { thresholdIn } from '@flarik/core/rules/threshold';

  /** What is seen from the bearing pointed at over a stretch of time, colour by colour, dark times hatched. */
  let {
    fromMs,
    toMs,
    left,
    plot,
    width,
    height,
    ondark = () => undefined,
  }: {
    fromMs: number;
    toMs: number;
    /** Where the time begins, and how wide it is, px. */
    left: number;
    plot: number;
    width: number;
    height: number;
    /** The longest dark time on the screen, ms. */
    ondark?: (ms: number) => void;
  } = $props();

  const editor = getEditor()();
  const threshold = $derived(thresholdIn(editor.build, editor.state.on));
  const x = $derived((ms: number) => left + ((ms - fromMs) / (toMs - fromMs)) * plot);
  const seen = $derived(
    lightSeen(editor.seen, editor.state, {
      bearingDeg: editor.bearing,
      elevationDeg: editor.ringOptions.elevationDeg,
    }),
  );
  const whole = $derived(piecesBetween(seen.whole, fromMs, toMs));
  const colours = $derived(
    seen.colours.map(({ colour, light }) => ({ colour, pieces: piecesBetween(light, fromMs, toMs) })),
  );
  const most = $derived(Math.max(topOf(whole), threshold * 1.2));
  const dark = $derived(darkIn(whole, threshold));
  const longest = $derived(Math.max(0, ...dark.map((gap) => gap.ms)));
  const y = $derived((cd: number) => height - 1 - (cd / most) * (height - 4));
  const number = new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 });

  $effect(() => ondark(longest));
</script>

<svg
  {width}
  {height}
  role="img"
  aria-label="Light seen from {editor.bearing}° over time, by colour; dark for at most {number.format(
    longest,
  )} ms here"
>
  <defs>
    <pattern id="dark-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line x1="0" y1="0" x2="0" y2="6" stroke="var(--gap)" stroke-width="2" />
    </pattern>
  </defs>
  {#each dark as gap (gap.fromMs)}
    <rect
      class="gap"
      x={x(gap.fromMs)}
      y="2"
      width={Math.max(1, x(gap.fromMs + gap.ms) - x(gap.fromMs))}
      height={height - 3}
    />
    {#if x(gap.fromMs + gap.ms) - x(gap.fromMs) > 44}
      <text class="gap-text" x={x(gap.fromMs + gap.ms / 2)} y="24">{number.format(gap.ms)} ms</text>
    {/if}
  {/each}
  <path class="whole" d={piecesPath(whole, x, y, true)} />
  {#each colours as { colour, pieces } (colour)}
    <path class="line" style:stroke="var(--lamp-{colour})" d={piecesPath(pieces, x, y, false)} />
  {/each}
  <line class="threshold" x1={left} x2={left + plot} y1={y(threshold)} y2={y(threshold)} />
  <text class="most" x={left + plot - 2} y="12" text-anchor="end">{number.format(most)} cd</text>
  {#if editor.preview.timeMs >= fromMs && editor.preview.timeMs <= toMs}
    <line class="playhead" x1={x(editor.preview.timeMs)} x2={x(editor.preview.timeMs)} y1="0" y2={height} />
  {/if}
</svg>

<style>
  svg {
    display: block;
  }

  text {
    fill: var(--cds-text-01);
    font-size: 11px;
    letter-spacing: 0;
    paint-order: stroke;
    stroke: var(--cds-ui-background);
    stroke-width: 3;
  }

  .most {
    fill: var(--cds-text-02);
  }

  .whole {
    fill: color-mix(in srgb, var(--cds-text-02) 22%, transparent);
    stroke: var(--cds-text-02);
    stroke-width: 0.8;
  }

  .line {
    fill: none;
    stroke-width: 1.8;
  }

  .gap {
    fill: url('#dark-hatch');
    opacity: 0.55;
  }

  .gap-text {
    text-anchor: middle;
    font-weight: 600;
  }

  .threshold {
    stroke: var(--gap);
    stroke-dasharray: 2 3;
  }

  .playhead {
    stroke: var(--cds-text-01);
    stroke-width: 2;
  }
</style>
