<script lang="ts">
  import { freshId } from '$lib/editor/freshId';
  import { addGroup } from '@flarik/core/design/timingEdits';
  import { MOST_GROUPS } from '@flarik/core/design/timing';
  import { changeModules, setDisabled } from '@flarik/core/design/moduleEdits';
  import type { ModuleRef } from '@flarik/core/design/schema';
  import type { ModuleSetup, Placement } from '@flarik/core/design/placement';
  import { setColour, setInsert } from '@flarik/core/arrange/lamps';
  import { lensName, lensOf, lensPassing, LENSES } from '@flarik/core/fixture/lenses';
  import { coloursOffered } from '@flarik/core/fixture/catalogue/catalogue';
  import { Colour, colourLetter } from '@flarik/core/words/colour';
  import { InsertId, insertName } from '@flarik/core/fixture/inserts';
  import { Phase } from '@flarik/core/timing/pattern';
  import { Button, Select, SelectItem } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { nameOf } from '$lib/editor/names';

  /** Colours, sync group and phase of the selected modules, edited together. */
  let { placements }: { placements: readonly Placement[] } = $props();
  const editor = getEditor()();
  const NONE = '';
  const MIXED = '~mixed';

  const only = $derived(placements.length === 1 ? placements[0] : undefined);
  const onlyFixture = $derived(only === undefined ? null : editor.lookup.fixture(only.fixtureId));
  const setups = $derived(
    placements.flatMap((p) =>
      p.modules
        .filter((m) => only === undefined || editor.moduleId === null || m.id === editor.moduleId)
        .map((m) => ({
          ref: { placementId: p.id, moduleId: m.id },
          fixture: editor.lookup.fixture(p.fixtureId),
          setup: m,
        })),
    ),
  );
  const refs = $derived<ModuleRef[]>(setups.map(({ ref }) => ref));
  const slots = $derived(
    Math.max(1, ...placements.map((p) => editor.lookup.fixture(p.fixtureId).colourSlots)),
  );
  /** Every module chosen sits in a slot that takes an insert. */
  const slotted = $derived(setups.length > 0 && setups.every(({ fixture }) => fixture.slotted));
  const offered = $derived(
    Colour.options.filter((c) =>
      setups.some(({ fixture, setup }) => coloursOffered(editor.lookup.outputs(fixture, setup)).includes(c)),
    ),
  );
  const what = $derived(
    nameOf(
      editor.build,
      placements.map((p) => p.id),
    ),
  );

  /** The value all have in common, or "mixed". */
  function common<T extends string>(of: (setup: ModuleSetup) => T): T | typeof MIXED {
    const [first, ...rest] = setups.map(({ setup }) => of(setup));
    return first !== undefined && rest.every((value) => value === first) ? first : MIXED;
  }

  const groupId = $derived(common((m) => m.groupId ?? NONE));
  const phase = $derived(common((m) => m.phase));
  const colourIn = (slot: number) => common((m) => m.colours[slot - 1] ?? NONE);

  function chooseColour(slot: number, value: string): void {
    const colour = Colour.safeParse(value);
    if (value === MIXED) return;
    editor.edit(`Colour ${what}`, (b) => setColour(b, refs, slot, colour.success ? colour.data : null));
  }

  /** Every colour that some chosen module holds, and whether all, some or none of these have it disabled. */
  const held = $derived(
    Colour.options.flatMap((colour) => {
      const having = setups.filter(({ setup }) => setup.colours.includes(colour));
      const off = having.filter(({ setup }) => setup.disabled.includes(colour)).length;
      if (having.length === 0) return [];
      return [{ colour, state: off === 0 ? 'none' : off === having.length ? 'all' : 'some' }];
    }),
  );

  const disable = (colour: Colour, isDisabled: boolean): void =>
    editor.edit(`${isDisabled ? 'Disable' : 'Enable'} ${colour} of ${what}`, (b) =>
      setDisabled(b, refs, colour, isDisabled),
    );

  function chooseInsert(value: string): void {
    const insert = InsertId.safeParse(value);
    if (insert.success) editor.edit(`Build ${what}`, (b) => setInsert(b, refs, insert.data));
  }

  const OWN = '~own';
  const lens = $derived(common((m) => lensOf(m.lens) ?? OWN));

  function chooseLens(value: string): void {
    const chosen = LENSES.find((one) => one === value);
    if (chosen !== undefined && chosen !== lens)
      editor.edit(`Lens of ${what}`, (b) => changeModules(b, refs, { lens: lensPassing(chosen) }));
  }

  function chooseGroup(value: string): void {
    if (value !== MIXED)
      editor.edit(`Group ${what}`, (b) => changeModules(b, refs, { groupId: value === NONE ? null : value }));
  }

  /** A button, not a choice in the list: whoever walks a list by keyboard passes through its choices. */
  function newGroup(): void {
    const id = freshId('g');
    const taken = new Set(editor.build.timing.groups.map((g) => g.name));
    let n = editor.build.timing.groups.length + 1;
    while (taken.has(`Group ${n}`)) n++;
    editor.edit(`New group for ${what}`, (b) =>
      changeModules(addGroup(b, { id, name: `Group ${n}` }), refs, { groupId: id }),
    );
  }

  const order = $derived(new Set(setups.map(({ setup }) => setup.order)));
  const later = $derived(new Set(setups.map(({ setup }) => setup.offsetMs)));
  const [firstOrder, firstLater] = $derived([setups[0]?.setup.order ?? 1, setups[0]?.setup.offsetMs ?? 0]);

  function choosePhase(value: string): void {
    const chosen = Phase.safeParse(value);
    if (chosen.success) editor.edit(`Phase ${what}`, (b) => changeModules(b, refs, { phase: chosen.data }));
  }
</script>

<div class="setup">
  {#if only !== undefined && onlyFixture !== null && onlyFixture.modules.length > 1}
    <Select
      size="sm"
      labelText="Module"
      selected={editor.moduleId ?? ''}
      on:update={(event) => (editor.moduleId = event.detail === '' ? null : String(event.detail))}
    >
      <SelectItem value="" text="All {onlyFixture.modules.length} modules" />
      {#each onlyFixture.modules as module (module.id)}<SelectItem
          value={module.id}
          text={module.name}
        />{/each}
    </Select>
  {/if}
  {#if slotted}
    {@const insert = common((m) => m.insert)}
    <Select
      size="sm"
      labelText="Built with"
      selected={insert}
      on:update={(event) => chooseInsert(String(event.detail))}
    >
      {#if insert === MIXED}<SelectItem value={MIXED} text="mixed" />{/if}
      {#each InsertId.options as option (option)}<SelectItem
          value={option}
          text={insertName[option]}
        />{/each}
    </Select>
  {/if}
  <div class="colours" style:grid-template-columns="repeat({slots}, 1fr)">
    {#each Array.from({ length: slots }, (_, i) => i + 1) as slot (slot)}
      {@const value = colourIn(slot)}
      <Select
        size="sm"
        labelText="Colour {slot}"
        selected={value}
        disabled={slot > 1 && colourIn(slot - 1) === NONE}
        on:update={(event) => chooseColour(slot, String(event.detail))}
      >
        {#if value === MIXED}<SelectItem value={MIXED} text="mixed" />{/if}
        {#if slot > 1}<SelectItem value={NONE} text="none" />{/if}
        {#each offered as colour (colour)}
          <SelectItem value={colour} text="{colourLetter[colour]} {colour}" />
        {/each}
      </Select>
    {/each}
  </div>
  <fieldset>
    <legend>Disabled: ordered, not shown here</legend>
    {#each held as { colour, state } (colour)}
      <label>
        <input
          type="checkbox"
          checked={state === 'all'}
          indeterminate={state === 'some'}
          onchange={(event) => disable(colour, event.currentTarget.checked)}
        />
        {colour}
      </label>
    {/each}
  </fieldset>
  <Select
    size="sm"
    labelText="Lens colour"
    selected={lens}
    on:update={(event) => chooseLens(String(event.detail))}
  >
    {#if lens === MIXED}<SelectItem value={MIXED} text="mixed" />{/if}
    {#each LENSES as option (option)}<SelectItem value={option} text={lensName[option]} />{/each}
    {#if lens === OWN}<SelectItem value={OWN} text="custom values" />{/if}
  </Select>
  <div class="sync">
    <Select
      size="sm"
      labelText="Sync group"
      selected={groupId}
      on:update={(event) => chooseGroup(String(event.detail))}
    >
      {#if groupId === MIXED}<SelectItem value={MIXED} text="mixed" />{/if}
      <SelectItem value={NONE} text="none: free-running" />
      {#each editor.build.timing.groups as group (group.id)}<SelectItem
          value={group.id}
          text={group.name}
        />{/each}
    </Select>
    <Select
      size="sm"
      labelText="Phase"
      selected={phase}
      on:update={(event) => choosePhase(String(event.detail))}
    >
      {#if phase === MIXED}<SelectItem value={MIXED} text="mixed" />{/if}
      {#each Phase.options as letter (letter)}<SelectItem value={letter} text={letter} />{/each}
    </Select>
  </div>
  <div class="place">
    <TypedNumber
      label={order.size > 1 ? 'Order in the row (mixed)' : 'Order in the row'}
      unit="from 1"
      value={firstOrder}
      min={1}
      max={64}
      onset={(n: number) =>
        editor.edit(`Place of ${what}`, (b) => changeModules(b, refs, { order: Math.round(n) }))}
    />
    <TypedNumber
      label={later.size > 1 ? 'Delay (mixed)' : 'Delay'}
      unit="ms"
      value={firstLater}
      min={0}
      max={60_000}
      onset={(n: number) =>
        editor.edit(`Delay of ${what}`, (b) => changeModules(b, refs, { offsetMs: Math.round(n) }))}
    />
  </div>
  <Button
    size="small"
    kind="ghost"
    disabled={editor.build.timing.groups.length >= MOST_GROUPS}
    on:click={newGroup}>New group for {placements.length === 1 ? 'it' : 'them'}</Button
  >
</div>

<style>
  .setup :global(.bx--select__arrow) {
    right: 0.15rem;
  }

  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.75rem;
    padding: 0;
    margin: 0;
    border: 0;
    font-size: 12.5px;
  }

  legend {
    padding: 0 0 0.15rem;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .setup {
    display: grid;
    gap: 0.5rem;
  }

  .colours {
    display: grid;
    gap: 0.3rem;
  }

  .place {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
  }

  .sync {
    display: grid;
    grid-template-columns: 1fr 5.5rem;
    gap: 0.5rem;
  }
</style>
