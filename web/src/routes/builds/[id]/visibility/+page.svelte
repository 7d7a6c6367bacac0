<script lang="ts">
  import { gapsOf } from '@flarik/core/coverage/gaps';
  import type { MapQuantity } from '@flarik/core/coverage/map';
  import type { Sector } from '@flarik/core/coverage/sectors';
  import type { Approach } from '@flarik/core/design/approach';
  import { activeFunctionNames } from '@flarik/core/design/controls';
  import { USUAL_JUNCTION, type Junction } from '@flarik/core/sight/junction';
  import { usualApproaches } from '@flarik/core/sight/usualApproaches';
  import { checkedFunctionSets, openText, posesOf, stateOf } from '@flarik/core/state/state';
  import { Pane, PaneGroup } from 'paneforge';
  import { onDestroy } from 'svelte';
  import { getEditor } from '$lib/editor/context';
  import BeforeAfter from '$lib/pieces/BeforeAfter.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import { paneWidths } from '$lib/ui/remember';
  import SidePane from '$lib/ui/SidePane.svelte';
  import SightDistanceView from '$lib/visibility/SightDistanceView.svelte';
  import EyesView from '$lib/visibility/EyesView.svelte';
  import JunctionView from '$lib/visibility/JunctionView.svelte';
  import SceneLightView from '$lib/visibility/SceneLightView.svelte';
  import LittleMaps from '$lib/visibility/LittleMaps.svelte';
  import MapView from '$lib/visibility/MapView.svelte';
  import PolarChart from '$lib/visibility/PolarChart.svelte';
  import PolarControls from '$lib/visibility/PolarControls.svelte';
  import RedundancyView from '$lib/visibility/RedundancyView.svelte';
  import { Sight, type LittleState } from '$lib/editor/sight.svelte';
  import DirectionDetails from '$lib/visibility/DirectionDetails.svelte';
  import WorstCases from '$lib/visibility/WorstCases.svelte';

  const editor = getEditor()();
  const sight = new Sight();
  onDestroy(() => sight.end());

  const LOOKS = [
    { value: 'ring', text: 'Polar' },
    { value: 'map', text: 'Direction map' },
    { value: 'approaches', text: 'Sight distance' },
    { value: 'corner', text: 'Junction' },
    { value: 'ground', text: 'Scene light' },
    { value: 'eyes', text: 'Glare and fog' },
    { value: 'eye', text: '3D view' },
    { value: 'spare', text: 'Redundancy' },
  ] as const;
  type Look = (typeof LOOKS)[number]['value'];
  let look = $state<Look>('ring');
  let quantity = $state<MapQuantity>('power');
  let mapsBy = $state<'state' | 'open' | 'function'>('state');
  let chosen = $state.raw<Approach | null>(null);
  let opticalRangeM = $state(80);
  let junction = $state.raw<Junction>(USUAL_JUNCTION);

  const looked = $derived({ build: editor.seen, state: editor.state, round: sight.round });
  const bearing = $derived(editor.bearing);
  const options = $derived(editor.ringOptions);
  const answer = $derived(editor.ring.answer);
  const gaps = $derived(answer === null ? [] : gapsOf(answer.ring, answer.floor, options.colour));
  const asksNothing = $derived(
    answer !== null && options.colour === null && answer.floor.every((v) => v === 0),
  );
  const values = $derived(quantity === 'power' ? answer?.ring.powerCdsPerMin : answer?.ring.effectiveCd);
  const floor = $derived(quantity === 'power' && options.colour === null ? (answer?.floor ?? null) : null);

  /** Coming nearer in every weather is worked out at once: the worst of it stands above every view. */
  const usual = $derived(usualApproaches(editor.build.brief.duty));
  const list = $derived([...editor.build.approaches, ...usual]);
  $effect(() => void sight.approaches.run({ looked, list }));
  const rows = $derived(sight.approaches.answer?.rows ?? []);
  const worst = $derived(rows[0]);
  const approach = $derived(rows.find((row) => row.approach.id === chosen?.id)?.approach ?? worst?.approach);
  $effect(() => {
    if (look === 'approaches' && approach !== undefined && !sight.approaches.running)
      void sight.approach.run({ looked, approach });
  });
  /** The states of the little maps: as it stands with each thing open, or each function by itself. */
  const littleStates = $derived.by((): readonly LittleState[] => {
    const { seen: build, state } = editor;
    return mapsBy === 'open'
      ? posesOf(build).map((open) => ({ title: openText(build, open), state: { ...state, open } }))
      : checkedFunctionSets(build).map((on) => {
          const shown = stateOf(build, on, { open: state.open, ambient: state.ambient });
          return { title: activeFunctionNames(build, shown.on), state: shown };
        });
  });
  $effect(() => {
    if (look !== 'map') return;
    const { colour, level, upperAboveM } = options;
    const asked = { options: { colour, level, upperAboveM }, quantity };
    if (mapsBy === 'state') void sight.map.run({ looked, ...asked });
    else void sight.maps.run({ build: looked.build, states: littleStates, ...asked });
  });
  $effect(() => {
    if (look === 'map' || look === 'ring')
      void sight.hidden.run({
        looked,
        direction: { bearingDeg: bearing, elevationDeg: options.elevationDeg },
      });
  });
  $effect(() => {
    if (look === 'corner') void sight.junction.run({ looked, junction });
  });
  $effect(() => {
    if (look === 'ground') void sight.ground.run({ looked, stepM: 0.25 });
  });
  const built = $derived({ build: editor.build, round: sight.round });
  $effect(() => {
    if (look === 'spare') void sight.redundant.run(built);
  });
  $effect(() => {
    if (look === 'eyes') void sight.eyes.run({ looked, opticalRangeM });
  });

  function choose(value: Look): void {
    look = value;
    if (value === 'ring' && quantity === 'peak') quantity = 'power';
  }
  const failed = $derived(
    [
      sight.map,
      sight.maps,
      sight.approaches,
      sight.approach,
      sight.junction,
      sight.ground,
      sight.placeLamps,
      sight.litGround,
      sight.litScene,
      sight.eyes,
      sight.redundant,
    ].find((run) => run.error !== null)?.error ?? null,
  );
</script>

{#snippet waiting()}
  {#if !sight.stopped}<p class="quiet wait">Calculating …</p>{/if}
{/snippet}

<div class="visibility">
  <div class="top">
    <Choice label="Seen" small views options={LOOKS} value={look} onchoose={choose} />
    <BeforeAfter />
    <WorstCases
      {sight}
      {gaps}
      {asksNothing}
      isRingKnown={editor.isRingKnown}
      {worst}
      ongap={(gap: Sector) => {
        choose('ring');
        editor.bearing = gap.fromDeg;
      }}
      onapproach={(one: Approach) => {
        choose('approaches');
        chosen = one;
      }}
    />
  </div>
  {#if sight.stopped}
    <p class="failed" role="status">
      Stopped. The figures may belong to another state.
      <button class="plain" onclick={() => sight.again()}>Calculate</button>
    </p>
  {:else if failed !== null}
    <p class="failed" role="alert">Calculation failed: {failed.message}</p>
  {/if}
  <div class="view">
    {#if look === 'approaches'}
      {#if rows.length === 0}{@render waiting()}{:else}
        <SightDistanceView
          {sight}
          {rows}
          chosen={approach ?? null}
          onchoose={(one: Approach) => (chosen = one)}
        />
      {/if}
    {:else if look === 'corner'}
      {#if sight.junction.answer === null}{@render waiting()}{:else}
        <JunctionView
          answer={sight.junction.answer}
          {junction}
          stale={sight.junction.running}
          onset={(patch: Partial<Junction>) => (junction = { ...junction, ...patch })}
        />
      {/if}
    {:else if look === 'ground'}
      {#if sight.ground.answer === null}{@render waiting()}{:else}
        <SceneLightView {sight} {looked} answer={sight.ground.answer} stale={sight.ground.running} />
      {/if}
    {:else if look === 'spare'}
      {#if sight.redundant.answer === null}{@render waiting()}{:else}
        <RedundancyView lamps={sight.redundant.answer} stale={sight.redundant.running} />
      {/if}
    {:else if look === 'eyes'}
      {#if sight.eyes.answer === null}{@render waiting()}{:else}
        <EyesView
          answer={sight.eyes.answer}
          {opticalRangeM}
          stale={sight.eyes.running}
          onrange={(m: number) => (opticalRangeM = m)}
        />
      {/if}
    {:else}
      <PaneGroup direction="horizontal" autoSaveId="flarik-visibility" storage={paneWidths}>
        <Pane order={1} minSize={25}>
          <div class="chart">
            {#if look === 'eye'}
              <!-- Drawing in three dimensions is half of all code here: it comes when it is looked at. -->
              {#await import('$lib/view3d/View3d.svelte') then { default: View3d }}
                <View3d {sight} />
              {:catch}
                <p role="alert">The 3D view could not be loaded. Reload the page.</p>
              {/await}
            {:else}
              <PolarControls {look} bind:quantity bind:mapsBy />
              <div class="ring">
                {#if look === 'map' && mapsBy !== 'state'}
                  {#if sight.maps.answer === null}{@render waiting()}{:else}
                    <LittleMaps maps={sight.maps.answer} stale={sight.maps.running} />
                  {/if}
                {:else if look === 'map'}
                  {#if sight.map.answer === null}{@render waiting()}{:else}
                    <MapView
                      map={sight.map.answer}
                      {floor}
                      {bearing}
                      elevationDeg={options.elevationDeg}
                      stale={sight.map.running}
                      onpoint={(b: number, elevationDeg: number) => {
                        editor.bearing = b;
                        editor.ringOptions = { ...options, elevationDeg };
                      }}
                    />
                  {/if}
                {:else if editor.ring.error !== null}
                  <p role="alert">Calculation failed: {editor.ring.error.message}</p>
                {:else if values === undefined}
                  <p class="quiet">Calculating …</p>
                {:else}
                  <PolarChart
                    {values}
                    {floor}
                    {gaps}
                    marked={editor.marked}
                    {bearing}
                    decades={quantity === 'power' ? [2, 6] : [0, 5]}
                    unit={quantity === 'power' ? 'cd·s/min' : 'cd'}
                    stale={!editor.isRingKnown}
                    hidden={sight.hidden.answer ?? []}
                    onpoint={(b: number) => (editor.bearing = b)}
                  />
                {/if}
              </div>
            {/if}
          </div>
        </Pane>
        <SidePane name="Direction details" side="right" share={27} least={18}>
          <DirectionDetails {gaps} hidden={look === 'eye' ? [] : (sight.hidden.answer ?? [])} />
        </SidePane>
      </PaneGroup>
    {/if}
  </div>
</div>

<style>
  .visibility {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
    height: 100%;
    min-height: 0;
    background: var(--sheet);
  }

  .view {
    grid-row: 3;
    min-height: 0;
  }

  .top {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.25rem;
    align-items: center;
    padding: 0.3rem 0.75rem;
  }

  .wait {
    padding: 0.75rem;
  }

  .failed {
    padding: 0.25rem 0.75rem;
    color: var(--gap);
  }

  .chart {
    display: flex;
    flex-direction: column;
    height: 100%;
    background: var(--sheet);
  }

  .ring {
    flex: 1;
    min-height: 0;
    display: grid;
  }
</style>
