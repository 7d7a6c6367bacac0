<script lang="ts">
  import { withdraw } from '@flarik/core/rules/acceptances';
  import { getEditor } from '$lib/editor/context';

  /** What was accepted once and is no longer found. */
  const editor = getEditor()();
  const told = $derived(editor.isProved && !editor.check.running);
  const gone = $derived(told ? editor.standing.gone : []);
</script>

{#each gone as one (one.id)}
  <li>
    <span class="quiet">Resolved; accepted by {one.by} on {one.on}: {one.sentence}</span>
    <button onclick={() => editor.edit('Delete an acceptance', (b) => withdraw(b, [one.id]))}>Delete</button>
  </li>
{/each}

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0.75rem;
    padding: 0.3rem 0.75rem;
    font-size: 12px;
  }

  button {
    padding: 0 0.5rem;
    height: 24px;
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    cursor: pointer;
  }
</style>
