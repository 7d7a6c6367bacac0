<script lang="ts">
  import { MAP_QUANTITIES, type MapQuantity } from '@flarik/core/coverage/map';
  import type { LampHeight } from '@flarik/core/coverage/ring';
  import { Colour, colourLetter } from '@flarik/core/words/colour';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';

  /** What ring and map show, of which lamps, and seen from where. */
  type MapsBy = 'state' | 'open' | 'function';
  let {
    look,
    quantity = $bindable(),
    mapsBy = $bindable(),
  }: { look: string; quantity: MapQuantity; mapsBy: MapsBy } = $props();
  const editor = getEditor()();
  const options = $derived(editor.ringOptions);
  const MAPS_BY = [
    { value: 'state', text: 'This state' },
    { value: 'open', text: 'By open parts' },
    { value: 'function', text: 'By function' },
  ] as const;
  const QUANTITIES: Readonly<Record<MapQuantity, string>> = {
    power: 'Optical power',
    effective: 'Effective intensity',
    peak: 'Peak',
  };
  const quantities = $derived(
    MAP_QUANTITIES.filter((value) => look === 'map' || value !== 'peak').map((value) => ({
      value,
      text: QUANTITIES[value],
    })),
  );
  const levels: readonly { value: LampHeight; text: string }[] = [
    { value: 'any', text: 'All' },
    { value: 'upper', text: 'Upper' },
    { value: 'lower', text: 'Lower' },
  ];
  const colours = ['all', ...Colour.options].map((value) => {
    const colour = Colour.safeParse(value);
    return { value, text: colour.success ? colourLetter[colour.data] : 'All', title: value };
  });
</script>

<div class="controls">
  <Choice label="Shown" options={quantities} value={quantity} onchoose={(v: MapQuantity) => (quantity = v)} />
  <Choice
    label="Colour"
    options={colours}
    value={options.colour ?? 'all'}
    onchoose={(v: string) => {
      const colour = Colour.safeParse(v);
      editor.ringOptions = { ...options, colour: colour.success ? colour.data : null };
    }}
  />
  <Choice
    label="Lamps"
    options={levels}
    value={options.level}
    onchoose={(level: LampHeight) => (editor.ringOptions = { ...options, level })}
  />
  {#if look === 'map'}
    <Choice label="Maps" options={MAPS_BY} value={mapsBy} onchoose={(v: MapsBy) => (mapsBy = v)} />
  {/if}
  <label class="elevation">
    <span>Elevation <span class="figure">{options.elevationDeg}°</span></span>
    <input
      type="range"
      min="-30"
      max="60"
      step="1"
      value={options.elevationDeg}
      oninput={(event) =>
        (editor.ringOptions = { ...options, elevationDeg: Number(event.currentTarget.value) })}
    />
  </label>
</div>

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    padding: 0.25rem 0.75rem;
  }

  .elevation {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .elevation input {
    accent-color: var(--accent);
  }
</style>
