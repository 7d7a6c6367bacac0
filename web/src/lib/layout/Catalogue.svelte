<script lang="ts">
  import { CATALOGUE } from '@flarik/core/fixture/catalogue/catalogue';
  import { misfit } from '@flarik/core/build/place';
  import { FIXTURE_KINDS, type Fixture } from '@flarik/core/fixture/types';
  import { getEditor } from '$lib/editor/context';
  import { trackDrag } from '$lib/editor/trackDrag';
  import FixturePicture from './FixturePicture.svelte';
  import ZoneList from './ZoneList.svelte';

  let { ondrop }: { ondrop: (clientX: number, clientY: number) => void } = $props();
  const editor = getEditor()();
  const chosen = $derived(CATALOGUE.find((f) => f.id === editor.carry?.fixtureId) ?? null);
  /** The one entry that Tab reaches; arrows go to the others. */
  let current = $state('');
  let words = $state('');
  let kind = $state('');
  let zoneId = $state('');
  const zone = $derived(editor.vehicle.zones.find((z) => z.id === zoneId));
  const listed = $derived(
    CATALOGUE.filter((f) => {
      if (kind !== '' && f.kind !== kind) return false;
      if (zone !== undefined && misfit(f, zone) !== null) return false;
      const text = `${f.name} ${f.what} ${f.kind}`.toLowerCase();
      return words
        .toLowerCase()
        .split(/\s+/)
        .every((word) => text.includes(word));
    }),
  );

  const reached = $derived(listed.some((f) => f.id === current) ? current : listed[0]?.id);

  function walk(event: KeyboardEvent, index: number): void {
    const to = { ArrowDown: index + 1, ArrowUp: index - 1, Home: 0, End: listed.length - 1 }[event.key];
    const next = to === undefined ? undefined : listed[to];
    if (next === undefined) return;
    event.preventDefault();
    current = next.id;
    list?.querySelector<HTMLElement>(`[data-fixture="${next.id}"]`)?.focus();
  }

  let list: HTMLUListElement | undefined = $state();
  const money = new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 });

  function choose(fixture: Fixture): void {
    editor.carry = editor.carry?.fixtureId === fixture.id ? null : { fixtureId: fixture.id, at: null };
  }

  /** A press that moves carries the fixture with the pointer; let go over a zone to place it. */
  function press(event: PointerEvent, fixture: Fixture): void {
    if (event.button !== 0) return;
    trackDrag(event, {
      move: (x, y) => (editor.carry = { fixtureId: fixture.id, at: { x, y } }),
      drop: (x, y) => {
        ondrop(x, y);
        editor.carry = null;
      },
      cancel: () => (editor.carry = null),
    });
  }
</script>

<section class="catalogue" aria-label="Catalogue">
  <h2>Catalogue</h2>
  <p class="quiet small">Drag a fixture onto the vehicle, or choose it and then a zone.</p>
  <div class="filters">
    <input type="search" aria-label="Search the catalogue" placeholder="Search" bind:value={words} />
    <select aria-label="Kind of fixture" bind:value={kind}>
      <option value="">all kinds</option>
      {#each FIXTURE_KINDS as option (option)}<option value={option}>{option}</option>{/each}
    </select>
    <select aria-label="Only what fits a zone" bind:value={zoneId}>
      <option value="">any zone</option>
      {#each editor.vehicle.zones as z (z.id)}<option value={z.id}>fits {z.name}</option>{/each}
    </select>
  </div>
  <ul bind:this={list}>
    {#each listed as fixture, index (fixture.id)}
      <li>
        <button
          class:chosen={chosen?.id === fixture.id}
          aria-pressed={chosen?.id === fixture.id}
          data-fixture={fixture.id}
          tabindex={reached === fixture.id ? 0 : -1}
          onkeydown={(event) => walk(event, index)}
          onfocus={() => (current = fixture.id)}
          onpointerdown={(event) => press(event, fixture)}
          onclick={() => choose(fixture)}
        >
          <FixturePicture {fixture} />
          <span class="name" title={fixture.what}>{fixture.name}</span>
          <span class="quiet small">
            {fixture.modules.length === 1 ? '1 module' : `${fixture.modules.length} modules`}, {fixture.colourSlots ===
            1
              ? '1 colour'
              : `${fixture.colourSlots} colours`} · {money.format(fixture.priceMinor / 100)}
          </span>
        </button>
        {#if chosen?.id === fixture.id}<ZoneList {fixture} />{/if}
      </li>
    {:else}
      <li class="quiet small">Nothing like that in the catalogue.</li>
    {/each}
  </ul>
</section>

{#if editor.carry?.at}
  <div
    class="carried"
    style:left="{editor.carry.at.x + 14}px"
    style:top="{editor.carry.at.y + 10}px"
    aria-hidden="true"
  >
    {chosen?.name}
  </div>
{/if}

<style>
  .catalogue {
    display: flex;
    flex-direction: column;
    gap: 0.25rem;
    padding: 0.5rem 0 0 0.75rem;
    min-height: 0;
    height: 100%;
    border-right: 1px solid var(--cds-ui-03);
  }

  .small {
    font-size: 12px;
    line-height: 1.35;
  }

  .filters {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px;
    padding-right: 0.5rem;
  }

  .filters input {
    grid-column: 1 / -1;
  }

  .filters input,
  .filters select {
    min-width: 0;
    height: 26px;
    padding: 0 0.35rem;
    border: 1px solid var(--cds-ui-04);
    background: var(--cds-field-01);
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
  }

  .filters :focus-visible {
    outline: 2px solid var(--cds-focus);
    outline-offset: -1px;
  }

  ul {
    overflow-y: auto;
    min-height: 0;
    padding-right: 0.5rem;
  }

  button {
    display: grid;
    gap: 1px;
    width: 100%;
    margin: 2px 0;
    padding: 0.35rem 0.5rem;
    border: 1px solid var(--cds-ui-03);
    background: var(--cds-ui-01);
    color: var(--cds-text-01);
    font: inherit;
    text-align: left;
    cursor: grab;
    touch-action: none;
  }

  button:hover {
    border-color: var(--accent);
  }

  button.chosen {
    border-color: var(--zone-fit);
    box-shadow: inset 3px 0 0 var(--zone-fit);
  }

  button:focus-visible {
    outline: 2px solid var(--cds-focus);
  }

  .name {
    font-weight: 600;
    font-size: 13px;
  }

  .carried {
    position: fixed;
    z-index: 20;
    padding: 0.25rem 0.5rem;
    background: var(--cds-inverse-02);
    color: var(--cds-inverse-01);
    font-size: 12px;
    pointer-events: none;
  }
</style>
