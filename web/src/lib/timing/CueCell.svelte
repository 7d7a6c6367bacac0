<script lang="ts">
  import { addPattern, emptyPattern, freshName, showPattern } from '@flarik/core/design/patternEdits';
  import { stageAt, type Cue, type StageIndex } from '@flarik/core/design/timing';
  import { setCue } from '@flarik/core/design/timingEdits';
  import { bookOf } from '@flarik/core/timing/book';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import { getDesk } from './desk.svelte';
  import { membersOf } from './members';
  import PatternOptions from './PatternOptions.svelte';

  /** What a sync group shows in a stage, a cue for each of its colours. */
  let {
    stage,
    group,
    onlyAllowed,
  }: {
    stage: StageIndex;
    /** Null for the modules that are in no group. */
    group: { readonly id: string | null; readonly name: string };
    /** Patterns that the packs do not allow in the stage are left out of the lists. */
    onlyAllowed: boolean;
  } = $props();

  const SLOTS = [1, 2, 3] as const;
  const editor = getEditor()();
  const desk = getDesk()();
  const stageName = $derived(stageAt(editor.build, stage).name);
  const members = $derived(membersOf(editor.build, group.id));
  /** Its cues by colour slot, and one empty place where there is none. */
  const places = $derived.by((): { slot: Cue['slot']; cue: Cue | null }[] => {
    const cues = stageAt(editor.build, stage).cues.filter((c) => c.groupId === group.id);
    const taken = cues.toSorted((a, b) => a.slot - b.slot).map((cue) => ({ slot: cue.slot, cue }));
    return taken.length > 0 ? taken : [{ slot: 1, cue: null }];
  });
  const most = $derived(Math.max(1, ...members.map(({ setup }) => setup.colours.length)));

  /** What a colour slot means in this group: "red/blue". */
  function slotText(slot: number): string {
    const colours = new Set(members.flatMap(({ setup }) => setup.colours.slice(slot - 1, slot)));
    return colours.size === 0 ? `slot ${slot}` : [...colours].join('/');
  }

  const which = (slot: number): string => (slot > 1 ? `, colour ${slot}` : '');

  function setPattern(slot: Cue['slot'], patternId: string): void {
    const place = { stage, groupId: group.id, slot, ambient: 'day' as const };
    if (patternId === '') editor.edit(`Clear ${stageName}`, (b) => setCue(b, stage, group.id, slot, null));
    else editor.edit(`Pattern in ${stageName}`, (b) => showPattern(b, place, patternId));
    editor.setState({ stage });
    desk.look(patternId === '' ? null : place);
  }

  /** A button, not a choice of the list: whoever walks a list by keyboard passes through its choices. */
  function begin(slot: Cue['slot']): void {
    const place = { stage, groupId: group.id, slot, ambient: 'day' as const };
    const id = freshId('p');
    editor.edit(`New pattern in ${stageName}`, (b) =>
      showPattern(addPattern(b, emptyPattern(id, freshName(bookOf(b), 'Pattern', 1))), place, id),
    );
    editor.setState({ stage });
    desk.open(place);
  }

  /** Another pattern at night; the same as by day when none is named. */
  function setNight(cue: Cue, patternId: string | null): void {
    editor.edit(`Pattern at night in ${stageName}`, (b) =>
      setCue(b, stage, group.id, cue.slot, { ...cue, nightPatternId: patternId }),
    );
    editor.setState({ stage, ambient: patternId === null ? editor.state.ambient : 'night' });
    desk.look({ stage, groupId: group.id, slot: cue.slot, ambient: 'night' });
  }

  function setSlot(cue: Cue, value: string): void {
    const slot = SLOTS.find((s) => String(s) === value);
    if (slot !== undefined)
      editor.edit(`Colour in ${stageName}`, (b) => setCue(b, stage, group.id, cue.slot, { ...cue, slot }));
  }

  function addCue(): void {
    const slot = SLOTS.find((s) => !places.some(({ cue }) => cue?.slot === s));
    if (slot !== undefined)
      editor.edit('Add a colour', (b) =>
        setCue(b, stage, group.id, slot, {
          groupId: group.id,
          slot,
          level: 1,
          patternId: 'single',
          nightPatternId: null,
        }),
      );
  }

  const onDesk = (cue: Cue): boolean =>
    desk.place?.stage === stage && desk.place.groupId === group.id && desk.place.slot === cue.slot;
</script>

{#each places as { slot, cue } (slot)}
  <div class="cue">
    <select
      aria-label="Pattern of {group.name} in {stageName}{which(slot)}"
      value={cue?.patternId ?? ''}
      onchange={(event) => setPattern(slot, event.currentTarget.value)}
    >
      <option value="">dark</option>
      <PatternOptions {stage} chosen={cue?.patternId ?? ''} {onlyAllowed} />
    </select>
    {#if cue !== null}
      <select
        aria-label="Colour of {group.name} in {stageName}{which(slot)}"
        value={String(cue.slot)}
        onchange={(event) => setSlot(cue, event.currentTarget.value)}
      >
        {#each SLOTS.filter((s) => s <= most || s === cue.slot) as s (s)}
          <option value={String(s)}>{s}: {slotText(s)}</option>
        {/each}
      </select>
      {#if cue.nightPatternId !== null}
        <label class="at-night">
          at night
          <select
            aria-label="Pattern at night of {group.name} in {stageName}{which(slot)}"
            value={cue.nightPatternId}
            onchange={(event) =>
              setNight(cue, event.currentTarget.value === '' ? null : event.currentTarget.value)}
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
          class:on={onDesk(cue)}
          aria-label="Draw the pattern of {group.name} in {stageName}{which(slot)}"
          onclick={() => {
            editor.setState({ stage });
            desk.open({
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
            aria-label="Another pattern at night for {group.name} in {stageName}{which(slot)}"
            onclick={() => setNight(cue, cue.patternId)}>+ night</button
          >
        {/if}
      {/if}
      <button
        class="link"
        aria-label="New pattern for {group.name} in {stageName}{which(slot)}"
        onclick={() => begin(slot)}>new</button
      >
    </span>
  </div>
{/each}
{#if places[0]?.cue && places.length < most}
  <button class="link" onclick={() => addCue()} aria-label="Add a colour to {group.name} in {stageName}"
    >+ colour</button
  >
{/if}

<style>
  .cue {
    display: grid;
    gap: 2px;
    margin-bottom: 3px;
  }

  select {
    width: 100%;
    font-size: 12px;
  }

  .more {
    display: flex;
    flex-wrap: wrap;
    gap: 0 0.6rem;
    white-space: nowrap;
  }

  .on {
    color: var(--cds-text-01);
    font-weight: 600;
  }

  .at-night {
    display: grid;
    font-size: 11px;
    color: var(--cds-text-02);
  }
</style>
