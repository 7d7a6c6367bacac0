<script lang="ts">
  import { gapsOf, whereabouts } from '@flarik/core/coverage/gaps';
  import { MAP_QUANTITIES, type MapQuantity } from '@flarik/core/coverage/map';
  import type { LampHeight } from '@flarik/core/coverage/ring';
  import { sectorText } from '@flarik/core/coverage/sectors';
  import type { Approach } from '@flarik/core/design/approach';
  import { onText } from '@flarik/core/design/controls';
  import { USUAL_JUNCTION, type Junction } from '@flarik/core/sight/junction';
  import { USUAL_APPROACHES } from '@flarik/core/sight/usualApproaches';
  import { checkedOns, openText, posesOf, stateOf } from '@flarik/core/state/state';
  import { approachText } from '@flarik/core/sight/words';
  import { Colour, colourLetter } from '@flarik/core/words/colour';
  import { Pane, PaneGroup } from 'paneforge';
  import { onDestroy } from 'svelte';
  import { getEditor } from '$lib/editor/context';
  import BeforeAfter from '$lib/frame/BeforeAfter.svelte';
  import Choice from '$lib/frame/Choice.svelte';
  import { paneWidths } from '$lib/ui/remember';
  import SidePane from '$lib/ui/SidePane.svelte';
  import ApproachesView from '$lib/visibility/ApproachesView.svelte';
  import EyesView from '$lib/visibility/EyesView.svelte';
  import JunctionView from '$lib/visibility/JunctionView.svelte';
  import GroundView from '$lib/visibility/GroundView.svelte';
  import LittleMaps from '$lib/visibility/LittleMaps.svelte';
  import MapView from '$lib/visibility/MapView.svelte';
  import RingChart from '$lib/visibility/RingChart.svelte';
  import SpareLamps from '$lib/visibility/SpareLamps.svelte';
  import { Sight, type LittleState } from '$lib/visibility/sight.svelte';
  import Toward from '$lib/visibility/Toward.svelte';

  const editor = getEditor()();
  const sight = new Sight();
  onDestroy(() => sight.end());

  const LOOKS = [
    { value: 'ring', text: 'Ring' },
    { value: 'map', text: 'All directions' },
    { value: 'approaches', text: 'Seen in time' },
    { value: 'corner', text: 'Blind corner' },
    { value: 'ground', text: 'Ground' },
    { value: 'eyes', text: 'Glare and fog' },
    { value: 'eye', text: 'By eye' },
    { value: 'spare', text: 'To spare' },
  ] as const;
  type Look = (typeof LOOKS)[number]['value'];
  let look = $state<Look>('ring');
  let quantity = $state<MapQuantity>('power');
  let mapsBy = $state<'state' | 'open' | 'function'>('state');
  const MAPS_BY = [
    { value: 'state', text: 'This state' },
    { value: 'open', text: 'By what is open' },
    { value: 'function', text: 'By function' },
  ] as const;
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
  const list = $derived([...editor.build.approaches, ...USUAL_APPROACHES]);
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
      : checkedOns(build).map((on) => {
          const shown = stateOf(build, on, { open: state.open, ambient: state.ambient });
          return { title: onText(build, shown.on), state: shown };
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

  const QUANTITIES: Readonly<Record<MapQuantity, string>> = {
    power: 'Optical power',
    effective: 'Effective intensity',
    peak: 'Peak',
  };
  const quantities = $derived(
    MAP_QUANTITIES.filter((value) => look === 'map' || value !== 'peak').map((value) => ({
      value,
      text: QUANTITIES[value],
    })),
  );
  const levels: readonly { value: LampHeight; text: string }[] = [
    { value: 'any', text: 'All' },
    { value: 'upper', text: 'Upper' },
    { value: 'lower', text: 'Lower' },
  ];
  const colours = ['all', ...Colour.options].map((value) => {
    const colour = Colour.safeParse(value);
    return { value, text: colour.success ? colourLetter[colour.data] : 'All', title: value };
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
      sight.litGround,
      sight.eyes,
      sight.redundant,
    ].find((run) => run.error !== null)?.error ?? null,
  );
</script>

{#snippet waiting()}
  {#if !sight.stopped}<p class="quiet wait">Working it out …</p>{/if}
{/snippet}

<div class="visibility">
  <div class="top">
    <Choice label="Seen" small options={LOOKS} value={look} onchoose={choose} />
    <BeforeAfter />
    <p class="worst">
      {#if gaps[0] !== undefined}
        {@const [gap] = gaps}
        <button
          onclick={() => {
            choose('ring');
            editor.bearing = gap.fromDeg;
          }}
          ><span aria-hidden="true">▨</span> Gap {whereabouts(gap)}, {sectorText(gap)}{gaps.length > 1
            ? `, and ${gaps.length - 1} more`
            : ''}</button
        >
      {:else if answer !== null}
        <span class="quiet">{asksNothing ? 'No floor is asked of the ring' : 'No gap in the ring'}</span>
      {/if}
      {#if worst !== undefined}
        <button
          class:late={worst.sightings[0].marginS < 0}
          onclick={() => {
            choose('approaches');
            chosen = worst.approach;
          }}>{approachText(worst)}</button
        >
      {:else if !sight.stopped}
        <span class="quiet">Approaches: working them out …</span>
      {/if}
      {#if sight.progress !== null}
        <span class="quiet" role="status">{Math.round(sight.progress * 100)} %</span>
        <button class="plain" onclick={() => sight.stop()}>Stop</button>
      {/if}
    </p>
  </div>
  {#if sight.stopped}
    <p class="failed" role="status">
      Stopped: what is shown may be of another state.
      <button class="plain" onclick={() => sight.again()}>Work it out</button>
    </p>
  {:else if failed !== null}
    <p class="failed" role="alert">Not worked out: {failed.message}</p>
  {/if}
  <div class="view">
    {#if look === 'approaches'}
      {#if rows.length === 0}{@render waiting()}{:else}
        <ApproachesView
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
        <GroundView answer={sight.ground.answer} stale={sight.ground.running} />
      {/if}
    {:else if look === 'spare'}
      {#if sight.redundant.answer === null}{@render waiting()}{:else}
        <SpareLamps lamps={sight.redundant.answer} stale={sight.redundant.running} />
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
              {#await import('$lib/night/NightView.svelte') then { default: NightView }}
                <NightView {sight} />
              {:catch}
                <p role="alert">The view by eye could not be fetched. Load the page again.</p>
              {/await}
            {:else}
              <div class="controls">
                <Choice
                  label="Shown"
                  options={quantities}
                  value={quantity}
                  onchoose={(v: MapQuantity) => (quantity = v)}
                />
                <Choice
                  label="Colour"
                  options={colours}
                  value={options.colour ?? 'all'}
                  onchoose={(v: string) => {
                    const colour = Colour.safeParse(v);
                    editor.ringOptions = { ...options, colour: colour.success ? colour.data : null };
                  }}
                />
                <Choice
                  label="Lamps"
                  options={levels}
                  value={options.level}
                  onchoose={(level: LampHeight) => (editor.ringOptions = { ...options, level })}
                />
                {#if look === 'map'}
                  <Choice
                    label="Maps"
                    options={MAPS_BY}
                    value={mapsBy}
                    onchoose={(v: 'state' | 'open' | 'function') => (mapsBy = v)}
                  />
                {/if}
                <label class="elevation">
                  <span>Elevation <span class="figure">{options.elevationDeg}°</span></span>
                  <input
                    type="range"
                    min="-30"
                    max="60"
                    step="1"
                    value={options.elevationDeg}
                    oninput={(event) =>
                      (editor.ringOptions = { ...options, elevationDeg: Number(event.currentTarget.value) })}
                  />
                </label>
              </div>
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
                  <p role="alert">Not computed: {editor.ring.error.message}</p>
                {:else if values === undefined}
                  <p class="quiet">Computing …</p>
                {:else}
                  <RingChart
                    {values}
                    {floor}
                    {gaps}
                    marked={editor.marked}
                    {bearing}
                    decades={quantity === 'power' ? [2, 6] : [0, 5]}
                    unit={quantity === 'power' ? 'cd·s/min' : 'cd'}
                    stale={editor.ring.running}
                    hidden={sight.hidden.answer ?? []}
                    onpoint={(b: number) => (editor.bearing = b)}
                  />
                {/if}
              </div>
            {/if}
          </div>
        </Pane>
        <SidePane name="What the ring says" side="right" share={27} least={18}>
          <Toward {gaps} hidden={look === 'eye' ? [] : (sight.hidden.answer ?? [])} />
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

  .worst {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.75rem;
    align-items: center;
    font-size: 13px;
  }

  .worst button {
    padding: 0.15rem 0.5rem;
    border: 1px solid var(--sheet-line);
    background: none;
    color: var(--cds-text-01);
    font: inherit;
    text-align: left;
    cursor: pointer;
  }

  .worst button.late {
    border-color: var(--gap);
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

  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    padding: 0.25rem 0.75rem;
  }

  .elevation {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .elevation input {
    accent-color: var(--accent);
  }

  .ring {
    flex: 1;
    min-height: 0;
    display: grid;
  }
</style>
