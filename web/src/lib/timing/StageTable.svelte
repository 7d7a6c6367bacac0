<script lang="ts">
  import { changeGroup, changeStage, removeGroup, setCue } from '@flarik/core/design/timingEdits';
  import { stageAt, type Cue, type StageIndex } from '@flarik/core/design/timing';
  import { addPattern, emptyPattern, freshName, showPattern } from '@flarik/core/design/patternEdits';
  import { bookOf } from '@flarik/core/timing/book';
  import { Name } from '@flarik/core/words/names';
  import { Button } from 'carbon-components-svelte';
  import TrashCan from 'carbon-icons-svelte/lib/TrashCan.svelte';
  import { getEditor } from '$lib/editor/context';
  import { getDesk } from './desk.svelte';
  import PatternOptions from './PatternOptions.svelte';
  import { freshId } from '$lib/editor/freshId';

  const editor = getEditor()();
  const desk = getDesk()();
  /** Patterns that the packs do not allow in a stage are left out of its lists. */
  let onlyAllowed = $state(false);
  const { timing } = $derived(editor.build);
  const membersOf = (groupId: string | null) =>
    editor.build.placements.flatMap((p) =>
      p.modules.filter((m) => m.groupId === groupId).map((m) => ({ placement: p, setup: m })),
    );
  const free = $derived(membersOf(null));
  const rows = $derived([
    ...timing.groups.map((g): { id: string | null; name: string } => ({ id: g.id, name: g.name })),
    ...(free.length > 0 ? [{ id: null, name: 'In no group' }] : []),
  ]);
  const SLOTS = [1, 2, 3] as const;

  /** The cues of a group in a stage, by colour slot, and one empty place for the next. */
  function places(stage: StageIndex, groupId: string | null): { slot: Cue['slot']; cue: Cue | null }[] {
    const cues = stageAt(editor.build, stage).cues.filter((c) => c.groupId === groupId);
    const taken = cues.toSorted((a, b) => a.slot - b.slot).map((cue) => ({ slot: cue.slot, cue }));
    return taken.length > 0 ? taken : [{ slot: 1, cue: null }];
  }

  const most = (groupId: string | null): number =>
    Math.max(1, ...membersOf(groupId).map(({ setup }) => setup.colours.length));

  /** What a colour slot means in this group: "red / blue". */
  function slotText(groupId: string | null, slot: number): string {
    const colours = new Set(membersOf(groupId).flatMap(({ setup }) => setup.colours.slice(slot - 1, slot)));
    return colours.size === 0 ? `slot ${slot}` : [...colours].join('/');
  }

  function setPattern(stage: StageIndex, groupId: string | null, slot: Cue['slot'], patternId: string): void {
    const { name } = stageAt(editor.build, stage);
    const place = { stage, groupId, slot, ambient: 'day' as const };
    if (patternId === '') editor.edit(`Clear ${name}`, (b) => setCue(b, stage, groupId, slot, null));
    else editor.edit(`Pattern in ${name}`, (b) => showPattern(b, place, patternId));
    editor.setState({ stage });
    desk.look(patternId === '' ? null : place);
  }

  /** A button, not a choice of the list: whoever walks a list by keyboard passes through its choices. */
  function begin(stage: StageIndex, groupId: string | null, slot: Cue['slot']): void {
    const place = { stage, groupId, slot, ambient: 'day' as const };
    const id = freshId('p');
    editor.edit(`New pattern in ${stageAt(editor.build, stage).name}`, (b) =>
      showPattern(addPattern(b, emptyPattern(id, freshName(bookOf(b), 'Pattern', 1))), place, id),
    );
    editor.setState({ stage });
    desk.look(place);
  }

  /** Another pattern at night; the same as by day when none is named. */
  function setNight(stage: StageIndex, cue: Cue, patternId: string | null): void {
    const { name } = stageAt(editor.build, stage);
    editor.edit(`Pattern at night in ${name}`, (b) =>
      setCue(b, stage, cue.groupId, cue.slot, { ...cue, nightPatternId: patternId }),
    );
    editor.setState({ stage, ambient: patternId === null ? editor.state.ambient : 'night' });
    desk.look({ stage, groupId: cue.groupId, slot: cue.slot, ambient: 'night' });
  }

  function setSlot(stage: StageIndex, cue: Cue, value: string): void {
    const slot = SLOTS.find((s) => String(s) === value);
    if (slot !== undefined)
      editor.edit(`Colour in ${stageAt(editor.build, stage).name}`, (b) =>
        setCue(b, stage, cue.groupId, cue.slot, { ...cue, slot }),
      );
  }

  function addCue(stage: StageIndex, groupId: string | null): void {
    const used = new Set(
      stageAt(editor.build, stage)
        .cues.filter((c) => c.groupId === groupId)
        .map((c) => c.slot),
    );
    const slot = SLOTS.find((s) => !used.has(s));
    if (slot !== undefined)
      editor.edit('Add a colour', (b) =>
        setCue(b, stage, groupId, slot, {
          groupId,
          slot,
          level: 1,
          patternId: 'single',
          nightPatternId: null,
        }),
      );
  }

  function rename(groupId: string, text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success) editor.edit('Rename group', (b) => changeGroup(b, groupId, { name: name.data }));
  }

  const onDesk = (stage: StageIndex, cue: Cue): boolean =>
    desk.place?.stage === stage && desk.place.groupId === cue.groupId && desk.place.slot === cue.slot;

  const selectMembers = (groupId: string | null) =>
    editor.select([...new Set(membersOf(groupId).map(({ placement }) => placement.id))]);
</script>

<div class="scroller">
  <label class="allowed">
    <input type="checkbox" bind:checked={onlyAllowed} /> Only patterns that the chosen packs allow in the stage;
    the others are marked ✕
  </label>
  <table>
    <caption class="visually-hidden">What each sync group shows in each stage</caption>
    <thead>
      <tr>
        <th scope="col">Sync group</th>
        {#each editor.stages as stage (stage)}
          <th scope="col" class:now={stage === editor.state.stage}>
            {#if stage === 0}
              {stageAt(editor.build, 0).name}
            {:else}
              <button
                class="stage"
                aria-pressed={stage === editor.state.stage}
                onclick={() => editor.setState({ stage })}
              >
                {stageAt(editor.build, stage).name}
              </button>
            {/if}
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.id)}
        <tr>
          <th scope="row">
            {#if row.id === null}
              <span class="name">{row.name}</span>
            {:else}
              {@const id = row.id}
              <input
                aria-label="Name of group {row.name}"
                value={row.name}
                maxlength="80"
                onchange={(event) => rename(id, event.currentTarget.value)}
              />
            {/if}
            <span class="under">
              <button class="link" onclick={() => selectMembers(row.id)}>
                {membersOf(row.id).length} modules{row.id === null ? ', each on its own clock' : ''}
              </button>
              {#if row.id !== null}
                {@const id = row.id}
                <Button
                  kind="ghost"
                  size="small"
                  icon={TrashCan}
                  iconDescription="Delete group {row.name}"
                  tooltipPosition="right"
                  on:click={() => editor.edit(`Delete group ${row.name}`, (b) => removeGroup(b, id))}
                />
              {/if}
            </span>
          </th>
          {#each editor.stages as stage (stage)}
            {@const name = stageAt(editor.build, stage).name}
            <td class:now={stage === editor.state.stage}>
              {#each places(stage, row.id) as { slot, cue } (slot)}
                <div class="cue">
                  <select
                    aria-label="Pattern of {row.name} in {name}{slot > 1 ? `, colour ${slot}` : ''}"
                    value={cue?.patternId ?? ''}
                    onchange={(event) => setPattern(stage, row.id, slot, event.currentTarget.value)}
                  >
                    <option value="">dark</option>
                    <PatternOptions {stage} chosen={cue?.patternId ?? ''} {onlyAllowed} />
                  </select>
                  {#if cue !== null}
                    <select
                      aria-label="Colour of {row.name} in {name}{slot > 1 ? `, colour ${slot}` : ''}"
                      value={String(cue.slot)}
                      onchange={(event) => setSlot(stage, cue, event.currentTarget.value)}
                    >
                      {#each SLOTS.filter((s) => s <= most(row.id) || s === cue.slot) as s (s)}
                        <option value={String(s)}>{s}: {slotText(row.id, s)}</option>
                      {/each}
                    </select>
                    {#if cue.nightPatternId !== null}
                      <label class="at-night">
                        at night
                        <select
                          aria-label="Pattern at night of {row.name} in {name}{slot > 1
                            ? `, colour ${slot}`
                            : ''}"
                          value={cue.nightPatternId}
                          onchange={(event) =>
                            setNight(
                              stage,
                              cue,
                              event.currentTarget.value === '' ? null : event.currentTarget.value,
                            )}
                        >
                          <option value="">the same</option>
                          <PatternOptions {stage} chosen={cue.nightPatternId} {onlyAllowed} />
                        </select>
                      </label>
                    {/if}
                  {/if}
                  <span class="more">
                    {#if cue !== null}
                      <button
                        class="link"
                        class:on={onDesk(stage, cue)}
                        aria-label="Draw the pattern of {row.name} in {name}{slot > 1
                          ? `, colour ${slot}`
                          : ''}"
                        onclick={() => {
                          editor.setState({ stage });
                          desk.look({
                            stage,
                            groupId: cue.groupId,
                            slot: cue.slot,
                            ambient: editor.state.ambient,
                          });
                        }}>draw</button
                      >
                      {#if cue.nightPatternId === null}
                        <button
                          class="link"
                          aria-label="Another pattern at night for {row.name} in {name}{slot > 1
                            ? `, colour ${slot}`
                            : ''}"
                          onclick={() => setNight(stage, cue, cue.patternId)}>+ night</button
                        >
                      {/if}
                    {/if}
                    <button
                      class="link"
                      aria-label="New pattern for {row.name} in {name}{slot > 1 ? `, colour ${slot}` : ''}"
                      onclick={() => begin(stage, row.id, slot)}>new</button
                    >
                  </span>
                </div>
              {/each}
              {#if places(stage, row.id)[0]?.cue && places(stage, row.id).length < most(row.id)}
                <button
                  class="link"
                  onclick={() => addCue(stage, row.id)}
                  aria-label="Add a colour to {row.name} in {name}">+ colour</button
                >
              {/if}
            </td>
          {/each}
        </tr>
      {:else}
        <tr
          ><td colspan="5" class="quiet"
            >No sync groups yet. Select lamps on the sheet and give them a group in the inspector.</td
          ></tr
        >
      {/each}
    </tbody>
    {#if rows.length > 0}
      <tfoot>
        <tr>
          <th scope="row">Night level</th>
          {#each editor.stages as stage (stage)}
            <td class:now={stage === editor.state.stage}>
              <label class="night">
                <input
                  type="number"
                  min="5"
                  max="100"
                  step="5"
                  aria-label="Night level of {stageAt(editor.build, stage).name}, percent"
                  value={Math.round(stageAt(editor.build, stage).nightLevel * 100)}
                  onchange={(event) => {
                    const percent = Math.min(100, Math.max(5, event.currentTarget.valueAsNumber || 100));
                    event.currentTarget.valueAsNumber = percent;
                    editor.edit(`Night level of ${stageAt(editor.build, stage).name}`, (b) =>
                      changeStage(b, stage, { nightLevel: percent / 100 }),
                    );
                  }}
                /> %
              </label>
            </td>
          {/each}
        </tr>
      </tfoot>
    {/if}
  </table>
</div>

<style>
  .allowed input {
    width: auto;
    height: auto;
    flex: none;
  }

  .allowed {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    padding: 0.3rem 0.5rem;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .scroller {
    overflow: auto;
    min-height: 0;
  }

  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.25rem 0.4rem;
    border-bottom: 1px solid var(--cds-ui-03);
    text-align: left;
    vertical-align: top;
  }

  thead th {
    position: sticky;
    top: 0;
    background: var(--cds-ui-background);
    z-index: 1;
    color: var(--cds-text-02);
    font-weight: 400;
  }

  .now {
    background: color-mix(in srgb, var(--accent) 12%, var(--cds-ui-background));
  }

  thead .now,
  thead .now button {
    color: var(--cds-text-01);
    font-weight: 600;
  }

  .stage,
  .link {
    border: 0;
    padding: 0;
    background: none;
    font: inherit;
    color: var(--accent);
    cursor: pointer;
    text-align: left;
  }

  .link {
    font-size: 12px;
    font-weight: 400;
  }

  .under {
    display: flex;
    align-items: center;
    justify-content: space-between;
  }

  .cue {
    display: grid;
    gap: 2px;
    margin-bottom: 3px;
  }

  .more {
    display: flex;
    gap: 0.6rem;
  }

  .link.on {
    color: var(--cds-text-01);
    font-weight: 600;
  }

  .at-night {
    display: grid;
    font-size: 11px;
    color: var(--cds-text-02);
  }

  select,
  input {
    width: 100%;
    height: 26px;
    padding: 0 0.25rem;
    border: 1px solid var(--cds-ui-04);
    background: var(--cds-field-01);
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
  }

  th input {
    font-weight: 600;
  }

  .night input {
    width: 3.5rem;
  }

  select:focus-visible,
  input:focus-visible,
  button:focus-visible {
    outline: 2px solid var(--cds-focus);
    outline-offset: -1px;
  }
</style>
