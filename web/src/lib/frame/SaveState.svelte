<script lang="ts">
  import { importBuild } from '$lib/client';
  import { download } from '$lib/download';
  import { getEditor } from '$lib/editor/context';
  import { forgetUnsaved } from '$lib/editor/unsaved';

  let { onrevisions }: { onrevisions: () => void } = $props();
  const editor = getEditor()();
  const clock = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
  const status = $derived(editor.autosave.status);
  const kept = $derived(editor.autosave.kept);
  let trouble = $state('');
  /** Why it is not saved, and what becomes of it: "▲ Not saved: … Kept in this browser, trying again." */
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

<span class="save {status.kind}" role="status">
  {#if status.kind === 'saved'}
    <button class="link" title="What was saved when" onclick={onrevisions}
      >Saved {clock.format(new Date(status.at))} · revision {editor.autosave.version}</button
    >
  {:else if status.kind === 'waiting'}
    Changed …
  {:else if status.kind === 'saving'}
    Saving …
  {:else if status.kind === 'offline' || status.kind === 'refused'}
    {notSaved}
    {#if !kept}<button class="link" onclick={saveFile}>Save it as a file</button>{/if}
    {#if status.kind === 'refused' && status.gone}
      <button class="link" onclick={storeAgain}>Store it again</button>
    {/if}
  {:else}
    ▲ Not saved: saved elsewhere meanwhile
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

  .offline,
  .refused,
  .conflict {
    color: var(--warn);
  }
</style>
