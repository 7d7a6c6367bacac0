<script lang="ts">
  import { BoardText } from '@flarik/core/words/boardText';
  import { setCue, withDark } from '@flarik/core/design/controlEdits';
  import { effectsOf, type ActiveFunction } from '@flarik/core/design/controls';
  import {
    darkCue,
    lightCue,
    sameTarget,
    type Cue,
    type DarkCue,
    type CueColour,
    type LightCue,
  } from '@flarik/core/design/functions';
  import { addPattern, emptyPattern, freshName, showPattern } from '@flarik/core/design/patternEdits';
  import { bookOf } from '@flarik/core/timing/book';
  import { COLOURS, type Colour } from '@flarik/core/words/colour';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import { getDesk } from './desk.svelte';
  import { inkText, membersOf, type CueRow } from './members';
  import PatternSelect from './PatternSelect.svelte';

  /** What a group or set shows in a function, a cue for each of its colours, and what is taken from it. */
  let {
    on,
    row,
    onlyAllowed,
  }: {
    on: ActiveFunction;
    row: CueRow;
    /** Patterns that the packs do not allow in the function are left out of the lists. */
    onlyAllowed: boolean;
  } = $props();

  const SLOTS = [1, 2, 3] as const;
  const editor = getEditor()();
  const desk = getDesk()();
  const name = $derived(editor.nameOf(on));
  const members = $derived(membersOf(editor.build, row.target));
  const cues = $derived(effectsOf(editor.build, on).cues.filter((cue) => sameTarget(cue.target, row.target)));
  const dark = $derived(cues.find((cue): cue is DarkCue => cue.show === 'dark') ?? null);
  const isLight = (cue: Cue): cue is LightCue => cue.show === 'light';
  /** Its cues by colour, and one empty place where there is none. */
  const places = $derived.by((): { ink: CueColour; cue: LightCue | null }[] => {
    const lit = cues.filter(isLight).map((cue) => ({ ink: cue.ink, cue }));
    const inOrder = lit.toSorted((a, b) => String(a.ink).localeCompare(String(b.ink)));
    return inOrder.length > 0 ? inOrder : [{ ink: 1, cue: null }];
  });
  const most = $derived(Math.max(1, ...members.map(({ setup }) => setup.colours.length)));
  const colours = $derived(
    COLOURS.filter((colour) => members.some(({ setup }) => setup.colours.includes(colour))),
  );

  /** What a colour slot means in this group: "red/blue". */
  function slotText(slot: number): string {
    const there = new Set(members.flatMap(({ setup }) => setup.colours.slice(slot - 1, slot)));
    return there.size === 0 ? `slot ${slot}` : [...there].join('/');
  }

  const which = (ink: CueColour): string => (ink === 1 ? '' : `, ${inkText(ink)}`);
  const placeOf = (ink: CueColour) => ({ on, target: row.target, ink, ambient: 'day' as const });

  function setPattern(ink: CueColour, patternId: string | null): void {
    if (patternId === null) editor.edit(`Clear ${name}`, (b) => setCue(b, on, row.target, ink, null));
    else editor.edit(`Pattern in ${name}`, (b) => showPattern(b, placeOf(ink), patternId));
    editor.lookAtFunction(on);
    desk.look(patternId === null ? null : placeOf(ink));
  }

  /** A button, not a choice of the list: whoever walks a list by keyboard passes through its choices. */
  function begin(ink: CueColour): void {
    const id = freshId('p');
    editor.edit(`New pattern in ${name}`, (b) =>
      showPattern(addPattern(b, emptyPattern(id, freshName(bookOf(b), 'Pattern', 1))), placeOf(ink), id),
    );
    editor.lookAtFunction(on);
    desk.open(placeOf(ink));
  }

  /** Another pattern at night; the same as by day when none is named. */
  function setNight(cue: LightCue, patternId: string | null): void {
    editor.edit(`Pattern at night in ${name}`, (b) =>
      setCue(b, on, row.target, cue.ink, { ...cue, nightPatternId: patternId }),
    );
    editor.lookAtFunction(on);
    if (patternId !== null) editor.setState({ ambient: 'night' });
    desk.look({ ...placeOf(cue.ink), ambient: 'night' });
  }

  function setInk(cue: LightCue, value: string): void {
    const ink = inkOf(value);
    if (ink !== undefined)
      editor.edit(`Colour in ${name}`, (b) => setCue(b, on, row.target, cue.ink, { ...cue, ink }));
  }

  const inkOf = (value: string): CueColour | undefined =>
    SLOTS.find((slot) => String(slot) === value) ?? COLOURS.find((colour) => colour === value);

  /** Whether a message board is among them. */
  const speaks = $derived(
    members.some(({ placement }) => editor.lookup.fixture(placement.fixtureId).showsText),
  );

  function setText(cue: LightCue, said: string): void {
    const text = BoardText.safeParse(said.trim());
    if (text.success)
      editor.edit(`Text in ${name}`, (b) => setCue(b, on, row.target, cue.ink, { ...cue, text: text.data }));
  }

  function addCue(): void {
    const ink = SLOTS.find((slot) => !places.some(({ cue }) => cue?.ink === slot));
    if (ink !== undefined)
      editor.edit('Add a colour', (b) => setCue(b, on, row.target, ink, lightCue(row.target, ink, 'single')));
  }

  /** @param value - "" takes nothing, "all" the whole lamp, else one colour */
  function setDark(value: string): void {
    const colour = COLOURS.find((c) => c === value);
    const taken: Colour[] = colour === undefined ? [] : [colour];
    editor.edit(`What ${name} takes`, (b) =>
      withDark(b, on, row.target, value === '' ? null : darkCue(row.target, taken)),
    );
    editor.lookAtFunction(on);
  }

  const darkValue = $derived(dark === null ? '' : (dark.colours[0] ?? 'all'));
  const onDesk = (cue: LightCue): boolean =>
    desk.place?.on === on && sameTarget(desk.place.target, row.target) && desk.place.ink === cue.ink;
</script>

{#each places as { ink, cue } (ink)}
  <div class="cue">
    <PatternSelect
      label="Pattern of {row.name} in {name}{which(ink)}"
      {on}
      value={cue?.patternId ?? null}
      none="dark"
      {onlyAllowed}
      onset={(patternId) => setPattern(ink, patternId)}
    />
    {#if cue !== null}
      <select
        aria-label="Colour of {row.name} in {name}{which(ink)}"
        value={String(cue.ink)}
        onchange={(event) => setInk(cue, event.currentTarget.value)}
      >
        {#each SLOTS.filter((s) => s <= most || s === cue.ink) as s (s)}
          <option value={String(s)}>{s}: {slotText(s)}</option>
        {/each}
        {#each COLOURS.filter((c) => colours.includes(c) || c === cue.ink) as c (c)}
          <option value={c}>{c}, wherever fitted</option>
        {/each}
      </select>
      {#if cue.nightPatternId !== null}
        <label class="at-night">
          at night
          <PatternSelect
            label="Pattern at night of {row.name} in {name}{which(ink)}"
            {on}
            value={cue.nightPatternId}
            none="the same"
            {onlyAllowed}
            onset={(patternId) => setNight(cue, patternId)}
          />
        </label>
      {/if}
    {/if}
    {#if cue !== null && (speaks || cue.text !== '')}
      <label class="at-night">
        says
        <input
          aria-label="Text of {row.name} in {name}{which(ink)}"
          value={cue.text}
          maxlength="40"
          placeholder="default text"
          onchange={(event) => setText(cue, event.currentTarget.value)}
        />
      </label>
    {/if}
    <span class="more">
      {#if cue !== null}
        <button
          class="link"
          class:on={onDesk(cue)}
          aria-label="Draw the pattern of {row.name} in {name}{which(ink)}"
          onclick={() => {
            editor.lookAtFunction(on);
            desk.open({ ...placeOf(cue.ink), ambient: editor.state.ambient });
          }}>draw</button
        >
        {#if cue.nightPatternId === null}
          <button
            class="link"
            aria-label="Another pattern at night for {row.name} in {name}{which(ink)}"
            onclick={() => setNight(cue, cue.patternId)}>+ night</button
          >
        {/if}
      {/if}
      <button
        class="link"
        aria-label="New pattern for {row.name} in {name}{which(ink)}"
        onclick={() => begin(ink)}>new</button
      >
    </span>
  </div>
{/each}
{#if places[0]?.cue && places.length < most}
  <button class="link" onclick={() => addCue()} aria-label="Add a colour to {row.name} in {name}"
    >+ colour</button
  >
{/if}
<label class="takes" class:set={dark !== null}>
  takes
  <select
    aria-label="What {name} takes from {row.name}"
    value={darkValue}
    onchange={(event) => setDark(event.currentTarget.value)}
  >
    <option value="">nothing</option>
    <option value="all">all light</option>
    {#each COLOURS.filter((c) => colours.includes(c) || c === darkValue) as c (c)}
      <option value={c}>{c}</option>
    {/each}
  </select>
</label>

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

  /* What is taken is rare; it comes up where it is set or about to be. */
  .takes {
    display: none;
    margin-top: 3px;
    font-size: 11px;
    color: var(--cds-text-02);
  }

  .takes.set,
  :global(td:hover) > .takes,
  :global(td:focus-within) > .takes {
    display: grid;
  }

  .at-night {
    display: grid;
    font-size: 11px;
    color: var(--cds-text-02);
  }
</style>
