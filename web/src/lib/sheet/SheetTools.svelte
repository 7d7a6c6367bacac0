<script lang="ts">
  import type { View } from '@flarik/core/vehicle/types';
  import { Button } from 'carbon-components-svelte';
  import ZoomIn from 'carbon-icons-svelte/lib/ZoomIn.svelte';
  import ZoomOut from 'carbon-icons-svelte/lib/ZoomOut.svelte';
  import BeforeAfter from '$lib/pieces/BeforeAfter.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import { viewName, VIEWS } from './arrangement';
  import { LAYERS, type Layers } from './layers';

  /** Which view is enlarged, which layers are drawn, and the zoom. */
  let {
    enlarged,
    layers = $bindable(),
    choosable,
    onenlarge,
    onzoom,
  }: {
    enlarged: View | 'all';
    layers: Layers;
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
    <details>
      <summary>Layers</summary>
      <div class="layers" role="group" aria-label="Layers">
        {#each LAYERS as layer (layer.id)}
          <label><input type="checkbox" bind:checked={layers[layer.id]} /> {layer.name}</label>
        {/each}
      </div>
    </details>
  {/if}
  <BeforeAfter />
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
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem;
    padding: 0.125rem 0.25rem 0.125rem 0.5rem;
    border-bottom: 1px solid var(--sheet-line);
  }

  details {
    position: relative;
  }

  summary {
    padding: 0 0.5rem;
    border: 1px solid var(--cds-ui-04);
    font-size: 12px;
    line-height: 22px;
    cursor: pointer;
  }

  .layers {
    position: absolute;
    z-index: 15;
    top: calc(100% + 4px);
    left: 0;
    display: grid;
    gap: 0.35rem;
    padding: 0.6rem 0.75rem;
    background: var(--cds-ui-01);
    border: 1px solid var(--cds-ui-04);
    box-shadow: 0 4px 14px rgb(0 0 0 / 40%);
    font-size: 13px;
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
