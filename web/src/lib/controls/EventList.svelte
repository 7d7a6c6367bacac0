<script lang="ts">
  import type { InputEvent } from '@flarik/core/design/condition';
  import { compileProgram } from '@flarik/core/controls/program';
  import { Wording } from '@flarik/core/controls/sentence';
  import { getEditor } from '$lib/editor/context';

  /** Events of which any does it. */
  let {
    label,
    events,
    onset,
  }: { label: string; events: readonly InputEvent[]; onset: (events: InputEvent[]) => void } = $props();
  const editor = getEditor()();
  const wording = $derived(new Wording(editor.build));
  const buttons = $derived(
    editor.build.controls.panels.flatMap((p) => p.controls.filter((c) => c.kind === 'button')),
  );
  const choices = $derived.by((): { text: string; event: InputEvent }[] => {
    const presses = buttons.flatMap(({ id }): InputEvent[] => [
      { kind: 'press', control: id, press: 'short' },
      { kind: 'press', control: id, press: 'long' },
    ]);
    const arrivals = compileProgram(editor.build).inputs.flatMap(({ id, values }) =>
      values.map((value): InputEvent => ({ kind: 'arrives', input: id, value })),
    );
    return [...presses, ...arrivals].map((event) => ({ text: wording.event(event), event }));
  });

  const CHORD = 'chord';
  /** The keys of a chord that is being put together; null while none is. */
  let chord: [string, string] | null = $state(null);
  const controlName = (id: string): string => wording.control(id);

  function add(index: string): void {
    if (index === CHORD) chord = [buttons[0]?.id ?? '', buttons[1]?.id ?? ''];
    const choice = choices[Number(index)];
    if (index !== '' && choice !== undefined) onset([...events, choice.event]);
  }

  function addChord([a, b]: [string, string]): void {
    chord = null;
    onset([...events, { kind: 'chord', controls: [a, b] }]);
  }
</script>

<div class="events" role="group" aria-label={label}>
  <span class="label">{label}</span>
  {#each events as event, i (i)}
    <span class="event">
      {wording.event(event)}
      <button
        class="link"
        aria-label="Remove: {wording.event(event)}"
        onclick={() => onset(events.filter((_, k) => k !== i))}>✕</button
      >
    </span>
  {:else}
    <span class="quiet">nothing yet</span>
  {/each}
  <select
    aria-label="{label}: add"
    value=""
    onchange={(event) => {
      add(event.currentTarget.value);
      event.currentTarget.value = '';
    }}
  >
    <option value="">add …</option>
    {#if buttons.length > 1}<option value={CHORD}>two keys together …</option>{/if}
    {#each choices as { text }, i (i)}<option value={String(i)}>{text}</option>{/each}
  </select>
  {#if chord !== null}
    <span class="event" role="group" aria-label="{label}: two keys together">
      <select aria-label="First key" bind:value={chord[0]}>
        {#each buttons as { id } (id)}<option value={id}>{controlName(id)}</option>{/each}
      </select>
      with
      <select aria-label="Second key" bind:value={chord[1]}>
        {#each buttons as { id } (id)}<option value={id}>{controlName(id)}</option>{/each}
      </select>
      <button
        class="link"
        disabled={chord[0] === chord[1]}
        onclick={() => {
          if (chord !== null) addChord(chord);
        }}>Add</button
      >
      <button class="link" aria-label="No chord" onclick={() => (chord = null)}>✕</button>
    </span>
  {/if}
</div>

<style>
  .events {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 0.4rem;
    align-items: center;
    font-size: 12.5px;
  }

  .label {
    flex-basis: 100%;
    color: var(--cds-text-02);
    font-size: 12px;
  }

  .event {
    display: inline-flex;
    gap: 0.3rem;
    padding: 0.1rem 0.4rem;
    border: 1px solid var(--cds-ui-04);
  }

  select {
    max-width: 12rem;
  }
</style>
