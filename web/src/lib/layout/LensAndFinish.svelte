<script lang="ts">
  import type { PlacementPatch } from '@flarik/core/arrange/lamps';
  import { FINISHES, type Placement } from '@flarik/core/design/placement';
  import type { Fixture } from '@flarik/core/fixture/types';
  import type { MountZone } from '@flarik/core/vehicle/types';
  import { Select, SelectItem } from 'carbon-components-svelte';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';

  /** How a lamp stands off its zone, what its lens does to each of its colours, and how its flange looks. */
  let {
    placement,
    fixture,
    zone,
    onset,
  }: {
    placement: Placement;
    fixture: Fixture;
    zone: MountZone;
    onset: (label: string, patch: PlacementPatch) => void;
  } = $props();

  const colours = $derived([...new Set(placement.modules.flatMap((m) => m.colours))]);
  const mm = (m: number): string => `${Math.round(m * 1000)} mm`;
  const room = $derived(
    [
      zone.behindM === null ? '' : `${mm(zone.behindM)} free behind`,
      zone.outM === null ? '' : `projection up to ${mm(zone.outM)}`,
      fixture.behindM === 0 ? '' : `the lamp needs ${mm(fixture.behindM)} behind`,
    ].filter((text) => text !== ''),
  );
</script>

<details>
  <summary>Stand-off, lens by colour, finish</summary>
  {#if room.length > 0}<p class="quiet small">{room.join(', ')}.</p>{/if}
  <div class="numbers">
    <TypedNumber
      label={fixture.poleM > 0 ? 'Pole raised' : 'Stand-off'}
      unit="mm"
      value={placement.poleM * 1000}
      min={0}
      max={fixture.poleM > 0 ? fixture.poleM * 1000 : 500}
      onset={(v: number) => onset('Stand-off of', { poleM: v / 1000 })}
    />
    {#each colours as colour (colour)}
      <TypedNumber
        label="Lens, {colour}"
        unit="%"
        value={(placement.lensByColour[colour] ?? 1) * 100}
        min={0}
        max={100}
        onset={(v: number) =>
          onset('Lens of', { lensByColour: { ...placement.lensByColour, [colour]: v / 100 } })}
      />
    {/each}
  </div>
  <Select
    size="sm"
    labelText="Flange"
    selected={placement.finish}
    on:update={(event) => {
      const finish = FINISHES.find((f) => f === event.detail);
      if (finish !== undefined && finish !== placement.finish) onset('Finish of', { finish });
    }}
  >
    {#each FINISHES as finish (finish)}<SelectItem value={finish} text={finish} />{/each}
  </Select>
</details>

<style>
  summary {
    font-size: 12px;
    cursor: pointer;
  }

  .numbers {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 0.5rem;
    padding: 0.4rem 0;
  }

  .numbers :global(.bx--label) {
    white-space: nowrap;
  }
  .small {
    font-size: 12px;
  }
</style>
