<script lang="ts">
  import type { Approach } from '@flarik/core/design/approach';
  import { changeOwn } from '@flarik/core/design/ownEdits';
  import { Colour, COLOURS } from '@flarik/core/words/colour';
  import { LIGHTS_AROUND, WEATHERS } from '@flarik/core/words/weather';
  import FigureField from '$lib/ui/FigureField.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import OwnSentence from './OwnSentence.svelte';

  /** An approach of the build's own. */
  let { approach }: { approach: Approach } = $props();
  type Patch = Partial<Omit<Approach, 'id'>>;
  const CREST = { lengthM: 150, changePercent: 6 };
</script>

<OwnSentence
  list="approaches"
  one={approach}
  label="Name of the approach"
  change={(b, patch: Patch) => changeOwn(b, 'approaches', approach.id, patch)}
>
  {#snippet says(set: (patch: Patch) => void)}
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
    /> m up, gradient
    <FigureField
      label="Gradient, %, uphill positive"
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
        label="Change of gradient, %"
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
      label="Detected colour"
      options={[{ value: 'any', text: 'any light' }, ...COLOURS.map((value) => ({ value, text: value }))]}
      value={approach.colour ?? 'any'}
      onset={(v: string) => {
        const colour = Colour.safeParse(v);
        set({ colour: colour.success ? colour.data : null });
      }}
    />
    of
    <InlineChoice
      label="Detected lamps"
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
      label="Multiple of the detection threshold"
      value={approach.noticing}
      min={1}
      max={1000}
      whole={false}
      onset={(noticing: number) => set({ noticing })}
    /> times the detection threshold.
  {/snippet}
</OwnSentence>
