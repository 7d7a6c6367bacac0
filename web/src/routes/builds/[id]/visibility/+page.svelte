<script lang="ts">
  import { onText } from '@flarik/core/design/controls';
  import { Pane, PaneGroup } from 'paneforge';
  import { openText } from '@flarik/core/state/state';
  import { AMBIENT_LUMINANCE, CLEAR_AIR_M, seenFromM } from '@flarik/core/coverage/range';
  import type { LampHeight } from '@flarik/core/coverage/ring';
  import { sectorText } from '@flarik/core/coverage/sectors';
  import { Colour, colourLetter } from '@flarik/core/words/colour';
  import { Button } from 'carbon-components-svelte';
  import { paneWidths } from '$lib/ui/remember';
  import SidePane from '$lib/ui/SidePane.svelte';
  import { getEditor } from '$lib/editor/context';
  import { saveIes } from '$lib/editor/saveIes';
  import Choice from '$lib/frame/Choice.svelte';
  import { gapsOf, MISSED_CD, whereabouts } from '@flarik/core/coverage/gaps';
  import NightView from '$lib/night/NightView.svelte';
  import SeenPlot from '$lib/timing/SeenPlot.svelte';
  import RingChart from '$lib/visibility/RingChart.svelte';

  const editor = getEditor()();
  /** So much time of the light toward the bearing is drawn, ms. */
  const SHOWN_MS = 2000;
  let look = $state<'ring' | 'eye'>('ring');
  const looks: readonly { value: 'ring' | 'eye'; text: string }[] = [
    { value: 'ring', text: 'Ring' },
    { value: 'eye', text: 'By eye' },
  ];
  let quantity = $state<'power' | 'effective'>('power');
  const bearing = $derived(editor.bearing);

  const answer = $derived(editor.ring.answer);
  const options = $derived(editor.ringOptions);
  const gaps = $derived(answer === null ? [] : gapsOf(answer.ring, answer.floor, options.colour));
  const asksNothing = $derived(
    answer !== null && options.colour === null && answer.floor.every((v) => v === 0),
  );
  const values = $derived(quantity === 'power' ? answer?.ring.powerCdsPerMin : answer?.ring.effectiveCd);
  const cd = $derived(answer?.ring.effectiveCd[bearing] ?? 0);
  const power = $derived(answer?.ring.powerCdsPerMin[bearing] ?? 0);
  const floor = $derived(answer?.floor[bearing] ?? 0);
  const seen = $derived(seenFromM(cd, CLEAR_AIR_M, AMBIENT_LUMINANCE[editor.state.ambient]));
  const who = $derived(answer?.byBearing[bearing] ?? []);
  const labels = $derived(new Map(editor.build.placements.map((p) => [p.id, p.label])));

  const number = new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 });
  let asideWidth = $state(300);
  const plotWidth = $derived(Math.max(160, asideWidth - 26));
  const quantities: readonly { value: 'power' | 'effective'; text: string }[] = [
    { value: 'power', text: 'Optical power' },
    { value: 'effective', text: 'Effective intensity' },
  ];
  const levels: readonly { value: LampHeight; text: string }[] = [
    { value: 'any', text: 'All' },
    { value: 'upper', text: 'Upper' },
    { value: 'lower', text: 'Lower' },
  ];
  const colours = ['all', ...Colour.options].map((value) => {
    const colour = Colour.safeParse(value);
    return { value, text: colour.success ? colourLetter[colour.data] : 'All', title: value };
  });
</script>

<PaneGroup direction="horizontal" autoSaveId="flarik-visibility" storage={paneWidths}>
  <Pane order={1} minSize={25}
    ><div class="chart">
      <div class="look">
        <Choice
          label="Seen"
          small
          options={looks}
          value={look}
          onchoose={(v: 'ring' | 'eye') => (look = v)}
        />
      </div>
      {#if look === 'eye'}
        <NightView />
      {:else}
        <div class="controls">
          <Choice
            label="Shown"
            options={quantities}
            value={quantity}
            onchoose={(v: 'power' | 'effective') => (quantity = v)}
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
          <label class="elevation">
            <span>Elevation <span class="figure">{options.elevationDeg}°</span></span>
            <input
              type="range"
              min="-10"
              max="30"
              step="1"
              value={options.elevationDeg}
              oninput={(event) =>
                (editor.ringOptions = { ...options, elevationDeg: Number(event.currentTarget.value) })}
            />
          </label>
        </div>
        <div class="ring">
          {#if editor.ring.error !== null}
            <p role="alert">Not computed: {editor.ring.error.message}</p>
          {:else if values === undefined}
            <p class="quiet">Computing …</p>
          {:else}
            <RingChart
              {values}
              floor={quantity === 'power' && options.colour === null ? (answer?.floor ?? null) : null}
              {gaps}
              marked={editor.marked}
              {bearing}
              decades={quantity === 'power' ? [2, 6] : [0, 5]}
              unit={quantity === 'power' ? 'cd·s/min' : 'cd'}
              stale={editor.ring.running}
              onpoint={(b: number) => (editor.bearing = b)}
            />
          {/if}
        </div>
      {/if}
    </div></Pane
  >
  <SidePane name="What the ring says" side="right" share={27} least={18}>
    <aside aria-label="What the ring says" bind:clientWidth={asideWidth}>
      <h2>
        Gaps
        <span class="quiet">
          {onText(editor.build, editor.state.on)}, {openText(editor.build, editor.state.open)}, {editor.state
            .ambient}
        </span>
      </h2>
      {#if asksNothing}
        <p class="quiet">The chosen packs set no floor for this stage and these lamps.</p>
      {:else if gaps.length === 0}
        <p class="good">
          ✓ No gaps: {options.colour === null
            ? 'every floor of the packs is met'
            : `${options.colour} is seen all round`} at {options.elevationDeg}°.
        </p>
      {:else}
        <ul class="gaps">
          {#each gaps as gap (gap.fromDeg)}
            <li>
              <button onclick={() => (editor.bearing = gap.fromDeg)}>
                <span aria-hidden="true">▨</span>
                {whereabouts(gap)}, {sectorText(gap)}: {options.colour === null
                  ? 'below the floor'
                  : `no ${options.colour} (below ${MISSED_CD} cd)`}
              </button>
            </li>
          {/each}
        </ul>
      {/if}
      <label class="pick">
        <h2>Toward <span class="figure">{bearing}°</span></h2>
        <input type="range" min="0" max="359" bind:value={editor.bearing} aria-label="Bearing, degrees" />
      </label>
      <SeenPlot fromMs={0} toMs={SHOWN_MS} left={0} plot={plotWidth} width={plotWidth} height={70} />
      <dl>
        <dt>Effective intensity</dt>
        <dd class="figure">{number.format(cd)} cd</dd>
        <dt>Optical power</dt>
        <dd class="figure">{number.format(power)} cd·s/min</dd>
        {#if options.colour === null}
          <dt>Floor</dt>
          <dd class="figure" class:short={power < floor}>
            {floor === 0 ? 'none' : `${number.format(floor)} cd·s/min`}
          </dd>
        {/if}
        <dt>Just seen from, clear {editor.state.ambient}</dt>
        <dd class="figure">{cd > 0 ? `${number.format(seen)} m` : 'not seen'}</dd>
      </dl>
      <h2>Who lights this direction</h2>
      {#if who.length === 0}
        <p class="quiet">No lamp reaches this bearing in this state.</p>
      {:else}
        <ol>
          {#each who as part (part.placementId)}
            <li>
              <button
                class:on={editor.selection.has(part.placementId)}
                onclick={() => editor.select([part.placementId])}
              >
                <span>{labels.get(part.placementId) ?? part.placementId}</span>
                <span class="quiet">{part.colours.join(', ')}</span>
                <span class="figure">{Math.round((part.powerCdsPerMin / Math.max(power, 1)) * 100)} %</span>
              </button>
            </li>
          {/each}
        </ol>
      {/if}
      <p class="quiet small">
        Sums for design, not a measurement. Where groups drift against each other the effective intensity is
        what is guaranteed whatever the drift. Glare at close range is not judged here.
      </p>
      <Button size="small" kind="ghost" on:click={() => saveIes(editor, null)}
        >Save the vehicle in this state as IES</Button
      >
    </aside>
  </SidePane>
</PaneGroup>

<style>
  .chart {
    display: flex;
    flex-direction: column;
    height: 100%;
    background: var(--sheet);
  }

  .look {
    padding: 0.3rem 0.75rem 0;
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

  .ring {
    flex: 1;
    min-height: 0;
    display: grid;
  }

  aside {
    display: grid;
    align-content: start;
    gap: 0.5rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  h2 span {
    font-weight: 400;
  }

  .good {
    color: var(--good);
  }

  .short {
    color: var(--gap);
    font-weight: 600;
  }

  .gaps button,
  ol button {
    display: flex;
    gap: 0.5rem;
    width: 100%;
    padding: 0.25rem 0.4rem;
    border: 1px solid transparent;
    background: none;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 13px;
    text-align: left;
    cursor: pointer;
  }

  .gaps button {
    border-color: var(--gap);
    margin-bottom: 3px;
  }

  ol button span:nth-child(2) {
    margin-left: auto;
  }

  ol button:hover,
  ol button.on {
    background: var(--cds-ui-03);
  }

  .pick {
    display: grid;
  }

  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0.25rem 0.5rem;
    font-size: 13px;
  }

  dd {
    text-align: right;
  }

  input {
    accent-color: var(--accent);
  }

  .small {
    font-size: 12px;
    line-height: 1.4;
  }
</style>
