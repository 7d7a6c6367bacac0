<script lang="ts">
  import { lightSeen, piecesBetween, type Piece } from '@flarik/core/coverage/seen';
  import { currentOf, currentOverTime } from '@flarik/core/timing/current';
  import { getEditor } from '$lib/editor/context';
  import { thresholdIn } from './threshold';
  import type { TimeWindow } from './window.svelte';

  /** Under the score, on its time: the current of all, and what is seen from a bearing, colour by colour. */
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
  const threshold = $derived(thresholdIn(editor.build, editor.state.stage));

  const between = $derived((light: Parameters<typeof piecesBetween>[0]): Piece[] =>
    piecesBetween(light, time.fromMs, time.toMs),
  );
  const amps = $derived(between(currentOverTime(editor.drives)));
  const current = $derived(currentOf(editor.drives));
  const seen = $derived(
    lightSeen(editor.build, editor.state, {
      bearingDeg: editor.bearing,
      elevationDeg: editor.ringOptions.elevationDeg,
    }),
  );
  const whole = $derived(between(seen.whole));
  const colours = $derived(seen.colours.map(({ colour, light }) => ({ colour, pieces: between(light) })));

  const topOf = (pieces: readonly Piece[]): number =>
    Math.max(1e-9, ...pieces.flatMap((p) => [p.startCd, p.endCd]));
  const most = $derived(Math.max(topOf(whole), threshold * 1.2));
  const mostA = $derived(Math.max(topOf(amps), current.worstA, 0.1));

  const outline = (pieces: readonly Piece[], top: number, height: number, filled: boolean): string => {
    const y = (v: number) => (height - 1 - (v / top) * (height - 4)).toFixed(1);
    const points = pieces.map(
      (p) => `L${x(p.fromMs).toFixed(1)} ${y(p.startCd)}L${x(p.toMs).toFixed(1)} ${y(p.endCd)}`,
    );
    return filled
      ? `M${x(time.fromMs).toFixed(1)} ${height - 1}${points.join('')}L${x(time.toMs).toFixed(1)} ${height - 1}Z`
      : `M${points.join('').slice(1)}`;
  };
  /** Stretches on the screen in which less than the threshold is seen. */
  const dark = $derived.by(() => {
    const gaps: { fromMs: number; toMs: number }[] = [];
    for (const p of whole) {
      const [a, b] = [p.startCd < threshold, p.endCd < threshold];
      if (!a && !b) continue;
      const cross = p.fromMs + ((threshold - p.startCd) / (p.endCd - p.startCd)) * (p.toMs - p.fromMs);
      const gap = { fromMs: a ? p.fromMs : cross, toMs: b ? p.toMs : cross };
      const last = gaps.at(-1);
      if (last !== undefined && Math.abs(last.toMs - gap.fromMs) < 1e-6) last.toMs = gap.toMs;
      else gaps.push(gap);
    }
    return gaps.filter((g) => g.toMs - g.fromMs > 0.5);
  });
  const longest = $derived(Math.max(0, ...dark.map((g) => g.toMs - g.fromMs)));
  const number = new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 });
</script>

<div class="plots">
  <svg
    {width}
    height={AMPS_H}
    role="img"
    aria-label="Current over time; at most {current.worstA.toFixed(1)} A"
  >
    <text x="4" y="14">Current</text>
    <text class="sub" x="4" y="28"
      >mean {current.meanA.toFixed(1)} A, worst {current.worstA.toFixed(1)} A</text
    >
    <path class="amps" d={outline(amps, mostA, AMPS_H, true)} />
    <line
      class="worst"
      x1={left}
      x2={left + plot}
      y1={AMPS_H - 1 - (current.worstA / mostA) * (AMPS_H - 4)}
      y2={AMPS_H - 1 - (current.worstA / mostA) * (AMPS_H - 4)}
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
        aria-label="Bearing of what is seen, degrees"
        onchange={(event) => {
          const deg = ((Math.round(event.currentTarget.valueAsNumber || 0) % 360) + 360) % 360;
          event.currentTarget.valueAsNumber = deg;
          editor.bearing = deg;
        }}
      />°
      <span class="sub"
        >{longest > 0 ? `dark ${number.format(longest)} ms` : 'never dark'}, below {threshold} cd</span
      >
    </label>
    <svg
      {width}
      height={SEEN_H}
      role="img"
      aria-label="Light seen from {editor.bearing}° over time, by colour; dark for at most {number.format(
        longest,
      )} ms here"
    >
      <defs>
        <pattern
          id="dark-hatch"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--gap)" stroke-width="2" />
        </pattern>
      </defs>
      {#each dark as gap (gap.fromMs)}
        <rect
          class="gap"
          x={x(gap.fromMs)}
          y="2"
          width={Math.max(1, x(gap.toMs) - x(gap.fromMs))}
          height={SEEN_H - 3}
        />
        {#if x(gap.toMs) - x(gap.fromMs) > 44}
          <text class="gap-text" x={(x(gap.fromMs) + x(gap.toMs)) / 2} y="12"
            >{number.format(gap.toMs - gap.fromMs)} ms</text
          >
        {/if}
      {/each}
      <path class="whole" d={outline(whole, most, SEEN_H, true)} />
      {#each colours as { colour, pieces } (colour)}
        <path class="line" style:stroke="var(--lamp-{colour})" d={outline(pieces, most, SEEN_H, false)} />
      {/each}
      <line
        class="threshold"
        x1={left}
        x2={left + plot}
        y1={SEEN_H - 1 - (threshold / most) * (SEEN_H - 4)}
        y2={SEEN_H - 1 - (threshold / most) * (SEEN_H - 4)}
      />
      <text class="sub" x={left + plot - 2} y="12" text-anchor="end">{number.format(most)} cd</text>
      <line class="playhead" x1={x(editor.preview.timeMs)} x2={x(editor.preview.timeMs)} y1="0" y2={SEEN_H} />
    </svg>
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
    border: 1px solid var(--cds-ui-04);
    background: var(--cds-field-01);
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
  }

  input:focus-visible {
    outline: 2px solid var(--cds-focus);
  }

  .amps {
    fill: color-mix(in srgb, var(--accent) 45%, transparent);
    stroke: var(--accent);
  }

  .worst {
    stroke: var(--warn);
    stroke-dasharray: 5 3;
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
    font-size: 11px;
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--cds-ui-background);
    stroke-width: 3;
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
