<script lang="ts">
  import { onMount } from 'svelte';
  import { z } from 'zod';
  import { getEditor } from '$lib/editor/context';
  import { recall, remember } from '$lib/ui/remember';
  import { startTour } from './tour';
  import Notice from './Notice.svelte';

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
  <Notice tone="tells" role="status">
    <p>New here? A tour of six stops shows what is where.</p>
    <button class="plain" onclick={() => answer(true)}>Show me round</button>
    <button class="plain" onclick={() => answer(false)}>Not now</button>
  </Notice>
{/if}
