<script lang="ts">
  import Build from '$lib/frame/Frame.svelte';
  import type { LayoutProps } from './$types';

  let { data, children }: LayoutProps = $props();
</script>

{#key data.saved.build.id}
  <Build saved={data.saved}>{@render children()}</Build>
{/key}
