<script lang="ts">
  import type { View } from '@flarik/core/vehicle/types';
  import { Button } from 'carbon-components-svelte';
  import ZoomIn from 'carbon-icons-svelte/lib/ZoomIn.svelte';
  import ZoomOut from 'carbon-icons-svelte/lib/ZoomOut.svelte';
  import Choice from '$lib/frame/Choice.svelte';
  import { viewName, VIEWS } from './arrangement';

  /** Which view is enlarged, which layers are drawn, and the zoom. */
  let {
    enlarged,
    layers = $bindable(),
    choosable,
    onenlarge,
    onzoom,
  }: {
    enlarged: View | 'all';
    layers: { zones: boolean; factory: boolean; letters: boolean; beams: boolean };
    /** Layers can be chosen where there is room for it. */
    choosable: boolean;
    onenlarge: (view: View | 'all') => void;
    onzoom: (factor: number) => void;
  } = $props();

  const STEP = 1.5;
  const views: readonly { value: View | 'all'; text: string }[] = [
    { value: 'all', text: 'All' },
    ...VIEWS.map((view) => ({ value: view, text: viewName[view] })),
  ];
</script>

<div class="tools">
  <Choice label="Enlarge a view" small options={views} value={enlarged} onchoose={onenlarge} />
  {#if choosable}
    <div class="layers" role="group" aria-label="Layers">
      <label><input type="checkbox" bind:checked={layers.zones} /> Zones</label>
      <label><input type="checkbox" bind:checked={layers.factory} /> Factory</label>
      <label><input type="checkbox" bind:checked={layers.letters} /> Letters</label>
      <label><input type="checkbox" bind:checked={layers.beams} /> Beams</label>
    </div>
  {/if}
  <span class="fill"></span>
  <Button
    kind="ghost"
    size="small"
    icon={ZoomOut}
    iconDescription="Zoom out"
    tooltipPosition="bottom"
    on:click={() => onzoom(1 / STEP)}
  />
  <Button
    kind="ghost"
    size="small"
    icon={ZoomIn}
    iconDescription="Zoom in"
    tooltipPosition="bottom"
    tooltipAlignment="end"
    on:click={() => onzoom(STEP)}
  />
</div>

<style>
  .tools {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    padding: 0.125rem 0.25rem 0.125rem 0.5rem;
    border-bottom: 1px solid var(--sheet-line);
  }

  .layers {
    display: flex;
    gap: 0.6rem;
    font-size: 12px;
  }

  .fill {
    flex: 1;
  }

  .layers label {
    display: flex;
    gap: 0.3rem;
    align-items: center;
    white-space: nowrap;
  }
</style>
