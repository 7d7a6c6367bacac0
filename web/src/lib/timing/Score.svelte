<script lang="ts">
  import { colourLetter } from '@flarik/core/fixture/colour';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/frame/Choice.svelte';
  import { scoreOf } from './scoreRows';

  const LINE = 20;
  const HEAD = 22;
  const NAMES = 150;

  const WINDOWS = [
    { value: 1000, text: '1 s' },
    { value: 2500, text: '2.5 s' },
    { value: 10_000, text: '10 s' },
  ] as const;

  const editor = getEditor()();
  let windowMs = $state<number>(2500);
  const fromMs = $derived(Math.floor(editor.preview.timeMs / windowMs) * windowMs);
  const score = $derived(scoreOf(editor.build, editor.state.stage, { fromMs, toMs: fromMs + windowMs }));
  let width = $state(700);
  const plot = $derived(Math.max(100, width - NAMES - 24));
  const x = $derived((ms: number) => NAMES + ((ms - fromMs) / windowMs) * plot);

  const laid = $derived.by(() => {
    let y = HEAD;
    return score.rows.map((row) => {
      const top = y;
      const lines = row.lines.map((line, i) => ({ ...line, y: top + 18 + i * LINE }));
      y = top + 18 + row.lines.length * LINE + 8;
      return { ...row, top, lines };
    });
  });
  const height = $derived((laid.at(-1)?.lines.at(-1)?.y ?? HEAD) + LINE + 8);
  const step = $derived(windowMs / 10);
  const ticks = $derived(Array.from({ length: 11 }, (_, i) => fromMs + i * step));
  const drifting = $derived(new Set(editor.drives.filter((d) => !d.steady).map((d) => d.clockId)).size > 1);
</script>

<section class="score" aria-label="Score of {editor.build.timing.stages[editor.state.stage].name}">
  <div class="head">
    <p class="quiet small">
      {editor.build.timing.stages[editor.state.stage].name}:
      {#if score.rows.length === 0}
        nothing lights. Give a group a pattern in the table above.
      {:else}
        common cycle {score.cycleMs} ms.
        {#if drifting}Groups run on clocks of their own and drift against each other; they are drawn beginning
          together.{/if}
      {/if}
    </p>
    <Choice
      label="Time shown"
      small
      options={WINDOWS}
      value={windowMs}
      onchoose={(ms: number) => (windowMs = ms)}
    />
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex (a scrolling region must be reachable by keyboard) -->
  <div class="plot" bind:clientWidth={width} role="group" aria-label="Bars" tabindex="0">
    {#if score.rows.length > 0}
      <svg {width} {height} role="img" aria-label="Bars of on-time for each group and phase">
        {#each ticks as ms (ms)}
          <line class="tick" x1={x(ms)} x2={x(ms)} y1={HEAD - 4} y2={height} />
          <text class="ms" x={x(ms)} y={HEAD - 8}>{ms}</text>
        {/each}
        {#each laid as row (row.groupId)}
          <text class="row" x="4" y={row.top + 13}>{row.name}</text>
          <text class="figures" x={NAMES} y={row.top + 13}>{row.figures}</text>
          {#each row.lines as line (line.key)}
            <text class="phase" x="14" y={line.y + 13}>{line.name} · {line.channels} ch</text>
            <line class="base" x1={NAMES} x2={NAMES + plot} y1={line.y + LINE - 2} y2={line.y + LINE - 2} />
            {#each line.bars as bar, i (i)}
              {@const each = (LINE - 4) / bar.colours.length}
              {#each bar.colours as colour, c (colour)}
                <rect
                  class="bar"
                  style:fill="var(--lamp-{colour})"
                  x={x(bar.fromMs)}
                  y={line.y + 1 + c * each}
                  width={Math.max(1, x(bar.toMs) - x(bar.fromMs))}
                  height={each}
                />
                {#if x(bar.toMs) - x(bar.fromMs) > 11}
                  <text
                    class="letter"
                    class:dark={colour !== 'blue' && colour !== 'purple'}
                    x={(x(bar.fromMs) + x(bar.toMs)) / 2}
                    y={line.y + 1 + c * each + each / 2 + 3.5}
                    style:font-size="{Math.min(11, each + 2)}px">{colourLetter[colour]}</text
                  >
                {/if}
              {/each}
            {/each}
          {/each}
        {/each}
        <line
          class="playhead"
          x1={x(editor.preview.timeMs)}
          x2={x(editor.preview.timeMs)}
          y1={HEAD - 4}
          y2={height}
        />
      </svg>
    {/if}
  </div>
</section>

<style>
  .score {
    min-height: 0;
    display: flex;
    flex-direction: column;
    border-top: 1px solid var(--cds-ui-03);
    padding-top: 0.25rem;
  }

  .head {
    display: flex;
    justify-content: space-between;
    align-items: start;
    gap: 0.5rem;
    padding-right: 0.5rem;
  }

  .small {
    font-size: 12px;
    padding: 0 0.25rem;
  }

  .plot {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
    overflow-x: hidden;
  }

  svg {
    display: block;
  }

  text {
    letter-spacing: 0;
    fill: var(--cds-text-01);
    font-size: 12px;
  }

  .row {
    font-weight: 600;
  }

  .phase,
  .figures {
    fill: var(--cds-text-02);
    font-size: 11.5px;
  }

  .ms {
    font-family: var(--mono);
    font-size: 11px;
    text-anchor: middle;
    fill: var(--cds-text-02);
  }

  .tick {
    stroke: var(--cds-ui-03);
  }

  .base {
    stroke: var(--cds-ui-04);
    stroke-width: 0.6;
  }

  .letter {
    text-anchor: middle;
    font-weight: 600;
    fill: #fff;
  }

  .letter.dark {
    fill: #161616;
  }

  .playhead {
    stroke: var(--cds-text-01);
    stroke-width: 2;
  }

  .bar {
    stroke: rgb(0 0 0 / 45%);
    stroke-width: 0.6;
  }
</style>
