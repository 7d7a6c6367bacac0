<script lang="ts">
  import type { PlacementPatch } from '@flarik/core/arrange/lamps';
  import type { Placement } from '@flarik/core/design/placement';
  import type { Fixture } from '@flarik/core/fixture/types';
  import { Name } from '@flarik/core/words/names';
  import { freshId } from '$lib/editor/freshId';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';

  /** Aims a lamp can be turned to and heights its pole can be raised to, which the controls then know as an input. */
  let {
    placement,
    fixture,
    onset,
  }: {
    placement: Placement;
    fixture: Fixture;
    onset: (label: string, patch: PlacementPatch) => void;
  } = $props();
  const { aims, heights } = $derived(placement);
  const MOST = 7;

  const setAims = (list: Placement['aims']): void => onset('Aims of', { aims: list });
  const setHeights = (list: Placement['heights']): void => onset('Heights of', { heights: list });
  const changed = <T extends { id: string }>(list: readonly T[], id: string, patch: Partial<T>): T[] =>
    list.map((item) => (item.id === id ? { ...item, ...patch } : item));
</script>

{#snippet nameOf(name: string, what: string, put: (name: string) => void)}
  <input
    aria-label="Name of {what}"
    value={name}
    maxlength="80"
    onchange={(event) => {
      const read = Name.safeParse(event.currentTarget.value.trim());
      if (read.success) put(read.data);
    }}
  />
{/snippet}

<details>
  <summary
    >Other aims and heights{aims.length + heights.length > 0
      ? ` (${aims.length + heights.length})`
      : ''}</summary
  >
  {#each aims as aim (aim.id)}
    <div class="one" role="group" aria-label="Aim {aim.name}">
      {@render nameOf(aim.name, `aim ${aim.name}`, (name) => setAims(changed(aims, aim.id, { name })))}
      <button
        class="link"
        aria-label="Delete aim {aim.name}"
        onclick={() => setAims(aims.filter(({ id }) => id !== aim.id))}>✕</button
      >
      <TypedNumber
        label="Pan"
        unit="°"
        value={aim.panDeg}
        min={-180}
        max={180}
        onset={(panDeg: number) => setAims(changed(aims, aim.id, { panDeg }))}
      />
      <TypedNumber
        label="Tilt"
        unit="°"
        value={aim.tiltDeg}
        min={-90}
        max={90}
        onset={(tiltDeg: number) => setAims(changed(aims, aim.id, { tiltDeg }))}
      />
    </div>
  {/each}
  {#each heights as height (height.id)}
    <div class="one" role="group" aria-label="Height {height.name}">
      {@render nameOf(height.name, `height ${height.name}`, (name) =>
        setHeights(changed(heights, height.id, { name })),
      )}
      <button
        class="link"
        aria-label="Delete height {height.name}"
        onclick={() => setHeights(heights.filter(({ id }) => id !== height.id))}>✕</button
      >
      <TypedNumber
        label="Raised"
        unit="mm"
        value={height.poleM * 1000}
        min={0}
        max={fixture.poleM * 1000}
        onset={(mm: number) => setHeights(changed(heights, height.id, { poleM: mm / 1000 }))}
      />
    </div>
  {/each}
  <div class="add">
    <button
      class="plain"
      disabled={aims.length >= MOST}
      onclick={() =>
        setAims([
          ...aims,
          {
            id: freshId('aim'),
            name: `Aim ${aims.length + 1}`,
            panDeg: placement.panDeg,
            tiltDeg: placement.tiltDeg,
          },
        ])}>Add an aim</button
    >
    {#if fixture.poleM > 0}
      <button
        class="plain"
        disabled={heights.length >= MOST}
        onclick={() =>
          setHeights([
            ...heights,
            {
              id: freshId('height'),
              name: heights.length === 0 ? 'raised' : `raised ${heights.length + 1}`,
              poleM: fixture.poleM,
            },
          ])}>Add a height</button
      >
    {/if}
  </div>
</details>

<style>
  summary {
    font-size: 12px;
    cursor: pointer;
  }

  .one {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.3rem 0.5rem;
    align-items: end;
    padding: 0.4rem 0;
    border-bottom: 1px solid var(--cds-ui-03);
  }

  .add {
    display: flex;
    gap: 0.4rem;
    padding-top: 0.4rem;
  }
</style>
