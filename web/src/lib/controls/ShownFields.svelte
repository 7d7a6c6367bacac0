<script lang="ts">
  import { changeEffect } from '@flarik/core/design/controlEdits';
  import { onKey } from '@flarik/core/design/controls';
  import {
    FUNCTION_KINDS,
    shown as shows,
    targetKey,
    type ControlFunction,
    type Dim,
    type FunctionKind,
  } from '@flarik/core/design/functions';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { getEditor } from '$lib/editor/context';
  import CueCell from '$lib/pieces/CueCell.svelte';
  import { cueRows, membersOf } from '$lib/pieces/members';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';

  /** What a function shows while it is on: cues, dims and other outputs; of a cycle, by its number. */
  let { fn }: { fn: ControlFunction } = $props();
  const editor = getEditor()();
  let number = $state(1);
  const shownNow = $derived(fn.shows[Math.min(number, fn.shows.length) - 1] ?? shows([]));
  const on = $derived(onKey(fn.id, Math.min(number, fn.shows.length)));
  /** Whom it speaks to first, then all others. */
  const rows = $derived.by(() => {
    const spoken = new Set(shownNow.cues.map((cue) => targetKey(cue.target)));
    const there = cueRows(editor.build).filter(({ target }) => membersOf(editor.build, target).length > 0);
    return there.toSorted(
      (a, b) => Number(spoken.has(targetKey(b.target))) - Number(spoken.has(targetKey(a.target))),
    );
  });

  function setDims(dims: Dim[]): void {
    editor.edit(`Dims of ${fn.name}`, (b) => changeEffect(b, on, { dims }));
  }
  function setLoad(loadId: string, value: string): void {
    const others = shownNow.loads.filter((l) => l.loadId !== loadId);
    editor.edit(`Loads of ${fn.name}`, (b) =>
      changeEffect(b, on, { loads: value === '' ? others : [...others, { loadId, value }] }),
    );
  }
</script>

<h2>Effect</h2>
{#if fn.shows.length > 1}
  <div role="group" aria-label="Cycle step">
    {#each fn.shows.keys() as i (i)}
      <button class="plain" aria-pressed={number === i + 1} onclick={() => (number = i + 1)}>{i + 1}</button>
    {/each}
  </div>
{/if}
{#each rows as row (targetKey(row.target))}
  <div class="cues">
    <span>{row.name}</span>
    <div><CueCell {on} {row} onlyAllowed={false} /></div>
  </div>
{:else}
  <p class="quiet">No lamps yet. Place lamps under Layout.</p>
{/each}
{#each shownNow.dims as dim, i (i)}
  {@const put = (patch: Partial<Dim>) =>
    setDims(shownNow.dims.map((d, k) => (k === i ? { ...d, ...patch } : d)))}
  <div class="dim" role="group" aria-label="Dim {i + 1}">
    <TypedNumber
      label="Dims to"
      unit="%"
      value={dim.factor * 100}
      min={5}
      max={100}
      onset={(p: number) => put({ factor: p / 100 })}
    />
    <select
      aria-label="Dimmed lamps"
      value={targetKey(dim.targets[0] ?? { kind: 'ungrouped' })}
      onchange={(event) => {
        const row = rows.find(({ target }) => targetKey(target) === event.currentTarget.value);
        if (row !== undefined) put({ targets: [row.target] });
      }}
    >
      {#each rows as row (targetKey(row.target))}<option value={targetKey(row.target)}>{row.name}</option
        >{/each}
    </select>
    <TickBoxes
      label="Dimmed kinds"
      items={[...FUNCTION_KINDS]}
      chosen={dim.kinds}
      onset={(kinds: FunctionKind[]) => put({ kinds })}
    />
    <button class="link" onclick={() => setDims(shownNow.dims.filter((_, k) => k !== i))}>Remove</button>
  </div>
{/each}
{#if rows[0] !== undefined}
  {@const [first] = rows}
  <button
    class="plain"
    onclick={() =>
      setDims([...shownNow.dims, { targets: [first.target], factor: 0.5, kinds: ['stage', 'warning'] }])}
    >Dim others …</button
  >
{/if}
{#each editor.build.controls.loads as load (load.id)}
  <label
    >{load.name}
    <select
      value={shownNow.loads.find((l) => l.loadId === load.id)?.value ?? ''}
      onchange={(event) => setLoad(load.id, event.currentTarget.value)}
    >
      <option value="">leaves it alone</option>
      {#each load.values as value (value)}<option {value}>{value}</option>{/each}
    </select></label
  >
{/each}

<style>
  .cues {
    display: grid;
    grid-template-columns: 7rem 1fr;
    gap: 0.4rem;
    font-size: 12.5px;
    border-bottom: 1px solid var(--cds-ui-03);
  }

  /* Here there is room for what is taken too. */
  .cues :global(.takes) {
    display: grid;
  }

  .dim {
    display: grid;
    grid-template-columns: 6rem 1fr auto;
    gap: 0.4rem;
    align-items: end;
    font-size: 12px;
  }
</style>
