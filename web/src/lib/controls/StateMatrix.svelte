<script lang="ts">
  import type { InputEvent } from '@flarik/core/design/condition';
  import { activeFunctionNames } from '@flarik/core/design/controls';
  import { compileProgram } from '@flarik/core/controls/program';
  import { Wording } from '@flarik/core/controls/sentence';
  import { applyEvent, type Simulation } from '@flarik/core/controls/simulator';
  import { stateIn } from '@flarik/core/state/running';
  import { getEditor } from '$lib/editor/context';
  import { litIn } from './lit';
  import LitPlan from './LitPlan.svelte';

  /** Two inputs against each other: what is lit in each combination, all else as the controls stand. */
  const editor = getEditor()();
  const { cockpit } = editor;
  const wording = $derived(new Wording(editor.build));
  const inputs = $derived(compileProgram(editor.build).inputs);
  const panelInput = $derived(inputs.find((i) => i.source === 'panel')?.id ?? 'ignition');
  let acrossId = $state('gear');
  let downId = $state<string | null>(null);
  const across = $derived(inputs.find((i) => i.id === acrossId) ?? inputs[0]);
  const down = $derived(inputs.find((i) => i.id === (downId ?? panelInput)) ?? inputs[1]);

  /** Where an input is brought to a value from; null when it cannot be. */
  function at(running: Simulation | null, input: string, value: string): Simulation | null {
    if (running === null || running.state.values.get(input) === value) return running;
    const event: InputEvent = { kind: 'arrives', input, value };
    return applyEvent(cockpit.programme, running, event);
  }

  const cells = $derived(
    across === undefined || down === undefined
      ? []
      : down.values.map((row) => ({
          row,
          columns: across.values.map((column) => {
            const running = at(at(cockpit.running, down.id, row), across.id, column);
            const state = running === null ? null : stateIn(cockpit.programme, running);
            return { column, state, lit: state === null ? 0 : litIn(editor.build, state).length };
          }),
        })),
  );
</script>

<section class="atlas" aria-label="State matrix">
  <p class="choose">
    <label
      >Down
      <select value={down?.id} onchange={(event) => (downId = event.currentTarget.value)}>
        {#each inputs as input (input.id)}<option value={input.id}>{input.name}</option>{/each}
      </select></label
    >
    <label
      >Across
      <select value={across?.id} onchange={(event) => (acrossId = event.currentTarget.value)}>
        {#each inputs as input (input.id)}<option value={input.id}>{input.name}</option>{/each}
      </select></label
    >
    <span class="quiet">Other inputs keep their current values. Click a preview to select that state.</span>
  </p>
  {#if across !== undefined && down !== undefined}
    <table>
      <thead>
        <tr>
          <td></td>
          {#each across.values as column (column)}
            <th scope="col">{across.name}: {wording.value(across.id, column)}</th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each cells as { row, columns } (row)}
          <tr>
            <th scope="row">{down.name}: {wording.value(down.id, row)}</th>
            {#each columns as { column, state, lit } (column)}
              <td>
                {#if state === null}
                  <span class="quiet never">excluded</span>
                {:else}
                  <button
                    onclick={() => editor.lookAtState(state)}
                    title={activeFunctionNames(editor.build, state.on)}
                    class:dark={lit === 0}
                  >
                    <LitPlan
                      shown={state}
                      width={56}
                      height={104}
                      label="{activeFunctionNames(editor.build, state.on)}: {lit} channels lit"
                    />
                    <span>{activeFunctionNames(editor.build, state.on)}</span>
                  </button>
                {/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</section>

<style>
  .atlas {
    padding: 0.5rem 0.75rem;
    overflow: auto;
    height: 100%;
  }

  .choose {
    display: flex;
    flex-wrap: wrap;
    gap: 0.75rem;
    align-items: end;
  }

  label {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  table {
    border-collapse: collapse;
    margin-top: 0.5rem;
  }

  th {
    padding: 0.25rem;
    font-size: 12px;
    font-weight: 400;
    color: var(--cds-text-02);
    text-align: left;
    max-width: 7rem;
  }

  td {
    padding: 2px;
    vertical-align: top;
  }

  button {
    display: grid;
    justify-items: center;
    width: 104px;
    min-height: 140px;
    padding: 4px;
    border: 1px solid var(--cds-ui-04);
    background: var(--sheet);
    color: var(--cds-text-01);
    font: inherit;
    font-size: 11px;
    line-height: 1.2;
    cursor: pointer;
  }

  button.dark {
    background: var(--sheet-night);
  }

  button:focus-visible {
    outline: 2px solid var(--cds-focus);
  }

  button span {
    display: -webkit-box;
    -webkit-line-clamp: 2;
    line-clamp: 2;
    -webkit-box-orient: vertical;
    overflow: hidden;
  }

  .never {
    display: block;
    width: 104px;
    padding: 0.5rem;
    font-size: 11.5px;
  }
</style>
