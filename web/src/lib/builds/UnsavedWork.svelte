<script lang="ts">
  import { formatDate } from '$lib/ui/formatDate';
  import { onMount } from 'svelte';
  import { download } from '$lib/download';
  import { forgetUnsaved, listUnsaved, type Kept } from '$lib/editor/unsaved';

  /** Work that this browser keeps because the server never had it: until it is taken, saved as a file or thrown away. */
  let left = $state.raw<readonly Kept[]>([]);

  onMount(async () => {
    left = await listUnsaved();
  });

  async function discard({ buildId, tabId }: Kept): Promise<void> {
    await forgetUnsaved(buildId, tabId);
    left = await listUnsaved();
  }
</script>

{#if left.length > 0}
  <section aria-labelledby="unsaved-heading">
    <h2 id="unsaved-heading">▲ Unsaved work in this browser</h2>
    <ul>
      {#each left as kept (kept.tabId + kept.buildId)}
        <li>
          <span class="name">{kept.name}</span>
          <span class="quiet">of {formatDate(kept.at)}, based on revision {kept.basedOn}</span>
          <a href="/builds/{kept.buildId}/layout">Open the build</a>
          <button class="link" onclick={() => download(`${kept.buildId}.flarik.json`, kept.text)}
            >Save as file</button
          >
          <button class="link" onclick={() => void discard(kept)}>Discard</button>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  section {
    margin-bottom: 1rem;
    padding: 0.75rem 1rem;
    border-left: 3px solid var(--warn);
    background: var(--cds-ui-01);
  }

  h2 {
    margin-bottom: 0.4rem;
  }

  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1rem;
    align-items: baseline;
  }

  .name {
    font-weight: 600;
  }

  a {
    color: var(--accent);
    font-size: 12px;
  }
</style>
