<script lang="ts">
  import { importBuild } from '$lib/client';
  import { download } from '$lib/download';
  import { getEditor } from '$lib/editor/context';
  import { forgetUnsaved } from '$lib/editor/unsaved';
  import Notice from './Notice.svelte';

  /** Why the build is not saved, what becomes of it, and what can be done. */
  const editor = getEditor()();
  const status = $derived(editor.autosave.status);
  const kept = $derived(editor.autosave.kept);
  let trouble = $state('');
  /** "▲ Not saved: … Kept in this browser, trying again." */
  const notSaved = $derived.by(() => {
    if (status.kind !== 'offline' && status.kind !== 'refused') return '';
    const where = kept ? 'Kept in this browser' : 'This browser cannot keep it';
    const then = status.kind === 'offline' ? ', trying again.' : '.';
    return `▲ Not saved: ${trouble === '' ? status.why : trouble} ${where}${then}`;
  });

  const saveFile = (): void =>
    download(
      `${editor.current.name.replaceAll(/[^A-Za-z0-9._-]+/g, '-')}.flarik.json`,
      JSON.stringify(editor.current),
    );

  /** The build was deleted by someone else: it goes to the server again, under its id. */
  async function storeAgain(): Promise<void> {
    try {
      const { id } = await importBuild(editor.current);
      await forgetUnsaved(editor.build.id).catch(() => undefined);
      location.assign(`/builds/${id}/layout`);
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    }
  }
</script>

{#if notSaved !== ''}
  <Notice tone="warns" role="alert">
    <p>{notSaved}</p>
    {#if !kept}<button class="plain" onclick={saveFile}>Save as file</button>{/if}
    {#if status.kind === 'refused' && status.gone}
      <button class="plain" onclick={storeAgain}>Save again</button>
    {/if}
  </Notice>
{/if}
