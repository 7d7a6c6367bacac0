<script lang="ts">
  import AimsAndHeights from './AimsAndHeights.svelte';
  import BoardTexts from './BoardTexts.svelte';
  import { LampStatus, Placement } from '@flarik/core/design/placement';
  import {
    addPartner,
    changePlacement,
    copyAcross,
    nameLamp,
    removePlacements,
    type PlacementPatch,
  } from '@flarik/core/arrange/lamps';
  import { fixingOf, holesOf, placeFixture, placeModules } from '@flarik/core/resolve/place';
  import { roomAround } from '@flarik/core/arrange/snap';
  import { bearingOf } from '@flarik/core/geometry/direction';
  import { Name } from '@flarik/core/words/names';
  import { zoneOf } from '@flarik/core/vehicle/vehicle';
  import { Button, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { nameOf } from '$lib/editor/names';
  import { saveIes } from '$lib/editor/saveIes';
  import SchemeTools from '$lib/pieces/SchemeTools.svelte';
  import ArrangeTools from './ArrangeTools.svelte';
  import BuildPanel from './BuildPanel.svelte';
  import ColourPlanTools from './ColourPlanTools.svelte';
  import ExchangeLamp from './ExchangeLamp.svelte';
  import LensAndFinish from './LensAndFinish.svelte';
  import ModuleSetup from './ModuleSetup.svelte';
  import RemarkField from '$lib/ui/RemarkField.svelte';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { freshId } from '$lib/editor/freshId';

  const editor = getEditor()();
  /** On a zone that leans further there is no height to type, as on the roof. */
  const UPRIGHT = 0.5;
  const placements = $derived(editor.selected);
  const only = $derived(placements.length === 1 ? placements[0] : undefined);
  const pair = $derived.by(() => {
    const [a, b, c] = placements;
    return a !== undefined && b !== undefined && c === undefined && a.partnerId === b.id ? a : undefined;
  });
  const shown = $derived(only ?? pair);
  const zone = $derived(shown === undefined ? null : zoneOf(editor.vehicle, shown.zoneId));
  const fixture = $derived(shown === undefined ? null : editor.lookup.fixture(shown.fixtureId));
  const mirrorName = $derived(zone === null ? '' : zoneOf(editor.vehicle, zone.mirrorId).name.toLowerCase());
  const partner = $derived(editor.build.placements.find((p) => p.id === only?.partnerId));
  const what = $derived(
    nameOf(
      editor.build,
      placements.map((p) => p.id),
    ),
  );
  const first = $derived(
    shown === undefined ? null : (placeModules(editor.lookup, shown, editor.open)[0] ?? null),
  );
  const heightM = $derived(shown === undefined ? 0 : placeFixture(editor.lookup, shown, editor.open).base[2]);
  const room = $derived(
    shown === undefined
      ? null
      : roomAround(
          editor.lookup,
          editor.build.placements.filter((p) => p.status !== 'removed'),
          shown,
        ),
  );
  const holes = $derived(
    shown === undefined || fixture === null || zone === null ? 0 : holesOf(fixture, zone, shown),
  );
  const statusName: Readonly<Record<LampStatus, string>> = {
    new: 'bought new',
    kept: 'kept in place',
    reused: 'reused from before',
    planned: 'planned',
    removed: 'removed',
  };
  const aim = $derived(first === null ? null : bearingOf(first.frame.aim));

  const set = (label: string, patch: PlacementPatch): void => {
    if (shown === undefined) return;
    const { id } = shown;
    editor.edit(`${label} ${shown.label}`, (b) => changePlacement(b, id, patch));
  };

  /** A typed name stays; an empty one lets the name follow the layout again. */
  function rename(p: Placement, text: string): void {
    const label = text.trim();
    if (label === p.label || (label !== '' && !Name.safeParse(label).success)) return;
    editor.edit(`Rename ${p.label}`, (b) => nameLamp(b, p.id, label));
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
    <ColourPlanTools {placements} />
    <SchemeTools {placements} />
    {#if shown !== undefined && fixture !== null && zone !== null}
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
        {#if zone.v[2] > UPRIGHT}
          <TypedNumber
            label="Height"
            unit="mm"
            value={heightM * 1000}
            min={0}
            max={15_000}
            onset={(v: number) => set('Move', { vM: shown.vM + (v / 1000 - heightM) / zone.v[2] })}
          />
        {/if}
        <TypedNumber
          label="Left gap"
          unit="mm"
          value={(room?.leftM ?? 0) * 1000}
          min={-1000}
          max={6000}
          onset={(v: number) => set('Move', { uM: shown.uM + v / 1000 - (room?.leftM ?? 0) })}
        />
        <TypedNumber
          label="Right gap"
          unit="mm"
          value={(room?.rightM ?? 0) * 1000}
          min={-1000}
          max={6000}
          onset={(v: number) => set('Move', { uM: shown.uM - v / 1000 + (room?.rightM ?? 0) })}
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
      <div class="choices">
        <Select
          size="sm"
          labelText="Status"
          selected={shown.status}
          on:update={(event) => {
            const status = LampStatus.safeParse(event.detail);
            if (status.success && status.data !== shown.status) set('Status of', { status: status.data });
          }}
        >
          {#each LampStatus.options as status (status)}<SelectItem
              value={status}
              text={statusName[status]}
            />{/each}
        </Select>
        <Select
          size="sm"
          labelText="Mounting"
          selected={shown.fixing ?? ''}
          on:update={(event) => {
            const fixing = zone.fixings.find((f) => f === event.detail) ?? null;
            if (fixing !== shown.fixing) set('Fixing of', { fixing });
          }}
        >
          <SelectItem value="" text="as usual" />
          {#each zone.fixings as fixing (fixing)}<SelectItem value={fixing} text={fixing} />{/each}
        </Select>
      </div>
      <p class="quiet small">
        Mounting: {fixingOf(zone, shown)}{holes > 0
          ? `, which makes ${holes} holes`
          : ', no holes'}{zone.singleWall ? '; a single wall, not to be drilled' : ''}.
      </p>
      <ExchangeLamp placement={shown} />
      <LensAndFinish {fixture} {zone} placement={shown} onset={set} />
      {#if fixture.poleM > 0 || fixture.panRangeDeg > 0 || fixture.tiltRangeDeg > 0 || shown.aims.length > 0}
        <AimsAndHeights {fixture} placement={shown} onset={set} />
      {/if}
      {#if fixture.showsText}
        <TextInput
          size="sm"
          labelText="Custom text"
          value={shown.text}
          on:change={(event) => {
            const text = Placement.shape.text.safeParse(String(event.detail ?? '').trim());
            if (text.success && text.data !== shown.text) set('Text of', { text: text.data });
          }}
        />
        <BoardTexts {fixture} placement={shown} />
      {/if}
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
        labelText={only.named ? 'Name; empty it to let it follow the layout' : 'Name, following the layout'}
        value={only.label}
        on:change={(event) => rename(only, String(event.detail ?? ''))}
      />
      {#if partner === undefined}
        <Button
          size="small"
          kind="tertiary"
          on:click={() => {
            const partnerId = freshId();
            editor.edit(`Mirror ${only.label}`, (b) => addPartner(b, only.id, partnerId));
            editor.select([only.id, partnerId]);
          }}>Add counterpart</Button
        >
        <Button
          size="small"
          kind="ghost"
          on:click={() => {
            const copyId = freshId();
            editor.edit(`Copy ${only.label} across`, (b) => copyAcross(b, only.id, copyId));
            editor.select([copyId]);
          }}>Copy to {mirrorName}, without a tie</Button
        >
      {:else}
        <Button size="small" kind="tertiary" on:click={() => editor.select([only.id, partner.id])}>
          Select with {partner.label}
        </Button>
      {/if}
    {/if}
    {#if only !== undefined}
      <Button size="small" kind="ghost" on:click={() => saveIes(editor, only.id)}
        >Export this state as IES</Button
      >
    {/if}
    {#if shown !== undefined}
      <RemarkField
        label="Notes"
        placeholder="Reason for this lamp, installation hints."
        value={shown.notes}
        onset={(notes: string) => set('Notes on', { notes })}
      />
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
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 0.5rem;
  }

  .choices {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 0.5rem;
  }

  .numbers :global(.bx--label) {
    white-space: nowrap;
  }
</style>
