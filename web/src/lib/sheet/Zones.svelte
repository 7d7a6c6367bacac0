<script lang="ts">
  import { rollToFit } from '@flarik/core/resolve/place';
  import type { Fixture } from '@flarik/core/fixture/types';
  import type { View } from '@flarik/core/vehicle/types';
  import { getEditor } from '$lib/editor/context';
  import { zonePictures } from './pictures';
  import type { DropTool } from './tools/dropTool.svelte';

  /** The mount zones of a view; those that take the carried fixture stand out. */
  let {
    view,
    tool,
    carried,
  }: {
    view: View;
    tool: DropTool;
    /** From the catalogue, or from another zone. */
    carried: Fixture | null;
  } = $props();

  const editor = getEditor()();
  const zones = $derived(zonePictures(editor.vehicle, view, editor.open));
</script>

{#each zones as { zone, path } (zone.id)}
  {@const fits = carried !== null && rollToFit(carried, zone) !== null}
  <path
    class:fits
    class:misfit={carried !== null && !fits}
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
