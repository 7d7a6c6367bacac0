<script lang="ts">
  import { formatDate } from '$lib/ui/formatDate';
  import { Name } from '@flarik/core/words/names';
  import { Modal } from 'carbon-components-svelte';
  import type { Revision } from '$lib/api';
  import { listRevisions, loadRevision, nameRevision } from '$lib/client';
  import { getEditor } from '$lib/editor/context';

  /** Revisions, and a look back at it. */
  let { open = $bindable() }: { open: boolean } = $props();
  const editor = getEditor()();
  const size = new Intl.NumberFormat(undefined, { maximumFractionDigits: 1 });
  let revisions = $state.raw<readonly Revision[] | null>(null);
  let trouble = $state('');

  $effect(() => {
    if (open) void attempt(read);
  });

  async function attempt(work: () => Promise<void>): Promise<void> {
    trouble = '';
    try {
      await work();
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    }
  }

  async function read(): Promise<void> {
    await editor.autosave.flush();
    revisions = await listRevisions(editor.build.id);
  }

  const look = (version: number): Promise<void> =>
    attempt(async () => {
      editor.lookAt(await loadRevision(editor.build.id, version));
      open = false;
    });

  const rename = (version: number, text: string): Promise<void> =>
    attempt(async () => {
      const name = text.trim() === '' ? null : Name.parse(text.trim());
      await nameRevision(editor.build.id, version, name);
      await read();
    });
</script>

<Modal passiveModal bind:open modalHeading="Revisions" size="lg">
  <p class="quiet">
    Every save is a revision. All of the last day are kept, then the last of each hour for 30 days, then the
    last of each day. Named revisions are kept permanently.
  </p>
  {#if trouble !== ''}<p class="trouble" role="alert">Failed: {trouble}</p>{/if}
  {#if revisions === null}
    {#if trouble === ''}<p class="quiet">Loading …</p>{/if}
  {:else}
    <table>
      <thead>
        <tr>
          <th scope="col">Revision</th>
          <th scope="col">Saved</th>
          <th scope="col">Changes</th>
          <th scope="col">Size</th>
          <th scope="col">Name</th>
          <th scope="col"><span class="visually-hidden">View</span></th>
        </tr>
      </thead>
      <tbody>
        {#each revisions as r, i (r.version)}
          <tr>
            <th scope="row" class="figure">{r.version}</th>
            <td class="nowrap">{formatDate(r.savedAt)}</td>
            <td>{r.changed === '' ? '–' : r.changed}</td>
            <td class="figure nowrap">{size.format(r.bytes / 1000)} kB</td>
            <td>
              <input
                aria-label="Name of revision {r.version}"
                placeholder="none"
                maxlength="80"
                value={r.name ?? ''}
                onchange={(event) => rename(r.version, event.currentTarget.value)}
              />
            </td>
            <td class="nowrap">
              {#if i === 0}
                <span class="quiet">as it is</span>
              {:else}
                <button class="plain" aria-label="View revision {r.version}" onclick={() => look(r.version)}
                  >View</button
                >
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</Modal>

<style>
  table {
    width: 100%;
    margin-top: 0.75rem;
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.35rem 0.5rem;
    border-bottom: 1px solid var(--cds-ui-04);
    text-align: left;
  }

  thead th {
    color: var(--cds-text-02);
    font-weight: 400;
  }

  .nowrap {
    white-space: nowrap;
  }

  .trouble {
    color: var(--gap);
  }
</style>
