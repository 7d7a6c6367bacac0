<script lang="ts">
  import { targetName } from '@flarik/core/design/names';
  import { textOf } from '$lib/ui/textOf';
  import FilePicker from '$lib/ui/FilePicker.svelte';
  import {
    addPattern,
    emptyPattern,
    freshName,
    importPatterns,
    removePattern,
    showPattern,
    usesOf,
    writePatterns,
  } from '@flarik/core/design/patternEdits';
  import { patternMisfit } from '@flarik/core/rules/allowedPattern';
  import { bookOf } from '@flarik/core/timing/book';
  import { familyOf, PATTERN_FAMILIES, PATTERNS } from '@flarik/core/timing/library';
  import type { Pattern } from '@flarik/core/timing/pattern';
  import { patternFigures } from '@flarik/core/timing/patternFigures';
  import { download } from '$lib/download';
  import { getEditor } from '$lib/editor/context';
  import { freshPatternId, getDesk } from '$lib/pieces/desk.svelte';
  import LinePicture from './LinePicture.svelte';
  import { reachable } from '$lib/ui/reachable';

  /** All patterns with their figures; own ones can be begun, brought in and taken out. */
  const editor = getEditor()();
  const desk = getDesk()();
  let family = $state('all');
  let onlyAllowed = $state(false);
  let words = $state('');
  let problem = $state('');

  const book = $derived(bookOf(editor.build));
  const on = $derived(editor.looked);
  const shown = $derived(
    [...book.own, ...PATTERNS]
      .map((p) => {
        const cycle = book.cycle(p.id);
        return {
          p,
          cycle,
          family: familyOf(p.id) ?? 'own',
          figures: patternFigures(cycle),
          why: patternMisfit(editor.build, on, cycle),
        };
      })
      .filter(
        (row) =>
          (family === 'all' || row.family === family) &&
          (!onlyAllowed || row.why === null) &&
          row.p.name.toLowerCase().includes(words.trim().toLowerCase()),
      ),
  );
  /** The cue that a pattern can be given to: the one on the desk. */
  const target = $derived.by(() => {
    const { here } = desk;
    if (here === null) return null;
    return { here, text: `${editor.nameOf(here.on)}, ${targetName(editor.build, here.target)}` };
  });

  function begin(kind: Pattern['kind']): void {
    const id = freshPatternId();
    editor.edit('New pattern', (b) => {
      const name = freshName(bookOf(b), NEW_NAME[kind], 1);
      return addPattern(b, newPattern(kind, id, name));
    });
    family = 'own';
    if (target === null) return;
    use(id);
    desk.open(target.here);
  }

  const NEW_NAME = { drawn: 'Pattern', row: 'Row', random: 'Chance', sequence: 'Sequence' } as const;

  function newPattern(kind: Pattern['kind'], id: string, name: string): Pattern {
    switch (kind) {
      case 'drawn':
        return emptyPattern(id, name);
      case 'row':
        return {
          kind,
          id,
          name,
          move: 'first-to-last',
          heads: 8,
          stepMs: 100,
          show: 'hold',
          holdMs: 200,
          restMs: 300,
        };
      case 'random':
        return {
          kind,
          id,
          name,
          seed: 1,
          cycleMs: 6000,
          phases: 2,
          pulse: { leastMs: 80, mostMs: 200 },
          dark: { leastMs: 300, mostMs: 700 },
        };
      case 'sequence':
        return {
          kind,
          id,
          name,
          parts: [
            { patternId: 'single-slow', times: 3 },
            { patternId: 'single-quick', times: 4 },
          ],
        };
    }
  }

  function use(patternId: string): void {
    if (target === null) return;
    const { here } = target;
    editor.edit(`Pattern in ${target.text}`, (b) => showPattern(b, here, patternId));
    editor.lookAtFunction(here.on);
    desk.look(here);
  }

  function duplicate(p: Pattern): void {
    const id = freshPatternId();
    editor.edit(`Duplicate ${p.name}`, (b) =>
      addPattern(b, { ...p, id, name: freshName(bookOf(b), p.name) }),
    );
    family = 'own';
  }

  let picker: { open: () => void } | undefined = $state();

  async function bring(file: File): Promise<void> {
    try {
      const text = await textOf(file, 'pattern file');
      const after = importPatterns(editor.build, text, freshPatternId);
      editor.edit(`Patterns from ${file.name}`, () => after);
      problem = '';
      family = 'own';
    } catch (error) {
      problem = `${file.name}: ${error instanceof Error ? error.message : String(error)}`;
    }
  }

  const percent = (share: number): string => `${Math.round(share * 100)} %`;
  const rate = (n: number): string => String(Math.round(n * 10) / 10);
</script>

<div class="library">
  <div class="tools">
    <label
      >Family
      <select bind:value={family}>
        <option value="all">all</option>
        <option value="own">own</option>
        {#each PATTERN_FAMILIES as name (name)}<option value={name}>{name}</option>{/each}
      </select>
    </label>
    <label>Name <input type="search" bind:value={words} /></label>
    <label class="tick"
      ><input type="checkbox" bind:checked={onlyAllowed} /> Only those allowed in {editor.nameOf(on)}</label
    >
    <span class="gap"></span>
    <span class="quiet">New:</span>
    <button class="plain" onclick={() => begin('drawn')}>empty</button>
    <button class="plain" onclick={() => begin('row')}>along a row</button>
    <button class="plain" onclick={() => begin('random')}>random</button>
    <button class="plain" onclick={() => begin('sequence')}>one after another</button>
    <button class="plain" onclick={() => picker?.open()}>Import file</button>
    <FilePicker bind:this={picker} label="Import file" accept=".json,application/json" ontake={bring} />
    <button
      class="plain"
      disabled={book.own.length === 0}
      onclick={() =>
        download(
          'patterns.json',
          writePatterns(
            editor.build,
            book.own.map((p) => p.id),
          ),
        )}>Export custom patterns</button
    >
  </div>
  {#if problem !== ''}<p role="alert" class="problem">{problem}</p>{/if}
  <div class="scroller" role="group" aria-label="Library" {@attach reachable}>
    <table>
      <thead>
        <tr>
          <th scope="col">Pattern</th>
          <th scope="col">One cycle</th>
          <th scope="col" title="Flashes a minute">/min</th>
          <th scope="col">Pulses</th>
          <th scope="col" title="Share of the cycle lit, and mean level">Lit</th>
          <th scope="col" title="Longest dark time of one lamp">Dark, ms</th>
          <th scope="col" title="Effective intensity as a share of the peak (Blondel and Rey)">Effective</th>
          <th scope="col" title="Most flashes in any second: one lamp, whole group">/s</th>
          <th scope="col" title="Suitable for unsynchronised lamps">Alone</th>
          <th scope="col">Actions</th>
        </tr>
      </thead>
      <tbody>
        {#each shown as { p, cycle, figures: f, why, family: kin } (p.id)}
          <tr class:on={desk.pattern?.pattern.id === p.id}>
            <th scope="row"
              >{p.name}<span class="quiet sub">{kin}{why === null ? '' : ` · ✕ ${why}`}</span></th
            >
            <td><LinePicture {cycle} /></td>
            <td class="figure"
              >{f.steady
                ? '–'
                : f.slowestPerMinute === f.fastestPerMinute
                  ? rate(f.slowestPerMinute)
                  : `${rate(f.slowestPerMinute)}–${rate(f.fastestPerMinute)}`}</td
            >
            <td class="figure">{f.pulsesPerCycle}</td>
            <td class="figure"
              >{percent(f.onShare)}{Math.abs(f.meanLevel - f.onShare) > 0.005
                ? ` (${percent(f.meanLevel)})`
                : ''}</td
            >
            <td class="figure">{Number.isFinite(f.longestDarkMs) ? f.longestDarkMs : 'always'}</td>
            <td class="figure">{percent(f.effectiveShare)}</td>
            <td class="figure" title={f.seizureClass}
              >{f.mostFlashesASecond}, {f.mostFlashesASecondOfGroup}{f.seizureClass ===
              'over three flashes a second'
                ? ' ⚠'
                : ''}</td
            >
            <td>{f.soundAlone ? 'yes' : 'no'}</td>
            <td class="actions">
              {#if target !== null}
                <button class="plain" aria-label="Use {p.name} for {target.text}" onclick={() => use(p.id)}
                  >use</button
                >
              {/if}
              <button class="plain" aria-label="Duplicate {p.name}" onclick={() => duplicate(p)}
                >duplicate</button
              >
              {#if kin === 'own'}
                <button
                  class="plain"
                  aria-label="Save {p.name} as a file"
                  onclick={() => download(`${p.id}.json`, writePatterns(editor.build, [p.id]))}>save</button
                >
                {#if usesOf(editor.build, p.id).length === 0}
                  <button
                    class="plain"
                    aria-label="Delete {p.name}"
                    onclick={() => editor.edit(`Delete ${p.name}`, (b) => removePattern(b, p.id))}
                    >delete</button
                  >
                {/if}
              {/if}
            </td>
          </tr>
        {:else}
          <tr><td colspan="10" class="quiet">No pattern of that kind. Create one above.</td></tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="quiet foot">
    {target === null
      ? 'To use a pattern, first click “draw” beside a pattern in the functions table.'
      : `“use” gives it to ${target.text}.`} ⚠ Over three flashes per second: risk of seizures.
  </p>
</div>

<style>
  .library {
    display: flex;
    flex-direction: column;
    min-height: 0;
    height: 100%;
  }

  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.6rem;
    align-items: center;
    padding: 0.35rem 0.5rem;
    font-size: 12px;
  }

  .gap {
    flex: 1;
  }

  .tick {
    display: flex;
    gap: 0.3rem;
    align-items: center;
  }

  .problem {
    color: var(--gap);
    padding: 0 0.5rem 0.3rem;
    font-size: 13px;
  }

  .scroller {
    flex: 1;
    min-height: 0;
    overflow: auto;
  }

  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 12.5px;
  }

  th,
  td {
    padding: 0.2rem 0.4rem;
    border-bottom: 1px solid var(--cds-ui-03);
    text-align: left;
    vertical-align: middle;
  }

  thead th {
    position: sticky;
    top: 0;
    background: var(--cds-ui-background);
    color: var(--cds-text-02);
    font-weight: 400;
    z-index: 1;
  }

  tbody th {
    font-weight: 600;
  }

  .sub {
    display: block;
    font-size: 11px;
    font-weight: 400;
  }

  .figure {
    white-space: nowrap;
  }

  tr.on {
    background: color-mix(in srgb, var(--accent) 12%, var(--cds-ui-background));
  }

  /* What can be done with a pattern stays in sight, whichever figures the width shows. */
  tr > :last-child:not([colspan]) {
    position: sticky;
    right: 0;
    box-shadow: -6px 0 6px -4px rgb(0 0 0 / 60%);
    background: var(--cds-ui-background);
  }

  thead tr > :last-child {
    z-index: 2;
  }

  .actions button {
    display: block;
    width: 100%;
    margin-bottom: 2px;
  }

  .foot {
    font-size: 12px;
    padding: 0.25rem 0.5rem;
  }
</style>
