<script lang="ts">
  import type { DirectionMap } from '@flarik/core/coverage/map';
  import { sameState, stateKey } from '@flarik/core/state/state';
  import { getEditor } from '$lib/editor/context';
  import Scale from './Scale.svelte';
  import Shaded from './Shaded.svelte';
  import { scaleOf } from './shades';
  import type { LittleState } from '$lib/editor/sight.svelte';

  /** A little map of all directions for each of several states; a press looks at that state. */
  let {
    maps,
    stale,
  }: {
    maps: readonly (LittleState & { readonly map: DirectionMap })[];
    stale: boolean;
  } = $props();
  const editor = getEditor()();
  const { decades, unit } = $derived(scaleOf(maps[0]?.map.quantity ?? 'power'));

  /** Every fourth bearing, the front in the middle. */
  const EVERY = 4;
  const COLUMNS = 360 / EVERY;
  const turned = ({ values, elevationsDeg }: DirectionMap): Float64Array =>
    Float64Array.from({ length: COLUMNS * elevationsDeg.length }, (_, i) => {
      const bearing = ((i % COLUMNS) * EVERY + 180) % 360;
      return values[Math.floor(i / COLUMNS) * 360 + bearing] ?? 0;
    });
</script>

<div class="maps" class:stale>
  {#each maps as { title, state, map } (stateKey(state))}
    <button aria-pressed={sameState(state, editor.state)} onclick={() => editor.lookAtState(state)}>
      <span class="map">
        <Shaded
          values={turned(map)}
          columns={COLUMNS}
          rows={map.elevationsDeg.length}
          {decades}
          label={null}
        />
      </span>
      {title}
    </button>
  {/each}
</div>
<p class="key"><Scale {decades} {unit} /> from 30° below to 60° above, the front in the middle</p>

<style>
  .maps {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
    gap: 0.75rem;
    align-content: start;
    overflow-y: auto;
    padding: 0.5rem 0.75rem;
  }

  .stale {
    opacity: 0.6;
  }

  button {
    display: grid;
    gap: 0.25rem;
    padding: 0.3rem;
    border: 1px solid var(--sheet-line);
    background: none;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 13px;
    text-align: left;
    cursor: pointer;
  }

  button[aria-pressed='true'] {
    border-color: var(--accent);
    box-shadow: inset 0 0 0 1px var(--accent);
  }

  .map {
    position: relative;
    display: block;
    aspect-ratio: 2 / 1;
  }

  .key {
    display: flex;
    gap: 1rem;
    padding: 0.3rem 0.75rem;
    font-size: 12px;
    color: var(--cds-text-02);
  }
</style>
