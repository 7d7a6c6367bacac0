<script lang="ts">
  import type { RuleData } from '@flarik/core/design/rulePack';
  import { pieceText } from '@flarik/core/rules/piece';
  import { kindOf } from '@flarik/core/rules/registry';
  import FigureField from '$lib/ui/FigureField.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';

  /** A rule as a sentence whose figures and choices are edited where they stand. */
  let { rule, onset }: { rule: RuleData; onset: (field: string, value: unknown) => void } = $props();
  const pieces = $derived(kindOf(rule).says(rule));
</script>

<span class="sentence">
  {#each pieces as piece, i (i)}
    {#if typeof piece === 'string'}{piece}{:else if piece.type === 'number'}
      <FigureField
        label={piece.label}
        value={piece.value}
        min={piece.min}
        max={piece.max}
        whole={piece.whole}
        onset={(value: number) => onset(piece.field, value)}
      />
    {:else if piece.type === 'choice'}
      <InlineChoice
        label={piece.label}
        options={piece.options}
        value={piece.value}
        onset={(value: string) => onset(piece.field, value)}
      />
    {:else}
      <TickBoxes
        label={piece.label}
        items={piece.options.map((o) => o.value)}
        chosen={piece.values}
        atLeast={piece.atLeast}
        nameOf={(value: string) => pieceText({ ...piece, values: [value] })}
        onset={(values: string[]) => onset(piece.field, values)}
      />
    {/if}
  {/each}
</span>

<style>
  .sentence {
    line-height: 2;
  }

  .sentence :global(select),
  .sentence :global(input[type='number']) {
    margin: 0 0.2rem;
  }
</style>
