<script lang="ts">
  import { addCorner, cornersIn, moveCorner, removeCorner } from '@flarik/core/design/shapeEdits';
  import type { Facing, WorkShape } from '@flarik/core/design/site';
  import Add from 'carbon-icons-svelte/lib/Add.svelte';
  import Close from 'carbon-icons-svelte/lib/Close.svelte';
  import FigureField from '$lib/ui/FigureField.svelte';

  /** The corners of a work place, one by one, from its middle. */
  let { shape, facing, onset }: { shape: WorkShape; facing: Facing; onset: (shape: WorkShape) => void } =
    $props();
  const corners = $derived(cornersIn(shape));
  const words = $derived(
    facing === 'up'
      ? ['ahead', 'to the left']
      : facing === 'left' || facing === 'right'
        ? ['ahead', 'up']
        : ['to the left', 'up'],
  );
</script>

<ol>
  {#each corners as { alongM, acrossM }, i (i)}
    <li>
      <FigureField
        label="Corner {i + 1}, m {words[0]}"
        value={alongM}
        min={-40}
        max={40}
        whole={false}
        onset={(m: number) => onset(moveCorner(shape, i, { alongM: m }))}
      /> m {words[0]},
      <FigureField
        label="Corner {i + 1}, m {words[1]}"
        value={acrossM}
        min={-30}
        max={30}
        whole={false}
        onset={(m: number) => onset(moveCorner(shape, i, { acrossM: m }))}
      /> m {words[1]}
      <button
        class="icon"
        aria-label="Add a corner after {i + 1}"
        title="Add a corner after this one"
        onclick={() => onset(addCorner(shape, i))}><Add size={16} /></button
      >
      {#if corners.length > 3}
        <button
          class="icon"
          aria-label="Remove corner {i + 1}"
          title="Remove this corner"
          onclick={() => onset(removeCorner(shape, i))}><Close size={16} /></button
        >
      {/if}
    </li>
  {/each}
</ol>

<style>
  ol {
    margin: 0;
    padding-left: 1.5rem;
  }

  li {
    list-style: decimal;
    font-size: 13px;
  }

  .icon {
    padding: 0.25rem;
    border: none;
    background: none;
    color: var(--cds-link-01);
    cursor: pointer;
    vertical-align: middle;
  }
</style>
