<script lang="ts">
  import { targetName } from '@flarik/core/design/names';
  import { setCue } from '@flarik/core/design/controlEdits';
  import {
    addPattern,
    changePattern,
    cueAt,
    showPattern,
    usesOf,
    variantAtSpeed,
  } from '@flarik/core/design/patternEdits';
  import { bookOf } from '@flarik/core/timing/book';
  import { addBar, firstRoom, pasteLine, setBy, setCycle, setLineCount } from '@flarik/core/timing/draw';
  import { DIRECTIONS, lineName, type Pattern } from '@flarik/core/timing/pattern';
  import { patternFigures } from '@flarik/core/timing/patternFigures';
  import { Name } from '@flarik/core/words/names';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import BarFields from './BarFields.svelte';
  import { getDesk } from '$lib/pieces/desk.svelte';
  import RecipeFields from './RecipeFields.svelte';
  import TapPad from './TapPad.svelte';
  import { freshId } from '$lib/editor/freshId';

  /** The pattern on the desk: its line, its bar, what it is made of. */
  const editor = getEditor()();
  const desk = getDesk()();

  const NEW_MS = 100;
  let speed = $state(25);
  let problem = $state('');

  const here = $derived(desk.here);
  const on = $derived(desk.pattern);
  const place = $derived.by(() => {
    if (here === null) return '';
    return `${targetName(editor.build, here.target)}, ${editor.nameOf(here.on)}${here.ambient === 'night' ? ' at night' : ''}`;
  });
  const drawn = $derived(on?.pattern.kind === 'drawn' ? on.pattern : null);
  const lines = $derived(on?.cycle.lines ?? []);
  const figures = $derived(on === null ? null : patternFigures(on.cycle));
  const elsewhere = $derived(on?.own === true ? usesOf(editor.build, on.pattern.id) : []);

  function rename(text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success && on !== null)
      editor.edit('Rename pattern', (b) => changePattern(b, { ...on.pattern, name: name.data }));
  }

  const change = (pattern: Pattern): void =>
    editor.edit(`Change ${pattern.name}`, (b) => changePattern(b, pattern));

  function variant(atNight: boolean): void {
    if (on === null || here === null) return;
    const id = freshId('p');
    try {
      const made = variantAtSpeed(bookOf(editor.build), on.pattern.id, speed, id);
      problem = '';
      editor.edit(made.name, (b) => {
        const added = addPattern(b, made);
        const cue = cueAt(added, here);
        if (!atNight || cue === undefined) return showPattern(added, here, id);
        return setCue(added, here.on, here.target, here.ink, { ...cue, nightPatternId: id });
      });
      if (atNight) editor.setState({ ambient: 'night' });
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  }

  function add(): void {
    desk.draw('Add a bar', (p) => {
      const from = firstRoom(p, desk.line, NEW_MS);
      return from === null ? p : addBar(p, desk.line, from, NEW_MS);
    });
  }

  /** The line half a cycle later, on the line that answers it. */
  function answer(): void {
    const spans = lines[desk.line] ?? [];
    const other = desk.line % 2 === 0 ? desk.line + 1 : desk.line - 1;
    desk.draw('Add the alternating line', (p) =>
      pasteLine(setLineCount(p, Math.max(p.lines.length, other + 1)), other, spans, p.cycleMs / 2),
    );
  }

  const percent = (share: number): number => Math.round(share * 100);
</script>

<section class="panel" aria-label="Pattern">
  {#if here === null || on === null || figures === null}
    <p class="quiet">
      No pattern is open. Click “draw” beside a pattern in the functions table, or click a line of the
      timeline.
    </p>
  {:else}
    <p class="quiet small">{place}</p>
    {#if on.own}
      <label class="name">
        Name
        <input
          value={on.pattern.name}
          maxlength="80"
          onchange={(event) => rename(event.currentTarget.value)}
        />
      </label>
      {#if elsewhere.length > 1}
        <p class="small">Also changes: {elsewhere.filter((use) => use !== '').join('; ')}</p>
      {/if}
    {:else}
      <h3>{on.pattern.name}</h3>
      <p class="quiet small">
        Library pattern. Editing creates a custom copy for {place}.
      </p>
    {/if}

    {#if on.own}
      <label class="name">
        Moves, seen from behind
        <select
          value={on.pattern.direction ?? ''}
          onchange={(event) => {
            const direction = DIRECTIONS.find((d) => d === event.currentTarget.value);
            change({ ...on.pattern, direction });
          }}
        >
          <option value="">no declared direction</option>
          {#each DIRECTIONS as direction (direction)}<option value={direction}
              >{direction === 'from the middle' ? 'centre-out' : `to the ${direction}`}</option
            >{/each}
        </select>
      </label>
    {/if}

    {#if drawn === null && on.own && on.pattern.kind !== 'drawn'}
      <RecipeFields pattern={on.pattern} onchange={change} />
    {/if}

    <div class="pair">
      <TypedNumber
        label="Cycle"
        unit="ms"
        value={on.cycle.cycleMs}
        min={20}
        max={60_000}
        onset={(ms: number) => desk.draw('Length of the cycle', (p) => setCycle(p, Math.round(ms)))}
      />
      <TypedNumber
        label={on.cycle.by === 'phase' ? 'Phases' : 'Steps'}
        unit="lines"
        value={lines.length}
        min={1}
        max={on.cycle.by === 'phase' ? 8 : 32}
        onset={(n: number) => desk.draw('Number of lines', (p) => setLineCount(p, n))}
      />
    </div>
    <div class="buttons" role="group" aria-label="Lines by">
      <button
        class="plain"
        aria-pressed={on.cycle.by === 'phase'}
        onclick={() => desk.draw('Lines by phase', (p) => setBy(p, 'phase'))}>by phase letter</button
      >
      <button
        class="plain"
        aria-pressed={on.cycle.by === 'order'}
        onclick={() => desk.draw('Lines by place', (p) => setBy(p, 'order'))}>by place in a row</button
      >
    </div>

    <label class="name">
      Line
      <select
        aria-label="Line"
        value={String(desk.line)}
        onchange={(event) => {
          desk.line = Number(event.currentTarget.value);
          desk.index = null;
        }}
      >
        {#each lines as spans, i (i)}
          <option value={String(i)}
            >{lineName(on.cycle.by, i)}: {spans.length === 1 ? '1 bar' : `${spans.length} bars`}</option
          >
        {/each}
      </select>
    </label>
    <div class="buttons">
      <button class="plain" onclick={add}>Add a bar</button>
      <button class="plain" onclick={() => (desk.clip = lines[desk.line] ?? [])}>Copy line</button>
      <button
        class="plain"
        disabled={desk.clip === null}
        onclick={() => {
          const { clip } = desk;
          if (clip !== null) desk.draw('Paste line', (p) => pasteLine(p, desk.line, clip));
        }}>Paste</button
      >
      <button
        class="plain"
        disabled={desk.clip === null}
        onclick={() => {
          const { clip } = desk;
          if (clip !== null)
            desk.draw('Paste half a cycle later', (p) => pasteLine(p, desk.line, clip, p.cycleMs / 2));
        }}>Paste ½ later</button
      >
      {#if on.cycle.by === 'phase'}
        <button class="plain" title="Copy to the alternating line, half a cycle later" onclick={answer}
          >Alternate in {lineName('phase', desk.line % 2 === 0 ? desk.line + 1 : desk.line - 1)}</button
        >
      {/if}
      <TapPad />
    </div>

    {#if desk.bar !== null && desk.index !== null}
      <BarFields bar={desk.bar} index={desk.index} cycle={on.cycle} />
    {/if}

    <div class="variant">
      <TypedNumber
        label="Variant at speed"
        unit="%"
        value={speed}
        min={10}
        max={400}
        onset={(n: number) => (speed = Math.round(n))}
      />
      <div class="buttons">
        <button class="plain" onclick={() => variant(false)}>Use it here</button>
        <button class="plain" onclick={() => variant(true)}>Use it at night</button>
      </div>
    </div>
    {#if problem !== ''}<p role="alert" class="problem">{problem}</p>{/if}

    <dl>
      <dt>Flashes</dt>
      <dd class="figure">
        {figures.steady
          ? 'steady'
          : figures.slowestPerMinute === figures.fastestPerMinute
            ? `${Math.round(figures.slowestPerMinute * 10) / 10}/min`
            : `${Math.round(figures.slowestPerMinute)} to ${Math.round(figures.fastestPerMinute)}/min`}
      </dd>
      <dt>Pulses in a cycle</dt>
      <dd class="figure">{figures.pulsesPerCycle}</dd>
      <dt>Lit</dt>
      <dd class="figure">{percent(figures.onShare)} %</dd>
      <dt>Longest dark</dt>
      <dd class="figure">
        {Number.isFinite(figures.longestDarkMs) ? `${figures.longestDarkMs} ms` : 'always'}
      </dd>
      <dt>Effective intensity</dt>
      <dd class="figure">{percent(figures.effectiveShare)} % of peak</dd>
      <dt>Flashes in a second</dt>
      <dd class="figure">{figures.mostFlashesASecond}, group {figures.mostFlashesASecondOfGroup}</dd>
    </dl>
    {#if figures.seizureClass === 'over three flashes a second'}
      <p class="small">⚠ Over three flashes per second: risk of seizures.</p>
    {/if}
  {/if}
</section>

<style>
  .panel {
    display: grid;
    align-content: start;
    gap: 0.45rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
    min-height: 0;
  }

  .small {
    font-size: 12px;
    line-height: 1.35;
  }

  h3 {
    font-size: 13px;
  }

  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.4rem;
  }

  .name {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  input,
  select {
    height: 28px;
  }

  .buttons {
    display: flex;
    flex-wrap: wrap;
    gap: 3px;
  }

  .buttons button[aria-pressed='true'] {
    background: var(--on);
    color: var(--on-text);
  }

  .variant {
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: end;
    gap: 0.4rem;
    border-top: 1px solid var(--cds-ui-03);
    padding-top: 0.4rem;
  }

  .problem {
    color: var(--gap);
    font-size: 13px;
  }

  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0.1rem 0.5rem;
    font-size: 12.5px;
  }

  dt,
  dd {
    font-size: 12.5px;
  }

  dd {
    text-align: right;
  }
</style>
