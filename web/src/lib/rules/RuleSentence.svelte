<script lang="ts">
  import type { RuleData } from '@flarik/core/design/rulePack';
  import { pieceText } from '@flarik/core/rules/piece';
  import { kindOf } from '@flarik/core/rules/registry';
  import FigureField from '$lib/ui/FigureField.svelte';
  import FoldedBoxes from '$lib/ui/FoldedBoxes.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';

  /** A rule as a sentence whose figures and choices are edited where they stand. */
  let { rule, onset }: { rule: RuleData; onset: (field: string, value: unknown) => void } = $props();
  const pieces = $derived(kindOf(rule).sentenceParts(rule));
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
    {:else if piece.type === 'texts'}
      <input
        type="text"
        aria-label={piece.label}
        title={piece.label}
        maxlength={400}
        size={Math.min(60, Math.max(20, piece.values.join('; ').length))}
        value={piece.values.join('; ')}
        onchange={({ currentTarget }) =>
          onset(
            piece.field,
            currentTarget.value
              .split(';')
              .map((text) => text.trim())
              .filter((text) => text !== ''),
          )}
      />
    {:else if piece.options.length > 8}
      <FoldedBoxes
        label={piece.label}
        summary={pieceText(piece)}
        items={piece.options.map((o) => ({ id: o.value, name: o.text }))}
        chosen={piece.values}
        atLeast={piece.atLeast}
        onset={(values: string[]) => onset(piece.field, values)}
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
