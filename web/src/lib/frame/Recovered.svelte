<script lang="ts">
  import { Button, InlineNotification } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { forgetUnsaved, type Unsaved } from '$lib/editor/unsaved';

  /** Work of an earlier session that the server never had, offered again. */
  let { unsaved = $bindable() }: { unsaved: Unsaved | null } = $props();
  const editor = getEditor()();

  function restore(): void {
    const kept = unsaved;
    unsaved = null;
    if (kept === null) return;
    if (kept.basedOn !== editor.autosave.version) editor.autosave.version = kept.basedOn;
    editor.edit('Restore unsaved work', () => kept.build);
  }

  function discard(): void {
    if (unsaved !== null) forgetUnsaved(unsaved.build.id);
    unsaved = null;
  }
</script>

{#if unsaved !== null}
  <InlineNotification
    kind="warning"
    lowContrast
    hideCloseButton
    title="Unsaved work was found."
    subtitle="This browser kept changes that did not reach the server last time."
  >
    {#snippet actions()}
      <Button size="small" on:click={restore}>Restore it</Button>
      <Button size="small" kind="ghost" on:click={discard}>Discard it</Button>
    {/snippet}
  </InlineNotification>
{/if}
