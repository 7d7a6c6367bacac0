<script lang="ts">
  import { leavesOf } from '@flarik/core/design/condition';
  import { conditionsOf, eventsOf, originalOf, type Input } from '@flarik/core/design/inputs';
  import { Wording } from '@flarik/core/controls/sentence';
  import Choice from '$lib/ui/Choice.svelte';
  import { getEditor } from '$lib/editor/context';

  /** What the vehicle, the supply and all around it tell: those that the programme listens to, or all. */
  const editor = getEditor()();
  const { cockpit } = editor;
  let everything = $state(false);
  const wording = $derived(new Wording(editor.build));
  const asked = $derived.by(() => {
    const { controls } = editor.build;
    const ids = new Set<string>();
    for (const condition of conditionsOf(controls))
      for (const leaf of leavesOf(condition))
        if (leaf.kind === 'is') ids.add(originalOf(controls, leaf.input));
    for (const event of eventsOf(controls))
      if (event.kind === 'arrives') ids.add(originalOf(controls, event.input));
    for (const { input, follower } of controls.follows) ids.add(input).add(follower);
    return ids;
  });
  const inputs = $derived(
    cockpit.programme.inputs.filter(
      (input) => input.source !== 'panel' && (everything || asked.has(input.id)),
    ),
  );
  const set = (input: Input, value: string): void => {
    if (cockpit.valueOf(input.id) !== value) cockpit.operate({ kind: 'arrives', input: input.id, value });
  };
</script>

<section aria-label="Cockpit">
  <div class="head">
    <h2>Vehicle inputs</h2>
    <label><input type="checkbox" bind:checked={everything} /> all</label>
  </div>
  {#each inputs as input (input.id)}
    <div class="row">
      <span class="name" class:moved={cockpit.valueOf(input.id) !== input.values[0]}>{input.name}</span>
      <Choice
        label={input.name}
        small
        options={input.values.map((value) => ({ value, text: wording.value(input.id, value) }))}
        value={cockpit.valueOf(input.id)}
        onchoose={(value: string) => set(input, value)}
      />
    </div>
  {:else}
    <p class="quiet">The program uses no inputs except its panels.</p>
  {/each}
</section>

<style>
  .head {
    display: flex;
    justify-content: space-between;
    align-items: center;
    font-size: 12px;
  }

  h2 {
    font-size: 13px;
    font-weight: 600;
  }

  label {
    display: flex;
    gap: 0.3rem;
    align-items: center;
  }

  label input {
    width: auto;
    height: auto;
  }

  .row {
    display: grid;
    grid-template-columns: minmax(4.5rem, 7.5rem) minmax(0, 1fr);
    align-items: center;
    gap: 0.4rem;
    margin-top: 2px;
    font-size: 12.5px;
  }

  /* A narrow panel breaks the row of buttons rather than cutting it off. */
  .row :global(.row) {
    flex-wrap: wrap;
  }

  .name.moved {
    font-weight: 600;
  }
</style>
