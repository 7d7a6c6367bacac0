<script lang="ts">
  import { formatDate } from '$lib/ui/formatDate';
  import { getEditor } from '$lib/editor/context';

  /** Whether the build is saved, in a word; what is wrong when it is not stands in a line of its own. */
  let { onrevisions }: { onrevisions: () => void } = $props();
  const editor = getEditor()();
  const status = $derived(editor.autosave.status);
</script>

<span class="save" class:trouble={!['saved', 'waiting', 'saving'].includes(status.kind)} role="status">
  {#if status.kind === 'saved'}
    <button class="link" title="Revisions" onclick={onrevisions}
      >Saved {formatDate(status.at, 'time')}
      <span class="revision">· revision {editor.autosave.version}</span></button
    >
  {:else if status.kind === 'waiting'}
    Changed …
  {:else if status.kind === 'saving'}
    Saving …
  {:else}
    ▲ Not saved
  {/if}
</span>

<style>
  button {
    color: inherit;
  }

  button:hover {
    text-decoration: underline;
  }

  .save {
    font-size: 12px;
    color: var(--cds-text-02);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }

  @media (max-width: 1150px) {
    .revision {
      display: none;
    }
  }

  .trouble {
    color: var(--warn);
    font-weight: 600;
  }
</style>
