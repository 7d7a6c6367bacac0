<script lang="ts">
  import { colourLetter } from '@flarik/core/words/colour';
  import {
    addBar,
    firstRoom,
    moveBar,
    pasteLine,
    removeBar,
    resizeBar,
    splitBar,
    type Drawn,
  } from '@flarik/core/timing/draw';
  import { tick } from 'svelte';
  import { getEditor } from '$lib/editor/context';
  import { trackDrag } from '$lib/editor/trackDrag';
  import { getDesk } from '$lib/pieces/desk.svelte';
  import type { TimelineBar, TimelineLine, TimelineRow } from './timelineRows';
  import type { TimeWindow } from './window.svelte';

  /** One line of a pattern in the score: its bars are drawn, moved, resized and split here. */
  let {
    row,
    line,
    y,
    x,
    time,
    left,
    plot,
    height,
    chosen,
  }: {
    row: TimelineRow;
    line: TimelineLine;
    y: number;
    x: (ms: number) => number;
    time: TimeWindow;
    left: number;
    plot: number;
    height: number;
    /** Its pattern is on the desk. */
    chosen: boolean;
  } = $props();

  const EDGE_PX = 6;
  const NEW_MS = 100;
  const editor = getEditor()();
  const desk = getDesk()();
  let lane = $state<SVGGElement>();

  const barHeight = $derived(height - 6);
  const base = $derived(y + height - 3);
  const what = $derived(`${line.name.toLowerCase()} of ${row.patternName}`);
  const on = $derived(chosen && desk.line === line.line);
  /** Bars of the first turn on the screen can be reached by keyboard; the others repeat them. */
  const firstTurn = $derived(line.bars.find((b) => b.fromMs >= time.fromMs)?.turn ?? line.bars[0]?.turn);

  const msPerPx = $derived(time.widthMs / plot);
  const snap = (ms: number, fine: boolean): number => {
    const step = fine ? 1 : time.snapMs;
    return Math.round(ms / step) * step;
  };
  /** A time of the score within the pattern, before the group's speed. */
  const inPattern = (ms: number): number => {
    const { cycleMs } = row.cycle;
    return ((((ms - row.offsetMs) % cycleMs) + cycleMs) % cycleMs) * row.speed;
  };

  function hold(event: PointerEvent, bar: TimelineBar): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    desk.open(row.place, line.line, bar.index);
    const from = x(bar.fromMs);
    const to = x(bar.toMs);
    const box = lane?.ownerSVGElement?.getBoundingClientRect();
    const at = event.clientX - (box?.left ?? 0);
    const room = Math.min(EDGE_PX, (to - from) / 3);
    const part = at < from + room ? 'from' : at > to - room ? 'to' : 'all';
    const span = desk.bar;
    if (span === null) return;
    const change =
      (clientX: number) =>
      (p: Drawn): Drawn => {
        const by = (clientX - event.clientX) * msPerPx * row.speed;
        if (part === 'all') return moveBar(p, line.line, bar.index, snap(span.fromMs + by, event.altKey));
        const ms = part === 'from' ? span.fromMs : span.toMs;
        return resizeBar(p, line.line, bar.index, part, snap(ms + by, event.altKey));
      };
    trackDrag(event, {
      move: (clientX) => desk.dragging(change(clientX)),
      drop: (clientX) => desk.draw(`Move a bar in ${what}`, change(clientX)),
      cancel: () => editor.cancelDrag(),
    });
  }

  /** Pulling across an empty part draws a bar. */
  function pull(event: PointerEvent): void {
    if (event.button !== 0) return;
    desk.open(row.place, line.line);
    const box = lane?.ownerSVGElement?.getBoundingClientRect();
    const began = time.fromMs + (event.clientX - (box?.left ?? 0) - left) * msPerPx;
    const change =
      (clientX: number) =>
      (p: Drawn): Drawn => {
        const ended = began + (clientX - event.clientX) * msPerPx;
        const first = Math.min(began, ended);
        const from = snap(inPattern(first), event.altKey);
        return addBar(p, line.line, from, snap(Math.abs(ended - began) * row.speed, event.altKey));
      };
    trackDrag(event, {
      move: (clientX) => desk.dragging(change(clientX)),
      drop: (clientX) => desk.draw(`Draw a bar in ${what}`, change(clientX)),
      cancel: () => editor.cancelDrag(),
    });
  }

  async function focusBar(index: number): Promise<void> {
    await tick();
    lane?.querySelector<SVGElement>(`[data-bar="${index}"]`)?.focus();
  }

  /** Adds a bar where the line first has room, and goes on to it. */
  function addFirst(): void {
    desk.open(row.place, line.line);
    let from: number | null = null;
    desk.draw(`Add a bar to ${what}`, (p) => {
      from = firstRoom(p, line.line, NEW_MS);
      return from === null ? p : addBar(p, line.line, from, NEW_MS);
    });
    const index = desk.pattern?.cycle.lines[line.line]?.findIndex((s) => s.fromMs === from) ?? -1;
    if (index < 0) return;
    desk.index = index;
    void focusBar(index);
  }

  function laneKey(event: KeyboardEvent): void {
    const command = event.ctrlKey || event.metaKey;
    if (event.key === 'Enter') addFirst();
    else if (event.key === ' ') desk.open(row.place, line.line);
    else if (command && event.key.toLowerCase() === 'c') desk.clip = row.cycle.lines[line.line] ?? [];
    else if (command && event.key.toLowerCase() === 'v' && desk.clip !== null) {
      const { clip } = desk;
      desk.open(row.place, line.line);
      desk.draw(`Paste into ${what}`, (p) => pasteLine(p, line.line, clip));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  function barKey(event: KeyboardEvent, bar: TimelineBar): void {
    const span = row.cycle.lines[line.line]?.[bar.index];
    if (span === undefined) return;
    const step = event.altKey ? 1 : 10;
    const { index } = bar;
    desk.open(row.place, line.line, index);
    const mine = desk.bar;
    if (mine === null) return;
    const key = `bar ${row.key} ${line.line} ${index}`;
    const by = event.key === 'ArrowRight' ? step : event.key === 'ArrowLeft' ? -step : 0;
    if (by !== 0 && event.shiftKey)
      desk.draw(`Resize a bar in ${what}`, (p) => resizeBar(p, line.line, index, 'to', mine.toMs + by), key);
    else if (by !== 0)
      desk.draw(`Move a bar in ${what}`, (p) => moveBar(p, line.line, index, mine.fromMs + by), key);
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      desk.draw(`Delete a bar of ${what}`, (p) => removeBar(p, line.line, index));
      desk.index = null;
      lane?.querySelector<SVGElement>('.lane')?.focus();
    } else if (event.key.toLowerCase() === 's' && !event.ctrlKey && !event.metaKey)
      desk.draw(`Split a bar of ${what}`, (p) => splitBar(p, line.line, index));
    else if (event.key === ' ') desk.index = index;
    else {
      laneKey(event);
      return;
    }
    event.preventDefault();
    event.stopPropagation();
  }

  const shapeOf = (bar: TimelineBar, stripe: number, stripes: number): string => {
    const h = barHeight / stripes;
    const low = base - stripe * h;
    const from = Math.max(left, x(bar.fromMs));
    const to = Math.min(left + plot, Math.max(from + 1, x(bar.toMs)));
    return `M${from.toFixed(1)} ${low}V${(low - h * bar.level).toFixed(1)}L${to.toFixed(1)} ${(low - h * bar.endLevel).toFixed(1)}V${low}Z`;
  };
</script>

<g bind:this={lane}>
  <text class="name" class:on x="14" y={y + 16}>{line.name} · {line.channels.length} ch</text>
  <rect
    class="lane"
    class:on
    x={left}
    y={y + 1}
    width={plot}
    height={height - 2}
    role="button"
    tabindex="0"
    aria-label="{row.name}, {line.name.toLowerCase()}: Enter adds a bar"
    onpointerdown={pull}
    ondblclick={(event) => {
      const box = lane?.ownerSVGElement?.getBoundingClientRect();
      const ms = time.fromMs + (event.clientX - (box?.left ?? 0) - left) * msPerPx;
      desk.open(row.place, line.line);
      desk.draw(`Add a bar to ${what}`, (p) => addBar(p, line.line, snap(inPattern(ms), false), NEW_MS));
    }}
    onkeydown={laneKey}
  />
  <line class="base" x1={left} x2={left + plot} y1={base} y2={base} />
  {#each line.bars as bar (`${bar.turn}/${bar.index}`)}
    {@const first = bar.turn === firstTurn}
    {@const picked = on && desk.index === bar.index}
    {@const colours = bar.colours}
    <g
      class="bar"
      class:picked
      class:again={!first}
      data-bar={first ? bar.index : undefined}
      role="button"
      tabindex={first && chosen ? 0 : -1}
      aria-label="{row.name}, {line.name.toLowerCase()}, bar {bar.index + 1}: {Math.round(
        bar.fromMs - row.offsetMs - bar.turn * row.cycle.cycleMs,
      )} to {Math.round(bar.toMs - row.offsetMs - bar.turn * row.cycle.cycleMs)} ms"
      onpointerdown={(event) => hold(event, bar)}
      onkeydown={(event) => barKey(event, bar)}
      onfocus={() => {
        if (desk.index !== bar.index || !on) desk.open(row.place, line.line, bar.index);
      }}
    >
      {#if colours.length === 0}
        <path class="nobody" d={shapeOf(bar, 0, 1)} />
      {/if}
      {#each colours as colour, c (colour)}
        <path style:fill="var(--lamp-{colour})" d={shapeOf(bar, c, colours.length)} />
        {#if x(bar.toMs) - x(bar.fromMs) > 11 && bar.level + bar.endLevel > 1}
          {@const stripe = barHeight / colours.length}
          <text
            class="letter"
            class:dark={colour !== 'blue' && colour !== 'purple'}
            x={(Math.max(left, x(bar.fromMs)) + Math.min(left + plot, x(bar.toMs))) / 2}
            y={base - c * stripe - stripe / 2 + 3.5}
            style:font-size="{Math.min(11, stripe + 2)}px">{colourLetter[colour]}</text
          >
        {/if}
      {/each}
      {#if x(bar.toMs) > left && x(bar.fromMs) < left + plot}
        <rect
          class="grip"
          x={Math.max(left, x(bar.fromMs))}
          y={base - barHeight}
          width={Math.max(1, Math.min(left + plot, x(bar.toMs)) - Math.max(left, x(bar.fromMs)))}
          height={barHeight}
        />
        <rect class="edge" x={x(bar.toMs) - 3} y={base - barHeight} width="4" height={barHeight} />
        <rect class="edge" x={x(bar.fromMs) - 1} y={base - barHeight} width="4" height={barHeight} />
      {/if}
    </g>
  {/each}
</g>

<style>
  text {
    letter-spacing: 0;
    pointer-events: none;
  }

  .name {
    fill: var(--cds-text-02);
    font-size: 11.5px;
  }

  .name.on {
    fill: var(--cds-text-01);
    font-weight: 600;
  }

  .lane {
    fill: transparent;
    cursor: crosshair;
  }

  .lane:hover {
    fill: color-mix(in srgb, var(--accent) 7%, transparent);
  }

  .lane.on {
    fill: color-mix(in srgb, var(--accent) 14%, transparent);
  }

  .lane:focus-visible {
    outline: none;
    stroke: var(--cds-focus);
    stroke-width: 2;
  }

  .base {
    stroke: var(--cds-ui-04);
    stroke-width: 0.6;
    pointer-events: none;
  }

  .bar {
    cursor: grab;
    outline: none;
  }

  .bar path {
    stroke: rgb(0 0 0 / 45%);
    stroke-width: 0.6;
  }

  .again path {
    opacity: 0.72;
  }

  .nobody {
    fill: var(--cds-ui-05);
  }

  .grip {
    fill: transparent;
  }

  .edge {
    fill: transparent;
    cursor: ew-resize;
  }

  .picked .grip,
  .bar:focus-visible .grip {
    stroke: var(--cds-text-01);
    stroke-width: 2;
  }

  .bar:focus-visible .grip {
    stroke: var(--cds-focus);
    stroke-width: 3;
  }

  .letter {
    text-anchor: middle;
    font-weight: 600;
    fill: #fff;
  }

  .letter.dark {
    fill: #161616;
  }
</style>
