<script lang="ts">
  import type { Approach } from '@flarik/core/design/approach';
  import { changeApproach, removeApproach } from '@flarik/core/design/approachEdits';
  import { Colour, COLOURS } from '@flarik/core/words/colour';
  import { InputError } from '@flarik/core/words/errors';
  import { LIGHTS_AROUND, WEATHERS } from '@flarik/core/words/weather';
  import { getEditor } from '$lib/editor/context';
  import FigureField from '$lib/ui/FigureField.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';

  /** An approach of the build's own, as a sentence that is changed in place. */
  let { approach }: { approach: Approach } = $props();
  const editor = getEditor()();
  let refused = $state('');

  function set(patch: Partial<Omit<Approach, 'id'>>): void {
    try {
      editor.edit(`Change the approach ${approach.name}`, (b) => changeApproach(b, approach.id, patch));
      refused = '';
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      refused = error.message;
    }
  }
  const CREST = { lengthM: 150, changePercent: 6 };
</script>

<div class="sentence">
  <input
    type="text"
    aria-label="Name of the approach"
    maxlength={80}
    value={approach.name}
    onchange={({ currentTarget }) => set({ name: currentTarget.value })}
  />
  comes from
  <FigureField
    label="Bearing it comes from, degrees"
    value={approach.bearingDeg}
    min={0}
    max={359.9}
    whole={false}
    onset={(bearingDeg: number) => set({ bearingDeg })}
  />° at
  <FigureField
    label="Speed, km/h"
    value={approach.speedKmh}
    min={5}
    max={250}
    whole={false}
    onset={(speedKmh: number) => set({ speedKmh })}
  /> km/h, eye
  <FigureField
    label="Height of the eye, m"
    value={approach.eyeM}
    min={0.3}
    max={4}
    whole={false}
    onset={(eyeM: number) => set({ eyeM })}
  /> m up, grade
  <FigureField
    label="Grade, %, uphill positive"
    value={approach.gradePercent}
    min={-15}
    max={15}
    whole={false}
    onset={(gradePercent: number) => set({ gradePercent })}
  /> %,
  <InlineChoice
    label="Crest"
    options={[
      { value: 'none', text: 'no crest between' },
      { value: 'crest', text: 'over a crest' },
    ]}
    value={approach.crest === null ? 'none' : 'crest'}
    onset={(v: string) => set({ crest: v === 'none' ? null : CREST })}
  />
  {#if approach.crest !== null}
    {@const { crest } = approach}
    of
    <FigureField
      label="Length of the crest, m"
      value={crest.lengthM}
      min={10}
      max={2000}
      whole={false}
      onset={(lengthM: number) => set({ crest: { ...crest, lengthM } })}
    /> m that changes by
    <FigureField
      label="Change of grade, %"
      value={crest.changePercent}
      min={0.1}
      max={30}
      whole={false}
      onset={(changePercent: number) => set({ crest: { ...crest, changePercent } })}
    /> %{/if}, in
  <InlineChoice
    label="Weather"
    options={WEATHERS.map((value) => ({ value, text: value === 'clear' ? 'clear air' : value }))}
    value={approach.weather}
    onset={(weather: Approach['weather']) => set({ weather })}
  />
  <InlineChoice
    label="Light around the road"
    options={LIGHTS_AROUND.map((value) => ({ value, text: value === 'day' ? 'by day' : `at ${value}` }))}
    value={approach.around}
    onset={(around: Approach['around']) => set({ around })}
  />, sees
  <InlineChoice
    label="Colour it must see"
    options={[{ value: 'any', text: 'any light' }, ...COLOURS.map((value) => ({ value, text: value }))]}
    value={approach.colour ?? 'any'}
    onset={(v: string) => {
      const colour = Colour.safeParse(v);
      set({ colour: colour.success ? colour.data : null });
    }}
  />
  of
  <InlineChoice
    label="Lamps it must see"
    options={[
      { value: 'any', text: 'all lamps' },
      { value: 'upper', text: 'lamps above 1.5 m' },
      { value: 'lower', text: 'lamps up to 1.5 m' },
    ]}
    value={approach.level}
    onset={(level: Approach['level']) => set({ level })}
  />
  at
  <FigureField
    label="Times what is just visible"
    value={approach.noticing}
    min={1}
    max={1000}
    whole={false}
    onset={(noticing: number) => set({ noticing })}
  /> times what is just visible.
  <button
    class="plain"
    onclick={() => editor.edit(`Remove the approach ${approach.name}`, (b) => removeApproach(b, approach.id))}
    >Remove</button
  >
</div>
{#if refused !== ''}<p class="refused" role="alert">Not taken: {refused}.</p>{/if}

<style>
  .sentence {
    font-size: 13px;
    line-height: 2.1;
  }

  .sentence :global(input[type='number']) {
    width: 4.4rem;
  }

  input[type='text'] {
    width: 12rem;
  }

  .plain {
    padding: 0;
    border: 0;
    background: none;
    color: var(--cds-link-01);
    font: inherit;
    cursor: pointer;
  }

  .refused {
    color: var(--gap);
    font-size: 13px;
  }
</style>
