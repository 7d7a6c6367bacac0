<script lang="ts">
  import { setTraffic } from '@flarik/core/design/ownEdits';
  import type { TrafficSide } from '@flarik/core/design/site';
  import { ADAPTATION_LUMINANCE } from '@flarik/core/sight/glare';
  import type { AmbientLevel } from '@flarik/core/words/weather';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';
  import FigureField from '$lib/ui/FigureField.svelte';
  import type { EyesAnswer } from '$lib/workers/sight.worker';
  import DriverEye from './DriverEye.svelte';
  import NearEyes from './NearEyes.svelte';
  import RoadEyes from './RoadEyes.svelte';

  /** What the light does to eyes: of who drives by, of who works at the vehicle, and of its own driver. */
  let {
    answer,
    opticalRangeM,
    stale,
    onrange,
  }: {
    answer: EyesAnswer;
    opticalRangeM: number;
    stale: boolean;
    onrange: (opticalRangeM: number) => void;
  } = $props();
  const editor = getEditor()();
  const WHOSE = [
    { value: 'road', text: 'Traffic' },
    { value: 'near', text: 'At the vehicle' },
    { value: 'driver', text: 'Driver' },
  ] as const;
  let whose = $state<(typeof WHOSE)[number]['value']>('road');
  /** At dusk the lamps burn as by day. */
  let dusk = $state(false);
  const around = $derived<AmbientLevel>(editor.state.ambient === 'night' ? 'night' : dusk ? 'dusk' : 'day');
  const AROUNDS = [
    { value: 'day', text: 'day' },
    { value: 'dusk', text: 'dusk' },
  ] as const;
  /** What somebody said that eyes are used to, by the light around. */
  let said = $state<Partial<Record<AmbientLevel, number>>>({});
  const usedTo = $derived({ around, cdPerM2: said[around] ?? ADAPTATION_LUMINANCE[around] });
  const TRAFFIC = [
    { value: 'right', text: 'right' },
    { value: 'left', text: 'left' },
  ] as const;
</script>

<div class="eyes">
  <div class="head">
    <Choice
      label="Observer"
      small
      options={WHOSE}
      value={whose}
      onchoose={(value: typeof whose) => (whose = value)}
    />
    {#if around === 'night'}<span>at night</span>{:else}
      <Choice
        label="Light around"
        small
        options={AROUNDS}
        value={around}
        onchoose={(v: 'day' | 'dusk') => (dusk = v === 'dusk')}
      />
    {/if}
    <span class="quiet"
      >adaptation luminance
      <FigureField
        label="Adaptation luminance, cd/m²"
        value={usedTo.cdPerM2}
        min={0.1}
        max={20_000}
        whole={false}
        onset={(cdPerM2: number) => (said = { ...said, [around]: cdPerM2 })}
      /> cd/m²</span
    >
    <span class="side">Traffic keeps</span>
    <Choice
      label="Traffic keeps"
      small
      options={TRAFFIC}
      value={editor.build.traffic}
      onchoose={(side: TrafficSide) => editor.edit(`Traffic keeps ${side}`, (b) => setTraffic(b, side))}
    />
  </div>
  {#if whose === 'road'}
    <RoadEyes lanes={answer.lanes} {usedTo} {stale} />
  {:else if whose === 'near'}
    <NearEyes stations={answer.stations} {usedTo} {stale} />
  {:else}
    <DriverEye {answer} {usedTo} {opticalRangeM} {stale} {onrange} />
  {/if}
</div>

<style>
  .eyes {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
    height: 100%;
  }

  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1rem;
    align-items: center;
    padding: 0.3rem 0.75rem;
    font-size: 13px;
  }

  .head :global(input[type='number']) {
    width: 4.6rem;
  }

  .side {
    margin-left: auto;
  }
</style>
