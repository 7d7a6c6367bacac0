<script lang="ts">
  import { misfit, rollToFit } from '@flarik/core/resolve/place';
  import type { Fixture } from '@flarik/core/fixture/types';
  import { Button, Select, SelectItem, SelectItemGroup } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { pairOffset, placeAt } from '$lib/editor/placing';

  let { fixture }: { fixture: Fixture } = $props();
  const editor = getEditor()();

  const zones = $derived(
    editor.vehicle.zones.map((zone) => {
      const rollDeg = rollToFit(fixture, zone);
      return { zone, why: rollDeg === null ? misfit(fixture, zone) : null, rollDeg: rollDeg ?? 0 };
    }),
  );
  const fitting = $derived(zones.filter(({ why }) => why === null));
  const others = $derived(zones.filter(({ why }) => why !== null));
  let picked = $state('');
  const zoneId = $derived(
    fitting.some(({ zone }) => zone.id === picked) ? picked : (fitting[0]?.zone.id ?? ''),
  );

  function place(pair: boolean): void {
    const chosen = fitting.find(({ zone }) => zone.id === zoneId);
    if (chosen !== undefined)
      placeAt(editor, fixture.id, chosen.zone, {
        uM: pair ? pairOffset(chosen.zone) : 0,
        vM: 0,
        rollDeg: chosen.rollDeg,
        pair,
      });
  }
</script>

<div class="place">
  <Select size="sm" labelText="Zone" selected={zoneId} on:update={(event) => (picked = String(event.detail))}>
    <SelectItemGroup label="Fits">
      {#each fitting as { zone, rollDeg } (zone.id)}<SelectItem
          value={zone.id}
          text={rollDeg === 0 ? zone.name : `${zone.name}, turned by ${rollDeg}°`}
        />{/each}
    </SelectItemGroup>
    <SelectItemGroup label="Does not fit">
      {#each others as { zone, why } (zone.id)}<SelectItem
          value={zone.id}
          text="{zone.name}: {why}"
          disabled
        />{/each}
    </SelectItemGroup>
  </Select>
  <div class="buttons">
    <Button size="small" on:click={() => place(true)}>Place a mirrored pair</Button>
    <Button size="small" kind="secondary" on:click={() => place(false)}>Place one</Button>
  </div>
</div>

<style>
  .place {
    display: grid;
    gap: 0.5rem;
    padding: 0.5rem;
    background: var(--cds-ui-01);
    border: 1px solid var(--zone-fit);
    border-top: 0;
    margin-bottom: 4px;
  }

  .buttons {
    display: grid;
    gap: 4px;
  }
</style>
