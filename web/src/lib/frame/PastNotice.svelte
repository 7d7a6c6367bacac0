<script lang="ts">
  import { formatDate } from '$lib/ui/formatDate';
  import { goto } from '$app/navigation';
  import { importBuild } from '$lib/client';
  import { getEditor } from '$lib/editor/context';
  import Notice from './Notice.svelte';

  /** Says that an earlier revision is looked at, and leads back from it. */
  const editor = getEditor()();
  let trouble = $state('');

  /** The revision as a build of its own: the server gives it an id that is free. */
  async function asNew(version: number): Promise<void> {
    const { build } = editor;
    try {
      const { id } = await importBuild({ ...build, name: `${build.name.slice(0, 60)}, revision ${version}` });
      await goto(`/builds/${id}/layout`);
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    }
  }
</script>

{#if editor.past !== null}
  <Notice tone="warns" role="status">
    <p>
      <strong>Revision {editor.past.version}</strong> of {formatDate(editor.past.savedAt)}. Read-only.
      {#if trouble !== ''}<span role="alert">Could not create the build: {trouble}</span>{/if}
    </p>
    <button class="plain" onclick={() => editor.restorePast()}>Restore</button>
    {@const { version } = editor.past}
    <button class="plain" onclick={() => asNew(version)}>Save as new build</button>
    <button class="plain" onclick={() => editor.backToNow()}>Back to the current build</button>
  </Notice>
{/if}
