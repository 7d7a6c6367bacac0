<script lang="ts">
  import { formatDate } from '$lib/ui/formatDate';
  import { Button, InlineNotification } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { forgetUnsaved, type Kept, type Unsaved } from '$lib/editor/unsaved';

  /** Work of earlier tabs that the server never had, offered one after the other. */
  let { unsaved = $bindable() }: { unsaved: readonly Unsaved[] } = $props();
  const editor = getEditor()();
  const first = $derived(unsaved[0]);

  function restore({ kept, build }: Unsaved): void {
    editor.backToNow();
    if (kept.basedOn !== editor.autosave.version) editor.autosave.version = kept.basedOn;
    editor.edit('Restore unsaved work', () => build);
    done(kept);
  }

  function done({ buildId, tabId }: Kept): void {
    unsaved = unsaved.slice(1);
    void forgetUnsaved(buildId, tabId);
  }
</script>

{#if first !== undefined}
  <InlineNotification
    kind="warning"
    lowContrast
    hideCloseButton
    title="Unsaved work was found."
    subtitle="This browser kept changes of {formatDate(first.kept.at)} that did not reach the server."
  >
    {#snippet actions()}
      <Button size="small" on:click={() => restore(first)}>Restore</Button>
      <Button size="small" kind="ghost" on:click={() => done(first.kept)}>Discard</Button>
    {/snippet}
  </InlineNotification>
{/if}
