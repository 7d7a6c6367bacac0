<script lang="ts">
  import { moneyText } from '@flarik/core/rules/brief/words';
  import { textOf } from '$lib/ui/textOf';
  import FilePicker from '$lib/ui/FilePicker.svelte';
  import { freeFixtureId, importFixtures } from '@flarik/core/design/fixtureEdits';
  import { InputError } from '@flarik/core/words/errors';
  import type { RowError } from '@flarik/core/fixture/csv';
  import { rollToFit } from '@flarik/core/resolve/place';
  import { FIXTURE_KINDS, type Fixture } from '@flarik/core/fixture/types';
  import { getEditor } from '$lib/editor/context';
  import { trackDrag } from '$lib/editor/trackDrag';
  import { Button } from 'carbon-components-svelte';
  import { onMount } from 'svelte';
  import { download } from '$lib/download';
  import Compare from './Compare.svelte';
  import { favourites } from './favourites.svelte';
  import FixtureDialog from './FixtureDialog.svelte';
  import FixturePicture from './FixturePicture.svelte';
  import ZoneList from './ZoneList.svelte';

  let { ondrop }: { ondrop: (clientX: number, clientY: number) => void } = $props();
  const editor = getEditor()();
  const catalogue = $derived(editor.lookup.fixtures);
  const own = $derived(new Set(editor.build.fixtures.map((f) => f.id)));
  const chosen = $derived(catalogue.find((f) => f.id === editor.carry?.fixtureId) ?? null);
  /** The one entry that Tab reaches; arrows go to the others. */
  let current = $state('');
  let words = $state('');
  let kind = $state('');
  let zoneId = $state('');
  const zone = $derived(editor.vehicle.zones.find((z) => z.id === zoneId));
  const FAVOURITES = '~favourites';
  const OWN = '~own';
  const listed = $derived(
    catalogue.filter((f) => {
      if (kind === FAVOURITES) {
        if (!favourites.ids.has(f.id)) return false;
      } else if (kind === OWN) {
        if (!own.has(f.id)) return false;
      } else if (kind !== '' && f.kind !== kind) return false;
      if (zone !== undefined && rollToFit(f, zone) === null) return false;
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

  let compared = $state.raw<readonly string[]>([]);
  let comparing = $state(false);
  let detailed = $state(false);
  const MOST_COMPARED = 4;
  const side = $derived(compared.flatMap((id) => catalogue.find((f) => f.id === id) ?? []));

  function toggleCompared(id: string): void {
    compared = compared.includes(id)
      ? compared.filter((c) => c !== id)
      : [...compared, id].slice(-MOST_COMPARED);
  }

  function copyAsOwn(fixture: Fixture): void {
    const id = freeFixtureId(editor.build, `own-${fixture.id}`);
    const copy = { ...fixture, id, name: `Custom ${fixture.name.toLowerCase()}`.slice(0, 80) };
    editor.edit(`Copy ${fixture.name} as custom fixture`, (b) => importFixtures(b, [copy]).build);
    editor.carry = { fixtureId: id, at: null };
  }

  let picker: { open: () => void } | undefined = $state();
  let refused = $state.raw<{ name: string; errors: readonly RowError[] } | null>(null);

  /** A table of own fixtures: taken whole or not at all, with every bad row named. */
  async function takeTable(file: File): Promise<void> {
    refused = null;
    try {
      const { MAX_TABLE_BYTES, readFixtureTable } = await import('./fixtureFile');
      const text = await textOf(file, 'table', MAX_TABLE_BYTES);
      const { fixtures, errors } = readFixtureTable(file.name, text);
      const taken = importFixtures(editor.build, fixtures);
      const clashes = taken.refused.map((id) => ({
        row: 0,
        column: 'id',
        reason: `'${id}' is a fixture of the catalogue, or its lamps would no longer be whole`,
      }));
      if (errors.length + clashes.length > 0) refused = { name: file.name, errors: [...errors, ...clashes] };
      else {
        editor.edit(`Take ${fixtures.length} fixtures of ${file.name}`, () => taken.build);
        kind = OWN;
      }
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      refused = { name: file.name, errors: [{ row: 0, column: '', reason: error.reason }] };
    }
  }

  async function saveTable(fixtures: readonly Fixture[]): Promise<void> {
    const { fixtureTable } = await import('./fixtureFile');
    download('fixtures.csv', fixtureTable(fixtures), 'text/csv');
  }

  onMount(() => favourites.load());

  let list: HTMLUListElement | undefined = $state();

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
      <option value={FAVOURITES}>★ favourites</option>
      <option value={OWN}>custom</option>
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
            {favourites.ids.has(fixture.id) ? '★ ' : ''}{own.has(fixture.id) ? 'own · ' : ''}{fixture.modules
              .length === 1
              ? '1 module'
              : `${fixture.modules.length} modules`}, {fixture.colourSlots === 1
              ? '1 colour'
              : `${fixture.colourSlots} colours`} · {moneyText(
              fixture.priceMinor,
              editor.build.brief.currency,
            )} · {fixture.inStock > 0 ? `${fixture.inStock} in stock` : `${fixture.leadDays} days`}
          </span>
        </button>
        {#if chosen?.id === fixture.id}
          <ZoneList {fixture} />
          <div class="more">
            <Button size="small" kind="ghost" on:click={() => (detailed = true)}>Details</Button>
            <Button size="small" kind="ghost" on:click={() => favourites.toggle(fixture.id)}
              >{favourites.ids.has(fixture.id) ? '★ Not a favourite' : '☆ Favourite'}</Button
            >
            <Button size="small" kind="ghost" on:click={() => toggleCompared(fixture.id)}
              >{compared.includes(fixture.id) ? 'Do not compare' : 'Compare'}</Button
            >
            <Button size="small" kind="ghost" on:click={() => copyAsOwn(fixture)}>Copy as custom</Button>
          </div>
        {/if}
      </li>
    {:else}
      <li class="quiet small">No matching fixtures.</li>
    {/each}
  </ul>
  {#if refused !== null}
    <div class="refused" role="alert">
      <p><b>{refused.name}</b> was not imported:</p>
      <ul class="errors">
        {#each refused.errors.slice(0, 30) as e, i (i)}
          <li>
            {e.row > 0 ? `row ${e.row}` : ''}{e.column === ''
              ? ''
              : `${e.row > 0 ? ', ' : ''}${e.column}`}{e.row > 0 || e.column !== '' ? ': ' : ''}{e.reason}
          </li>
        {/each}
        {#if refused.errors.length > 30}<li>and {refused.errors.length - 30} more</li>{/if}
      </ul>
      <button class="link" onclick={() => (refused = null)}>Close</button>
    </div>
  {/if}
  <div class="foot">
    {#if side.length > 0}
      <Button size="small" kind="tertiary" disabled={side.length < 2} on:click={() => (comparing = true)}
        >Compare {side.length}</Button
      >
    {/if}
    <button class="link" onclick={() => picker?.open()}>Import CSV</button>
    <button class="link" onclick={() => void saveTable(listed)}>Export CSV</button>
    <FilePicker bind:this={picker} label="Table of fixtures" accept=".csv,text/csv" ontake={takeTable} />
  </div>
</section>

<Compare bind:open={comparing} fixtures={side} />
{#if chosen !== null}<FixtureDialog bind:open={detailed} fixture={chosen} />{/if}

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
    grid-template-columns: repeat(auto-fit, minmax(5.2rem, 1fr));
    gap: 4px;
    padding-right: 0.5rem;
  }

  .filters input {
    grid-column: 1 / -1;
  }

  .filters input,
  .filters select {
    height: 26px;
    font-size: 12px;
  }

  ul {
    overflow-y: auto;
    min-height: 0;
    padding-right: 0.5rem;
  }

  li button {
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

  li button:hover {
    border-color: var(--accent);
  }

  li button.chosen {
    border-color: var(--zone-fit);
    box-shadow: inset 3px 0 0 var(--zone-fit);
  }

  .more {
    display: grid;
    grid-template-columns: 1fr 1fr;
    margin-bottom: 4px;
  }

  .more :global(.bx--btn) {
    padding: 0 0.4rem;
    min-width: 0;
  }

  .foot {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.6rem;
    padding: 0.2rem 0.5rem 0.3rem 0;
  }

  .refused {
    padding: 0.4rem 0.5rem 0.4rem 0;
    border-top: 1px solid var(--gap);
    font-size: 12px;
  }

  .errors {
    max-height: 9rem;
    font-size: 12px;
  }

  .errors li {
    font-size: 12px;
    color: var(--gap);
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
