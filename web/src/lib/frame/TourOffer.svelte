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
    <p>New to Flarik? The tour has six steps.</p>
    <button class="plain" onclick={() => answer(true)}>Take the tour</button>
    <button class="plain" onclick={() => answer(false)}>Dismiss</button>
  </Notice>
{/if}
