<script lang="ts">
  import {
    addPartner,
    changePlacement,
    removePlacements,
    type PlacementPatch,
  } from '@flarik/core/build/edits';
  import { placeModules } from '@flarik/core/build/place';
  import type { Placement } from '@flarik/core/build/schema';
  import { fixtureOf } from '@flarik/core/fixture/catalogue/catalogue';
  import { bearingOf } from '@flarik/core/geometry/direction';
  import { Name } from '@flarik/core/names';
  import { zoneOf } from '@flarik/core/vehicle/vehicle';
  import { Button, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { nameOf } from '$lib/editor/names';
  import ArrangeTools from './ArrangeTools.svelte';
  import BuildPanel from './BuildPanel.svelte';
  import ModuleSetup from './ModuleSetup.svelte';
  import TypedNumber from './TypedNumber.svelte';

  const editor = getEditor()();
  const placements = $derived(editor.selected);
  const only = $derived(placements.length === 1 ? placements[0] : undefined);
  const pair = $derived.by(() => {
    const [a, b, c] = placements;
    return a !== undefined && b !== undefined && c === undefined && a.partnerId === b.id ? a : undefined;
  });
  const shown = $derived(only ?? pair);
  const zone = $derived(shown === undefined ? null : zoneOf(editor.vehicle, shown.zoneId));
  const fixture = $derived(shown === undefined ? null : fixtureOf(shown.fixtureId));
  const partner = $derived(editor.build.placements.find((p) => p.id === only?.partnerId));
  const what = $derived(
    nameOf(
      editor.build,
      placements.map((p) => p.id),
    ),
  );
  const first = $derived(
    shown === undefined ? null : (placeModules(editor.vehicle, shown, new Set(editor.state.open))[0] ?? null),
  );
  const aim = $derived(first === null ? null : bearingOf(first.frame.aim));

  const set = (label: string, patch: PlacementPatch): void => {
    if (shown === undefined) return;
    const { id } = shown;
    editor.edit(`${label} ${shown.label}`, (b) => changePlacement(b, id, patch));
  };

  function rename(p: Placement, text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success && name.data !== p.label) set('Rename', { label: name.data });
  }

  function remove(): void {
    const ids = new Set(placements.map((p) => p.id));
    editor.edit(`Delete ${what}`, (b) => removePlacements(b, ids));
  }
</script>

<section class="inspector" aria-label="Inspector">
  {#if placements.length === 0}
    <BuildPanel />
  {:else}
    <h2>{pair === undefined ? what : `${pair.label} and its partner`}</h2>
    {#if shown !== undefined && fixture !== null && zone !== null}
      <p class="quiet small">{fixture.name} on {zone.name}. {zone.behind}.</p>
    {/if}
    <ModuleSetup {placements} />
    {#if shown !== undefined && zone !== null}
      <div class="numbers">
        <TypedNumber
          label="Across"
          unit="mm"
          value={shown.uM * 1000}
          min={-1500}
          max={1500}
          onset={(v: number) => set('Move', { uM: v / 1000 })}
        />
        <TypedNumber
          label="Up"
          unit="mm"
          value={shown.vM * 1000}
          min={-1500}
          max={1500}
          onset={(v: number) => set('Move', { vM: v / 1000 })}
        />
        <TypedNumber
          label="Pan"
          unit="°"
          value={shown.panDeg}
          min={-180}
          max={180}
          onset={(v: number) => set('Aim', { panDeg: v })}
        />
        <TypedNumber
          label="Tilt"
          unit="°"
          value={shown.tiltDeg}
          min={-90}
          max={90}
          onset={(v: number) => set('Aim', { tiltDeg: v })}
        />
        <TypedNumber
          label="Roll"
          unit="°"
          value={shown.rollDeg}
          min={-180}
          max={180}
          onset={(v: number) => set('Aim', { rollDeg: v })}
        />
        <TypedNumber
          label="Lens"
          unit="%"
          value={shown.lensTransmission * 100}
          min={0}
          max={100}
          onset={(v: number) => set('Lens of', { lensTransmission: v / 100 })}
        />
      </div>
      {#if first !== null && aim !== null}
        <p class="quiet small figure">
          Optical centre {first.centre[2].toFixed(2)} m high; aims at {Math.round(aim.bearingDeg) % 360}°, {aim.elevationDeg >=
          0
            ? '+'
            : '−'}{Math.abs(Math.round(aim.elevationDeg))}°
        </p>
      {/if}
    {/if}
    {#if only !== undefined}
      <TextInput
        size="sm"
        labelText="Name"
        value={only.label}
        on:change={(event) => rename(only, String(event.detail ?? ''))}
      />
      {#if partner === undefined}
        <Button
          size="small"
          kind="tertiary"
          on:click={() => {
            const partnerId = crypto.randomUUID().slice(0, 8);
            editor.edit(`Mirror ${only.label}`, (b) => addPartner(b, only.id, partnerId));
            editor.select([only.id, partnerId]);
          }}>Add its mirrored partner</Button
        >
      {:else}
        <Button size="small" kind="tertiary" on:click={() => editor.select([only.id, partner.id])}>
          Select with {partner.label}
        </Button>
      {/if}
    {/if}
    <ArrangeTools {placements} />
    <Button size="small" kind="danger-tertiary" on:click={remove}>Delete</Button>
  {/if}
</section>

<style>
  .inspector {
    display: grid;
    gap: 0.6rem;
    align-content: start;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
    height: 100%;
    background: var(--cds-ui-01);
    border-left: 1px solid var(--cds-ui-03);
  }

  .small {
    font-size: 12px;
    line-height: 1.4;
  }

  .numbers {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    gap: 0.5rem;
  }

  .numbers :global(.bx--text-input) {
    padding: 0 0.5rem;
  }

  .numbers :global(.bx--label) {
    white-space: nowrap;
  }
</style>
