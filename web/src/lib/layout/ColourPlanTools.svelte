<script lang="ts">
  import type { Placement } from '@flarik/core/design/placement';
  import {
    COLOUR_PLANS,
    colourPlanName,
    layColourPlan,
    type ColourPlan,
  } from '@flarik/core/arrange/colourPlans';
  import type { Finding } from '@flarik/core/rules/finding';
  import { Button } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { nameOf } from '$lib/editor/names';
  import { severityMark } from '$lib/frame/severity';

  /** Ready colour plans for these lamps; what a plan would break is said before it is laid. */
  let { placements }: { placements: readonly Placement[] } = $props();
  const editor = getEditor()();
  const MOST_SAID = 4;

  const ids = $derived(new Set(placements.map((p) => p.id)));
  let plan = $state<ColourPlan>('side-split');
  let looked = $state.raw<{ plan: ColourPlan; fresh: readonly Finding[]; gone: number } | null>(null);
  let looking = $state(false);

  /** What it would break that holds now, and how much it would put right. */
  async function look(): Promise<void> {
    const wanted = plan;
    looking = true;
    try {
      const { findings } = await editor.tryOut(layColourPlan(editor.build, ids, wanted));
      const now = editor.check.answer?.findings ?? [];
      const [before, after] = [new Set(now.map((f) => f.id)), new Set(findings.map((f) => f.id))];
      looked = {
        plan: wanted,
        fresh: findings.filter((f) => !before.has(f.id)),
        gone: now.filter((f) => !after.has(f.id)).length,
      };
    } finally {
      looking = false;
    }
  }

  function lay(): void {
    const wanted = plan;
    editor.edit(`${colourPlanName[wanted]} for ${nameOf(editor.build, [...ids])}`, (b) =>
      layColourPlan(b, ids, wanted),
    );
    looked = null;
  }
</script>

<details>
  <summary>Colour {placements.length === 1 ? 'it' : `${placements.length} lamps`} by a plan</summary>
  <div class="plan">
    <select aria-label="Colour plan" bind:value={plan} onchange={() => (looked = null)}>
      {#each COLOUR_PLANS as option (option)}<option value={option}>{colourPlanName[option]}</option>{/each}
    </select>
    <div class="row">
      <Button size="small" kind="tertiary" disabled={looking} on:click={look}
        >{looking ? 'Checking …' : 'What would it break?'}</Button
      >
      <Button size="small" on:click={lay}>Lay it</Button>
    </div>
    {#if looked?.plan === plan}
      <div role="status">
        {#if looked.fresh.length === 0}
          <p class="good">
            ✓ Nothing that holds now{looked.gone > 0 ? `; ${looked.gone} findings go away` : ''}.
          </p>
        {:else}
          <p>
            {looked.fresh.length === 1
              ? 'One new finding'
              : `${looked.fresh.length} new findings`}{looked.gone > 0 ? `, ${looked.gone} go away` : ''}:
          </p>
          <ul>
            {#each looked.fresh.slice(0, MOST_SAID) as finding (finding.id)}
              <li>{severityMark[finding.severity].name}: {finding.sentence}</li>
            {/each}
          </ul>
        {/if}
      </div>
    {/if}
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

  p,
  li {
    font-size: 12px;
  }

  .good {
    color: var(--good);
  }
</style>
