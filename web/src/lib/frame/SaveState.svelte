<script lang="ts">
  import { getEditor } from '$lib/editor/context';

  const editor = getEditor()();
  const clock = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
  const status = $derived(editor.autosave.status);
</script>

<span class="save {status.kind}" role="status">
  {#if status.kind === 'saved'}
    Saved {clock.format(new Date(status.at))} · revision {editor.autosave.version}
  {:else if status.kind === 'waiting'}
    Changed …
  {:else if status.kind === 'saving'}
    Saving …
  {:else if status.kind === 'offline'}
    ▲ Not saved: {status.why} Kept in this browser, trying again.
  {:else if status.kind === 'refused'}
    ▲ Not saved: {status.why} Kept in this browser.
  {:else}
    ▲ Not saved: saved elsewhere meanwhile
  {/if}
</span>

<style>
  .save {
    font-size: 12px;
    color: var(--cds-text-02);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }

  .offline,
  .refused,
  .conflict {
    color: var(--warn);
  }
</style>
