<script lang="ts">
  import { controlChanges, previousPanelFrom } from '@flarik/core/controls/controlChanges';
  import type { PreviousControl } from '@flarik/core/design/controls';
  import { LONGEST_LABEL } from '@flarik/core/design/functions';
  import { CONTROL_KINDS, MOST_COLUMNS, MOST_ROWS } from '@flarik/core/design/panel';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';

  /** The panel that operators are used to, as a face; what each of its controls did, and what became of it. */
  let { onset }: { onset: (what: string, oldPanel: PreviousControl[]) => void } = $props();
  const editor = getEditor()();
  const { oldPanel, functions } = $derived(editor.build.controls);
  const habits = $derived(controlChanges(editor.build));
  let chosenId = $state<string | null>(null);
  const chosen = $derived(habits.find(({ old }) => old.id === chosenId) ?? null);
  const columns = $derived(Math.max(4, ...oldPanel.map((o) => o.column)));

  const put = (old: PreviousControl, patch: Partial<PreviousControl>): void =>
    onset(
      `Old control ${old.label}`,
      oldPanel.map((o) => (o.id === old.id ? { ...o, ...patch } : o)),
    );

  function add(): void {
    const taken = new Set(oldPanel.map((o) => `${o.row}/${o.column}`));
    for (let row = 1; row <= MOST_ROWS; row++)
      for (let column = 1; column <= 4; column++)
        if (!taken.has(`${row}/${column}`)) {
          const id = freshId('old');
          onset('Old control', [
            ...oldPanel,
            { id, kind: 'button', label: '', column, row, functionIds: [] },
          ]);
          chosenId = id;
          return;
        }
  }

  /** The panel as it is now becomes the old one: what is changed from here on shows as moved. */
  function keepAsOld(): void {
    const [panel] = editor.build.controls.panels;
    if (panel !== undefined)
      onset(
        'Keep the panel as the old one',
        previousPanelFrom(editor.build, panel, () => freshId('old')),
      );
  }
</script>

<h2>Previous panel</h2>
{#if oldPanel.length > 0}
  <div class="face" style:grid-template-columns="repeat({columns}, minmax(0, 1fr))">
    {#each habits as { old, changes } (old.id)}
      <button
        class:moved={changes.length > 0}
        class:spare={old.kind === 'spare'}
        aria-pressed={chosenId === old.id}
        style:grid-row={old.row}
        style:grid-column={old.column}
        onclick={() => (chosenId = old.id)}
      >
        <span>{old.label || old.kind}</span>
        <span class="sign">{changes.length > 0 ? 'moved' : 'kept'}</span>
      </button>
    {/each}
  </div>
{:else}
  <p class="quiet">
    Enter each control of the old panel and its effect. Controls with another place, label or kind on the new
    panel are then reported.
  </p>
{/if}
{#if chosen !== null}
  {@const { old } = chosen}
  <fieldset>
    <legend>{old.label || old.kind}</legend>
    <div class="fields">
      <label
        >Label <input
          value={old.label}
          maxlength={LONGEST_LABEL}
          onchange={(event) => put(old, { label: event.currentTarget.value.trim() })}
        /></label
      >
      <label
        >Kind
        <select
          value={old.kind}
          onchange={(event) => {
            const kind = CONTROL_KINDS.find((k) => k === event.currentTarget.value);
            if (kind !== undefined) put(old, { kind });
          }}
          >{#each CONTROL_KINDS as kind (kind)}<option value={kind}>{kind}</option>{/each}</select
        ></label
      >
      <label
        >Column <input
          type="number"
          min="1"
          max={MOST_COLUMNS}
          value={old.column}
          onchange={(event) => put(old, { column: event.currentTarget.valueAsNumber || 1 })}
        /></label
      >
      <label
        >Row <input
          type="number"
          min="1"
          max={MOST_ROWS}
          value={old.row}
          onchange={(event) => put(old, { row: event.currentTarget.valueAsNumber || 1 })}
        /></label
      >
    </div>
    <TickBoxes
      label="Function with the same effect"
      items={functions.map((fn) => fn.id)}
      nameOf={(id: string) => functions.find((fn) => fn.id === id)?.name ?? 'deleted function'}
      atLeast={0}
      chosen={old.functionIds}
      onset={(functionIds: string[]) => put(old, { functionIds })}
    />
    <p class="small">
      {chosen.changes.length === 0 ? 'As it was.' : `${chosen.changes.join('; ')}.`}
    </p>
    <button
      class="link"
      onclick={() =>
        onset(
          'Delete a previous control',
          oldPanel.filter((o) => o.id !== old.id),
        )}>delete it</button
    >
  </fieldset>
{/if}
<div class="buttons">
  <button class="plain" onclick={add}>Add previous control</button>
  {#if oldPanel.length === 0}
    <button class="plain" onclick={keepAsOld}>Copy the current panel</button>
  {/if}
</div>

<style>
  h2,
  legend {
    font-size: 13px;
    font-weight: 600;
  }

  .face {
    display: grid;
    gap: 0.3rem;
    padding: 0.5rem;
    border: 1px solid var(--cds-ui-04);
    border-radius: 8px;
    background: color-mix(in srgb, var(--car-tyre) 12%, var(--cds-ui-01));
  }

  .face button {
    display: grid;
    gap: 0.15rem;
    min-height: 40px;
    padding: 0.2rem;
    border: 1px solid var(--cds-ui-04);
    border-radius: 4px;
    background: var(--cds-ui-02);
    color: var(--cds-text-01);
    font-size: 12px;
    cursor: pointer;
  }

  .face button[aria-pressed='true'] {
    border-color: var(--accent);
  }

  .face .moved {
    border-color: var(--warn);
  }

  .sign {
    font-size: 11px;
    color: var(--cds-text-02);
  }

  .moved .sign {
    color: var(--cds-text-01);
    font-weight: 600;
  }

  .spare {
    border-style: dashed;
  }

  fieldset {
    display: grid;
    gap: 0.35rem;
    min-width: 0;
    border: 1px solid var(--cds-ui-04);
    padding: 0.5rem;
  }

  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr 4rem 4rem;
    gap: 0.4rem;
  }

  label {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .small {
    font-size: 12px;
  }

  .buttons {
    display: flex;
    gap: 0.4rem;
  }
</style>
