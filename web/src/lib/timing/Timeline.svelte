<script lang="ts">
  import { activeFunctionNames } from '@flarik/core/design/controls';
  import { changeModules } from '@flarik/core/design/moduleEdits';
  import { untrack } from 'svelte';
  import { commonCycleMs } from '@flarik/core/timing/timeline';
  import { formatNumber } from '@flarik/core/words/quantity';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';
  import { getDesk } from '$lib/pieces/desk.svelte';
  import TimelineLane from './TimelineLane.svelte';
  import {
    clocksText,
    followingPhase,
    keyOf,
    timelineOf,
    timelineOfState,
    takenBy,
    type TimelineChannel,
    type TimelineLine,
    type TimelineRow,
  } from './timelineRows';
  import TimePlots from './TimePlots.svelte';
  import { TimeWindow, WIDTHS_MS } from './window.svelte';

  const LANE = 24;
  const CHANNEL = 15;
  const HEAD = 18;
  const NAMES = 168;
  const SHOWN = [
    { value: 'one', text: 'This function' },
    { value: 'all', text: 'All active functions' },
  ] as const;

  const editor = getEditor()();
  const desk = getDesk()();
  const time = new TimeWindow();
  let width = $state(700);
  /** Rows opened into their channels. */
  let opened = $state.raw<ReadonlySet<string>>(new Set());

  const plot = $derived(Math.max(100, width - NAMES - 18));
  const x = $derived((ms: number) => NAMES + ((ms - time.fromMs) / time.widthMs) * plot);
  const name = $derived(editor.nameOf(editor.looked));
  /** All that is on is drawn, not only the function that is looked at. */
  let whole = $state(false);
  const several = $derived(editor.state.on.length > 1);
  const stretch = $derived({ fromMs: time.fromMs, toMs: time.toMs });
  const rows = $derived(
    whole && several
      ? timelineOfState(editor.build, editor.state, stretch)
      : timelineOf(editor.build, editor.looked, editor.state.ambient, stretch),
  );
  const taken = $derived(takenBy(editor.build, whole && several ? editor.state.on : [editor.looked]));
  const cycleMs = $derived(commonCycleMs(editor.drives.map((d) => d.cycleMs)));
  const onDesk = $derived(desk.place === null ? '' : keyOf(desk.place));

  interface Laid {
    readonly row: TimelineRow;
    readonly top: number;
    readonly lines: readonly {
      readonly line: TimelineLine;
      readonly y: number;
      readonly channels: readonly { readonly channel: TimelineChannel; readonly y: number }[];
    }[];
  }
  const laid = $derived.by(() => {
    let y = 0;
    return rows.map((row): Laid => {
      const top = y;
      y += HEAD;
      const shown = row.lines.filter((l) => l.channels.length > 0 || row.key === onDesk);
      const lines = shown.map((line) => {
        const at = y;
        y += LANE;
        const channels = (opened.has(row.key) ? line.channels : []).map((channel) => {
          const place = { channel, y };
          y += CHANNEL;
          return place;
        });
        return { line, y: at, channels };
      });
      y += 6;
      return { row, top, lines };
    });
  });
  const bottom = $derived.by(() => {
    const last = laid.at(-1);
    const line = last?.lines.at(-1);
    return (line?.channels.at(-1)?.y ?? line?.y ?? last?.top ?? 0) + LANE + 6;
  });

  $effect(() => {
    const at = editor.preview.timeMs;
    untrack(() => time.follow(at));
  });

  function toggle(key: string): void {
    const next = new Set(opened);
    if (!next.delete(key)) next.add(key);
    opened = next;
  }

  function wheel(event: WheelEvent): void {
    const box = event.currentTarget instanceof Element ? event.currentTarget.getBoundingClientRect() : null;
    if (box === null) return;
    if (event.ctrlKey || event.metaKey) {
      event.preventDefault();
      const about = time.fromMs + ((event.clientX - box.left - NAMES) / plot) * time.widthMs;
      time.zoom(event.deltaY > 0 ? 1 : -1, about);
    } else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      event.preventDefault();
      const by = event.shiftKey ? event.deltaY : event.deltaX;
      time.move(time.fromMs + (by / plot) * time.widthMs);
    }
  }

  /** Wheel listeners of the framework are passive; zooming must keep the page from zooming too. */
  function zooms(node: HTMLElement): { destroy: () => void } {
    node.addEventListener('wheel', wheel, { passive: false });
    return { destroy: () => node.removeEventListener('wheel', wheel) };
  }

  const pathOf = (channel: TimelineChannel, y: number): string =>
    channel.bars
      .map((bar) => {
        const left = Math.max(NAMES, x(bar.fromMs));
        const right = Math.min(NAMES + plot, Math.max(left + 1, x(bar.toMs)));
        const h = CHANNEL - 4;
        return `M${left.toFixed(1)} ${y + h}V${(y + h * (1 - bar.level)).toFixed(1)}L${right.toFixed(1)} ${(y + h * (1 - bar.endLevel)).toFixed(1)}V${y + h}Z`;
      })
      .join('');

  /** Lets a lamp's module show the next line of the pattern. */
  function nextPhase(row: TimelineRow, channel: TimelineChannel): void {
    const setup = editor.build.placements
      .find((p) => p.id === channel.placementId)
      ?.modules.find((m) => m.id === channel.moduleId);
    if (setup === undefined) return;
    const ref = [{ placementId: channel.placementId, moduleId: channel.moduleId }];
    const count = row.cycle.lines.length;
    if (row.cycle.by === 'order')
      editor.edit(`Place of ${channel.name}`, (b) =>
        changeModules(b, ref, { order: (setup.order % Math.max(count, 1)) + 1 }),
      );
    else
      editor.edit(`Phase of ${channel.name}`, (b) =>
        changeModules(b, ref, { phase: followingPhase(setup.phase, count) }),
      );
  }
</script>

<section class="score" aria-label="Timeline of {name}">
  <div class="head">
    <p class="quiet small">
      {whole && several ? activeFunctionNames(editor.build, editor.state.on) : name}{editor.state.ambient ===
      'night'
        ? ' at night'
        : ''}:
      {#if rows.length === 0}
        no lamp is lit. Assign a pattern to a group under Functions.
      {:else}
        {clocksText(editor.drives, cycleMs)}.
      {/if}
      {#if taken.length > 0}<span class="taken">{taken.join('; ')}.</span>{/if}
    </p>
    {#if several}
      <Choice
        label="Timeline content"
        small
        options={SHOWN}
        value={whole ? 'all' : 'one'}
        onchoose={(v: 'one' | 'all') => (whole = v === 'all')}
      />
    {/if}
    <div class="window" role="group" aria-label="Time shown">
      <button class="plain" aria-label="Earlier" onclick={() => time.move(time.fromMs - time.widthMs / 2)}
        >◂</button
      >
      <button class="plain" aria-label="Later" onclick={() => time.move(time.fromMs + time.widthMs / 2)}
        >▸</button
      >
      <button
        class="plain"
        aria-label="Shorter time"
        disabled={time.widthMs <= WIDTHS_MS[0]}
        onclick={() => time.zoom(-1, time.fromMs)}>+</button
      >
      <select
        aria-label="Width of the time shown"
        value={String(time.widthMs)}
        onchange={(event) => (time.widthMs = Number(event.currentTarget.value))}
      >
        {#each WIDTHS_MS as ms (ms)}
          <option value={String(ms)}>{ms < 1000 ? `${ms} ms` : `${ms / 1000} s`}</option>
        {/each}
        {#if !WIDTHS_MS.some((ms) => ms === time.widthMs)}
          <option value={String(time.widthMs)}>{formatNumber(time.widthMs)} ms</option>
        {/if}
      </select>
      <button
        class="plain"
        aria-label="Longer time"
        disabled={time.widthMs >= 10_000}
        onclick={() => time.zoom(1, time.fromMs)}>−</button
      >
      <button
        class="plain"
        onclick={() => {
          time.fromMs = 0;
          time.widthMs = Math.min(10_000, cycleMs);
        }}>One cycle</button
      >
    </div>
  </div>
  <svg class="ruler" {width} height="18" aria-hidden="true">
    {#each time.ticks as ms (ms)}
      <text class="ms" x={x(ms)} y="13">{formatNumber(ms)}</text>
    {/each}
  </svg>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex (a scrolling region must be reachable by keyboard) -->
  <div class="plot" bind:clientWidth={width} role="group" aria-label="Bars" tabindex="0" use:zooms>
    {#if rows.length > 0}
      <svg {width} height={bottom} role="group" aria-label="Bars of on-time for each group and phase">
        <defs>
          <clipPath id="score-clip"><rect x={NAMES} y="0" width={plot + 1} height={bottom} /></clipPath>
        </defs>
        {#each time.ticks as ms (ms)}
          <line class="tick" x1={x(ms)} x2={x(ms)} y1="0" y2={bottom} />
        {/each}
        {#each laid as { row, top, lines } (row.key)}
          {@const key = row.key}
          <g
            class="opener"
            role="button"
            tabindex="0"
            aria-expanded={opened.has(key)}
            aria-label="Channels of {row.name}"
            onclick={() => toggle(key)}
            onkeydown={(event) => {
              if (event.key !== 'Enter' && event.key !== ' ') return;
              event.preventDefault();
              toggle(key);
            }}
          >
            <rect x="0" y={top} width={NAMES - 6} height={HEAD} />
            <text class="row" x="4" y={top + 13}>{opened.has(key) ? '▾' : '▸'} {row.name}</text>
          </g>
          <text class="figures" x={NAMES} y={top + 13}>{row.patternName}: {row.figures}</text>
          {#each lines as { line, y, channels } (line.line)}
            <TimelineLane
              {row}
              {line}
              {y}
              {x}
              {time}
              left={NAMES}
              {plot}
              height={LANE}
              chosen={row.key === onDesk}
            />
            {#each channels as { channel, y: at } (channel.channelId)}
              <g
                class="channel"
                class:selected={editor.selection.has(channel.placementId)}
                role="button"
                tabindex="-1"
                aria-label="{channel.name}, {channel.colour}"
                onclick={() => editor.select([channel.placementId], channel.moduleId)}
                ondblclick={() => nextPhase(row, channel)}
                onkeydown={(event) => {
                  if (event.key === 'Enter') nextPhase(row, channel);
                }}
              >
                <title
                  >{channel.name} · {channel.moduleId}{channel.freeBecause === null
                    ? ''
                    : `: free-running, it ${channel.freeBecause}`} (double-click: next phase)</title
                >
                <rect x="0" y={at} width={NAMES} height={CHANNEL} />
                <text class="lamp" x="22" y={at + 11}
                  >{channel.freeBecause === null ? '' : '≈ '}{channel.name}</text
                >
                <path d={pathOf(channel, at)} style:fill="var(--lamp-{channel.colour})" />
              </g>
            {/each}
          {/each}
        {/each}
        <line
          class="playhead"
          x1={x(editor.preview.timeMs)}
          x2={x(editor.preview.timeMs)}
          y1="0"
          y2={bottom}
        />
      </svg>
    {/if}
  </div>
  {#if rows.length > 0}<TimePlots {time} left={NAMES} {plot} {width} {x} />{/if}
</section>

<style>
  .score {
    height: 100%;
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

  .taken {
    color: var(--cds-text-01);
  }

  .window {
    display: flex;
    flex: none;
  }

  .window button,
  .window select {
    height: 24px;
  }

  .small {
    font-size: 12px;
    padding: 0 0.25rem;
  }

  .plot {
    flex: 1;
    min-height: 60px;
    overflow-y: auto;
    overflow-x: hidden;
  }

  svg {
    display: block;
    flex: none;
  }

  text {
    letter-spacing: 0;
    fill: var(--cds-text-01);
    font-size: 12px;
    pointer-events: none;
  }

  .row {
    font-weight: 600;
  }

  .opener {
    cursor: pointer;
  }

  .opener rect,
  .channel rect {
    fill: transparent;
  }

  .opener:focus-visible {
    outline: none;
  }

  .opener:focus-visible rect {
    stroke: var(--cds-focus);
    stroke-width: 2;
  }

  .channel {
    cursor: pointer;
  }

  .channel:hover rect,
  .channel.selected rect {
    fill: var(--cds-ui-03);
  }

  .lamp,
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
    pointer-events: none;
  }

  .playhead {
    stroke: var(--cds-text-01);
    stroke-width: 2;
    pointer-events: none;
  }
</style>
