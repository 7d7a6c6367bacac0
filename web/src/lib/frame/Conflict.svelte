<script lang="ts">
  import { goto } from '$app/navigation';
  import { Button, ComposedModal, ModalBody, ModalFooter, ModalHeader } from 'carbon-components-svelte';
  import { importBuild } from '$lib/client';
  import { getEditor } from '$lib/editor/context';

  const editor = getEditor()();
  const { autosave } = editor;
  const theirs = $derived(autosave.status.kind === 'conflict' ? autosave.status.theirs : null);
  let trouble = $state('');

  async function keepBoth(): Promise<void> {
    if (theirs === null) return;
    try {
      const mine = {
        ...editor.current,
        id: crypto.randomUUID(),
        name: `${editor.current.name.slice(0, 70)} (mine)`,
      };
      const { id } = await importBuild(mine);
      autosave.accept(theirs);
      await goto(`/builds/${id}/layout`);
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    }
  }

  function takeTheirs(): void {
    if (theirs === null) return;
    editor.backToNow();
    editor.replace(theirs.build);
    autosave.accept(theirs);
  }

  function putMine(): void {
    if (theirs !== null) autosave.overwrite(theirs, editor.current);
  }
</script>

<ComposedModal open={theirs !== null} preventCloseOnClickOutside>
  <ModalHeader title="This build was saved elsewhere" />
  <ModalBody>
    <p>
      Revision {theirs?.version} was saved by someone else, or in another window, after you opened yours. Nothing
      is lost: theirs is on the server, yours is in this browser.
    </p>
    {#if trouble !== ''}<p role="alert">Failed: {trouble}</p>{/if}
  </ModalBody>
  <ModalFooter>
    <Button kind="secondary" on:click={takeTheirs}>Use the saved version</Button>
    <Button kind="secondary" on:click={putMine}>Overwrite it</Button>
    <Button on:click={keepBoth}>Keep both</Button>
  </ModalFooter>
</ComposedModal>
