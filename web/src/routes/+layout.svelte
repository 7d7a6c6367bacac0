<script lang="ts">
  import 'carbon-components-svelte/css/all.css';
  import '@fontsource/ibm-plex-sans/latin-400.css';
  import '@fontsource/ibm-plex-sans/latin-600.css';
  import '@fontsource/ibm-plex-mono/latin-400.css';
  import '../app.css';
  import { beforeNavigate } from '$app/navigation';
  import { keepEarlyKeys } from '$lib/frame/earlyKeys';
  import type { Snippet } from 'svelte';

  let { children }: { children: Snippet } = $props();
  beforeNavigate(({ from, to }) => {
    if (to?.params?.id !== undefined && to.params.id !== from?.params?.id) keepEarlyKeys();
  });
</script>

{@render children()}
