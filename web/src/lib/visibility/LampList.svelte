<script lang="ts">
  import { getEditor } from '$lib/editor/context';

  /** Lamps with a figure each; a press selects the lamp. */
  let {
    rows,
  }: {
    rows: readonly { readonly placementId: string; readonly note?: string; readonly figure: string }[];
  } = $props();
  const editor = getEditor()();
  const labels = $derived(new Map(editor.build.placements.map((p) => [p.id, p.label])));
</script>

<ol>
  {#each rows as { placementId, note, figure } (placementId)}
    <li>
      <button class:on={editor.selection.has(placementId)} onclick={() => editor.select([placementId])}>
        <span>{labels.get(placementId) ?? 'deleted lamp'}</span>
        <span class="quiet">{note ?? ''}</span>
        <span class="figure">{figure}</span>
      </button>
    </li>
  {/each}
</ol>

<style>
  button {
    display: flex;
    gap: 0.5rem;
    width: 100%;
    padding: 0.2rem 0.4rem;
    border: 0;
    background: none;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 13px;
    text-align: left;
    cursor: pointer;
  }

  .quiet {
    margin-left: auto;
  }

  .figure {
    white-space: nowrap;
  }

  button:hover,
  button.on {
    background: var(--cds-ui-03);
  }
</style>
