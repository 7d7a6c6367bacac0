<script lang="ts">
  import type { BuildPicture, BuildSummary } from '$lib/api';
  import { loadPicture } from '$lib/client';
  import Thumbnail from './Thumbnail.svelte';

  /** The picture of a build in the list, drawn once it is to be seen: the body at first, then with its lamps. */
  let { build }: { build: BuildSummary } = $props();

  let place = $state<HTMLElement>();
  let seen = $state(false);
  let picture = $state.raw<BuildPicture | null>(null);

  $effect(() => {
    if (place === undefined || seen) return;
    const observer = new IntersectionObserver((entries) => {
      if (entries.some((entry) => entry.isIntersecting)) seen = true;
    });
    observer.observe(place);
    return () => observer.disconnect();
  });
  $effect(() => {
    const { id, pictureKey } = build;
    if (!seen || pictureKey === null) return;
    let wanted = true;
    loadPicture(id, pictureKey).then(
      (found) => {
        if (wanted) picture = found;
      },
      // Made by another version, or not to be had just now: the body alone is no error.
      () => undefined,
    );
    return () => (wanted = false);
  });
</script>

<span bind:this={place}>
  {#if seen}<Thumbnail {picture} bodyType={build.bodyType} width={116} height={50} />{/if}
</span>

<style>
  span {
    display: block;
    width: 116px;
    height: 50px;
  }
</style>
