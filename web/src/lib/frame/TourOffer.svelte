<script lang="ts">
  import { onMount } from 'svelte';
  import { z } from 'zod';
  import { getEditor } from '$lib/editor/context';
  import { recall, remember } from '$lib/ui/remember';
  import { startTour } from './tour';

  /** Offers the tour once to whoever is new here. */
  const editor = getEditor()();
  const KEY = 'flarik-tour-offered';
  let offered = $state(true);
  onMount(() => (offered = recall(KEY, z.boolean(), false)));

  function answer(yes: boolean): void {
    offered = true;
    remember(KEY, true);
    if (yes) void startTour(editor);
  }
</script>

{#if !offered}
  <div class="offer" role="status">
    <p>New here? A tour of six stops shows what is where.</p>
    <button class="plain" onclick={() => answer(true)}>Show me round</button>
    <button class="plain" onclick={() => answer(false)}>Not now</button>
  </div>
{/if}

<style>
  .offer {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0.2rem 0.75rem;
    background: color-mix(in srgb, var(--accent) 18%, var(--cds-ui-01));
    border-bottom: 1px solid var(--cds-ui-03);
  }
</style>
