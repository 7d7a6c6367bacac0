<script lang="ts">
  import {
    readRequirement,
    REQUIREMENT_KINDS,
    requirementKindOf,
  } from '@flarik/core/rules/brief/requirements';
  import { addRequirement } from '@flarik/core/design/briefEdits';
  import { Button } from 'carbon-components-svelte';
  import RequirementRow from '$lib/brief/RequirementRow.svelte';
  import AgencyRequest from '$lib/brief/AgencyRequest.svelte';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';

  const editor = getEditor()();
  const { constraints } = $derived(editor.build.brief);
  let kind = $state<string>('lowest-lamp');
  let refused = $state('');

  function add(): void {
    const id = freshId('w');
    const { name, first } = requirementKindOf({ kind });
    const wish = first(editor.build, id);
    refused = '';
    if (wish === null) {
      refused =
        kind === 'keep-head'
          ? 'The vehicle has no lamp that could be kept.'
          : 'This requirement does not apply to this vehicle.';
      return;
    }
    editor.edit(`Add requirement ${name}`, (b) => addRequirement(b, wish));
  }
</script>

<div class="step">
  <div class="said"><AgencyRequest /></div>
  <section class="wishes" aria-label="Requirements">
    <h2>Requirements</h2>
    <p class="quiet">
      Each requirement is checked like a rule: in every stage, by day and at night, with every door position.
    </p>
    <div class="add">
      <label for="wish-kind">New requirement</label>
      <select id="wish-kind" bind:value={kind}>
        {#each REQUIREMENT_KINDS as option (option.kind)}<option value={option.kind}>{option.name}</option
          >{/each}
      </select>
      <Button size="small" on:click={add}>Add</Button>
      {#if refused !== ''}<span class="refused" role="alert">{refused}</span>{/if}
    </div>
    <ul>
      {#each constraints as wish (wish.id)}
        <RequirementRow wish={readRequirement(wish)} />
      {:else}
        <li class="none quiet">
          No requirements yet. Ask what must never happen: holes, colours to the rear, a height for snow or
          washing, the cost, equipment that stays.
        </li>
      {/each}
    </ul>
  </section>
</div>

<style>
  .step {
    display: grid;
    grid-template-columns: minmax(320px, 38%) minmax(0, 1fr);
    height: 100%;
  }

  .said,
  .wishes {
    padding: 0.75rem 1rem;
    overflow-y: auto;
    min-height: 0;
  }

  .said {
    border-right: 1px solid var(--cds-ui-03);
  }

  .wishes {
    display: grid;
    gap: 0.6rem;
    align-content: start;
  }

  .add {
    display: flex;
    gap: 0.6rem;
    align-items: center;
  }

  .add select {
    height: 32px;
  }

  .refused {
    color: var(--gap);
  }

  ul {
    display: grid;
    gap: 0.5rem;
  }

  .none {
    padding: 0.75rem;
    background: var(--cds-ui-01);
  }
</style>
