<script lang="ts">
  import { rollToFit } from '@flarik/core/resolve/place';
  import type { View } from '@flarik/core/vehicle/types';
  import { getEditor } from '$lib/editor/context';
  import { zonePictures } from './pictures';
  import type { DropTool } from './tools/dropTool.svelte';

  /** The mount zones of a view; those that bear the carried fixture stand out. */
  let { view, tool }: { view: View; tool: DropTool } = $props();

  const editor = getEditor()();
  const zones = $derived(zonePictures(editor.vehicle, view, editor.open));
</script>

{#each zones as { zone, path } (zone.id)}
  {@const fits = tool.carried !== null && rollToFit(tool.carried, zone) !== null}
  <path
    class:fits
    class:misfit={tool.carried !== null && !fits}
    class:hot={tool.hovered?.id === zone.id}
    d={path}
    data-zone={zone.id}
    data-view={view}
    role="presentation"
    onpointerenter={() => (tool.hovered = zone)}
    onpointerleave={() => (tool.hovered = null)}
    onclick={(event) => tool.drop(view, zone, event.clientX, event.clientY)}
  >
    <title>{zone.name}: {zone.behind}</title>
  </path>
{/each}

<style>
  path {
    fill: transparent;
    stroke: var(--accent);
    stroke-width: 1;
    stroke-dasharray: 4 3;
    vector-effect: non-scaling-stroke;
  }

  .fits {
    stroke: var(--zone-fit);
    stroke-width: 2;
    stroke-dasharray: none;
    fill: color-mix(in srgb, var(--zone-fit) 28%, transparent);
    cursor: copy;
  }

  .fits.hot {
    fill: color-mix(in srgb, var(--zone-fit) 55%, transparent);
  }

  .misfit {
    stroke: var(--zone-misfit);
    cursor: not-allowed;
  }
</style>
