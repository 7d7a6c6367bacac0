<script lang="ts">
  import { drivenIn } from '@flarik/core/state/driven';
  import { currentOf } from '@flarik/core/resolve/current';
  import { getEditor } from '$lib/editor/context';
  import { timelineOf, type TimelineLine } from './timelineRows';
  import { reachable } from '$lib/ui/reachable';

  /** The stages beyond Off on one scale of time, to compare. */
  const editor = getEditor()();
  const SHOWN_MS = 2500;
  const LINE = 13;
  const WIDTH = 230;

  const stages = $derived(
    editor.stages
      .filter(({ mode }) => mode !== 0)
      .map(({ id, name }) => {
        const rows = timelineOf(editor.build, id, editor.state.ambient, { fromMs: 0, toMs: SHOWN_MS });
        const current = currentOf(drivenIn(editor.build, { on: [id], ambient: editor.state.ambient }));
        return { id, rows, current, name };
      }),
  );
  const x = (ms: number): number => (Math.min(SHOWN_MS, Math.max(0, ms)) / SHOWN_MS) * WIDTH;

  const pathOf = (line: TimelineLine, stripe: number, stripes: number): string => {
    const h = (LINE - 3) / stripes;
    const low = LINE - 1 - stripe * h;
    return line.bars
      .map(
        (b) =>
          `M${x(b.fromMs).toFixed(1)} ${low}V${(low - h * b.level).toFixed(1)}L${Math.max(x(b.fromMs) + 1, x(b.toMs)).toFixed(1)} ${(low - h * b.endLevel).toFixed(1)}V${low}Z`,
      )
      .join('');
  };
  const coloursOf = (line: TimelineLine) => [...new Set(line.channels.map((c) => c.colour))];
</script>

<div class="stages" role="group" aria-label="Stage comparison" {@attach reachable}>
  {#each stages as { id, rows, current, name } (id)}
    <section class:now={id === editor.looked}>
      <button class="name" onclick={() => editor.lookAtFunction(id)}>{name}</button>
      <span class="quiet small"
        >{current.meanA.toFixed(1)} A mean, {current.worstA.value.toFixed(1)} A worst</span
      >
      {#each rows as row (row.key)}
        <p class="row">{row.name} <span class="quiet">{row.patternName}</span></p>
        {#each row.lines.filter((l) => l.channels.length > 0) as line (line.line)}
          {@const colours = coloursOf(line)}
          <svg
            viewBox="0 0 {WIDTH} {LINE}"
            preserveAspectRatio="none"
            role="img"
            aria-label="{row.name}, {line.name.toLowerCase()}"
          >
            <line x1="0" x2={WIDTH} y1={LINE - 1} y2={LINE - 1} />
            {#each colours as colour, c (colour)}
              <path style:fill="var(--lamp-{colour})" d={pathOf(line, c, colours.length)} />
            {/each}
          </svg>
        {/each}
      {:else}
        <p class="quiet small">No lamp is lit.</p>
      {/each}
    </section>
  {/each}
</div>

<style>
  .stages {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 0.75rem;
    padding: 0.4rem 0.5rem;
    overflow-y: auto;
  }

  section {
    border-top: 3px solid transparent;
  }

  .now {
    border-top-color: var(--accent);
  }

  .name {
    border: 0;
    padding: 0;
    background: none;
    color: var(--accent);
    font: inherit;
    font-weight: 600;
    cursor: pointer;
  }

  .name:focus-visible {
    outline: 2px solid var(--cds-focus);
  }

  .small {
    font-size: 11.5px;
  }

  .row {
    margin-top: 0.35rem;
    font-size: 12px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }

  svg {
    display: block;
    width: 100%;
    height: 13px;
  }

  line {
    stroke: var(--cds-ui-04);
    stroke-width: 0.6;
  }
</style>
