<script lang="ts">
  import { activeFunctionNames } from '@flarik/core/design/controls';
  import { openText } from '@flarik/core/state/state';
  import { AMBIENT_LUMINANCE, CLEAR_AIR_M, seenFromM } from '@flarik/core/coverage/range';
  import { sectorText, type Sector } from '@flarik/core/coverage/sectors';
  import { Button } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { saveIes } from '$lib/editor/saveIes';
  import { MISSED_CD, positionName } from '@flarik/core/coverage/gaps';
  import type { HiddenLamp } from '@flarik/core/sight/hiders';
  import LampList from './LampList.svelte';
  import SeenPlot from '$lib/pieces/SeenPlot.svelte';
  import { reachable } from '$lib/ui/reachable';

  /** What is seen from the bearing pointed at, who lights it, and what hides the rest. */
  let { gaps, hidden }: { gaps: readonly Sector[]; hidden: readonly HiddenLamp[] } = $props();
  const editor = getEditor()();
  /** So much time of the light toward the bearing is drawn, ms. */
  const SHOWN_MS = 2000;
  const bearing = $derived(editor.bearing);
  const answer = $derived(editor.ring.answer);
  const options = $derived(editor.ringOptions);
  /** Figures of an older state or build are shown as such. */
  const stale = $derived(!editor.isRingKnown);
  const asksNothing = $derived(
    answer !== null && options.colour === null && answer.floor.every((v) => v === 0),
  );
  const cd = $derived(answer?.ring.effectiveCd[bearing] ?? 0);
  const power = $derived(answer?.ring.powerCdsPerMin[bearing] ?? 0);
  const floor = $derived(answer?.floor[bearing] ?? 0);
  const seen = $derived(seenFromM(cd, CLEAR_AIR_M, AMBIENT_LUMINANCE[editor.state.ambient]));
  const who = $derived(answer?.byBearing[bearing] ?? []);
  const number = new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 });
  let asideWidth = $state(300);
  const plotWidth = $derived(Math.max(160, asideWidth - 26));
</script>

<aside aria-label="Direction details" bind:clientWidth={asideWidth} {@attach reachable}>
  <h2>
    Gaps
    <span class="quiet">
      {activeFunctionNames(editor.build, editor.state.on)}, {openText(editor.build, editor.state.open)}, {editor
        .state.ambient}
    </span>
  </h2>
  {#if answer === null}
    <p class="quiet">Calculating …</p>
  {:else if stale && gaps.length === 0}
    <p class="quiet">Checking for gaps …</p>
  {:else if asksNothing}
    <p class="quiet">The rule packs set no minimum for this stage and these lamps.</p>
  {:else if gaps.length === 0}
    <p class="good">
      ✓ No gaps: {options.colour === null
        ? 'all minimums of the rule packs are met, all lamps counted,'
        : `${options.colour} is visible all round`} at {options.elevationDeg}°.
    </p>
  {:else}
    <ul class="gaps" class:stale>
      {#each gaps as gap (gap.fromDeg)}
        <li>
          <button onclick={() => (editor.bearing = gap.fromDeg)}>
            <span aria-hidden="true">▨</span>
            {positionName(gap)}, {sectorText(gap)}: {options.colour === null
              ? 'below the minimum'
              : `no ${options.colour} (below ${MISSED_CD} cd)`}
          </button>
        </li>
      {/each}
    </ul>
  {/if}
  <label class="pick">
    <h2>
      Toward <span class="figure">{bearing}°</span>{#if options.elevationDeg !== 0}<span class="quiet"
          >, {options.elevationDeg}° up</span
        >{/if}
    </h2>
    <input type="range" min="0" max="359" bind:value={editor.bearing} aria-label="Bearing, degrees" />
  </label>
  <SeenPlot fromMs={0} toMs={SHOWN_MS} left={0} plot={plotWidth} width={plotWidth} height={70} />
  {#if answer !== null}
    <dl class:stale>
      <dt>Effective intensity</dt>
      <dd class="figure">{number.format(cd)} cd</dd>
      <dt>Optical power</dt>
      <dd class="figure">{number.format(power)} cd·s/min</dd>
      {#if options.colour === null}
        <dt>Minimum</dt>
        <dd class="figure" class:short={power < floor}>
          {floor === 0 ? 'none' : `${number.format(floor)} cd·s/min`}
        </dd>
      {/if}
      <dt>Detection distance, clear {editor.state.ambient}</dt>
      <dd class="figure">{cd > 0 ? `${number.format(seen)} m` : 'not detected'}</dd>
    </dl>
    <h2>Lamps lighting this direction</h2>
    {#if who.length === 0}
      <p class="quiet">No lamp reaches this bearing in this state.</p>
    {:else}
      <LampList
        rows={who.map(({ placementId, colours, powerCdsPerMin }) => ({
          placementId,
          note: colours.join(', '),
          figure: `${Math.round((powerCdsPerMin / Math.max(power, 1)) * 100)} %`,
        }))}
      />
    {/if}
  {/if}
  {#if hidden.length > 0}
    <h2>Blocked toward it</h2>
    <LampList
      rows={hidden.slice(0, 5).map(({ placementId, aimedCd, arrivesCd, by }) => ({
        placementId,
        note: `by ${by}`,
        figure: `−${number.format(aimedCd - arrivesCd)} cd`,
      }))}
    />
  {/if}
  <p class="quiet small">
    Design values, not measurements. With unsynchronised clocks, the effective intensity is the guaranteed
    minimum. For glare see Glare and fog.
  </p>
  <Button size="small" kind="ghost" on:click={() => saveIes(editor, null)}>Export this state as IES</Button>
</aside>

<style>
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

  .stale {
    opacity: 0.6;
  }

  .good {
    color: var(--good);
  }

  .short {
    color: var(--gap);
    font-weight: 600;
  }

  .gaps button {
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
