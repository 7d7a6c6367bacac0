<script lang="ts">
  import type { Placement } from '@flarik/core/design/placement';
  import {
    COLOUR_PLANS,
    colourPlanName,
    applyColourPlan,
    type ColourPlan,
  } from '@flarik/core/arrange/colourPlans';
  import type { Build } from '@flarik/core/design/schema';
  import { Button } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { nameOf } from '$lib/editor/names';
  import FindingsPreview from '$lib/frame/FindingsPreview.svelte';

  /** Ready colour plans for these lamps; what a plan would break is said before it is laid. */
  let { placements }: { placements: readonly Placement[] } = $props();
  const editor = getEditor()();

  const ids = $derived(new Set(placements.map((p) => p.id)));
  let plan = $state<ColourPlan>('side-split');
  const laid = $derived.by(() => {
    const [these, wanted] = [ids, plan];
    return (build: Build) => applyColourPlan(build, these, wanted);
  });

  function lay(): void {
    const wanted = plan;
    editor.edit(`${colourPlanName[wanted]} for ${nameOf(editor.build, [...ids])}`, (b) =>
      applyColourPlan(b, ids, wanted),
    );
  }
</script>

<details>
  <summary>Colour {placements.length === 1 ? 'it' : `${placements.length} lamps`} by a plan</summary>
  <div class="plan">
    <select aria-label="Colour plan" bind:value={plan}>
      {#each COLOUR_PLANS as option (option)}<option value={option}>{colourPlanName[option]}</option>{/each}
    </select>
    <div class="row">
      <Button size="small" on:click={lay}>Apply</Button>
    </div>
    <FindingsPreview name={colourPlanName[plan]} apply={laid} />
  </div>
</details>

<style>
  summary {
    font-size: 13px;
    cursor: pointer;
  }

  .plan {
    display: grid;
    gap: 0.4rem;
    padding: 0.4rem 0;
  }

  .row {
    display: flex;
    gap: 0.25rem;
  }

  .row :global(.bx--btn) {
    padding: 0 0.6rem;
    min-width: 0;
  }

  select {
    height: 28px;
  }
</style>
