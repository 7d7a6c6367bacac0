<script lang="ts">
  import type { Colour } from '@flarik/core/words/colour';
  import { LUMINANCE_USED_TO, thresholdIncrement, type Glare } from '@flarik/core/sight/glare';
  import { LUMINANCE_AROUND } from '@flarik/core/sight/approach';
  import type { LightAround } from '@flarik/core/words/weather';
  import { addOwn, setFinish, setTraffic } from '@flarik/core/design/ownEdits';
  import type { TrafficSide } from '@flarik/core/design/site';
  import { ownEyeId } from '@flarik/core/sight/stations';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import Beside from './Beside.svelte';
  import FigureField from '$lib/ui/FigureField.svelte';
  import LampList from './LampList.svelte';
  import Choice from '$lib/frame/Choice.svelte';
  import EyeEdit from './EyeEdit.svelte';
  import type { EyesAnswer } from '$lib/workers/sight.worker';

  /** What the light does to eyes near the vehicle: glare, and what fog throws back to its own driver. */
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
  const labels = $derived(new Map(editor.build.placements.map((p) => [p.id, p.label])));
  /** At dusk the lamps burn as by day. */
  let dusk = $state(false);
  const around = $derived<LightAround>(editor.state.ambient === 'night' ? 'night' : dusk ? 'dusk' : 'day');
  const arounds = [
    { value: 'day', text: 'day' },
    { value: 'dusk', text: 'dusk' },
  ] as const;
  const RANGES = ['50', '80', '200'].map((value) => ({ value, text: `${value} m` }));

  const ti = ({ highest }: Pick<Glare, 'highest'>): number =>
    thresholdIncrement(highest, LUMINANCE_USED_TO[around]);
  const lanes = $derived(
    answer.lanes.map(({ lane, points }) => {
      const worst = points.reduce((a, b) => (ti(b.glare) > ti(a.glare) ? b : a));
      return { lane, points, worst, most: Math.max(1, ...points.map(({ glare }) => ti(glare))) };
    }),
  );
  const LANE = {
    oncoming: 'Oncoming driver, next lane',
    following: 'Following driver, same lane',
  } as const;
  const veil = $derived(answer.veil);
  const fogLuminance = $derived(LUMINANCE_AROUND[around]);
  const small = (v: number): string =>
    v === 0 ? '0' : v < 0.01 ? '< 0.01' : v < 10 ? v.toFixed(2) : v.toFixed(0);
  const whoOf = ({ byLamp }: Pick<Glare, 'byLamp'>): string =>
    byLamp
      .slice(0, 2)
      .map(
        ({ placementId, share }) => `${labels.get(placementId) ?? placementId} ${Math.round(share * 100)} %`,
      )
      .join(', ');
  /** The brightest surfaces, and those besides of which the build says how much they throw back. */
  const lit = $derived(answer.bounces.slice(0, 6));
  const dark = $derived(
    editor.build.finishes.filter(({ surface }) => !lit.some((bounce) => bounce.surface === surface)),
  );
  const isSaid = (surface: string): boolean =>
    editor.build.finishes.some((finish) => finish.surface === surface);
  const setBack = (surface: string, percent: number | null): void =>
    editor.edit(`What ${surface} throws back`, (b) => setFinish(b, surface, percent));
  const WHITE: Colour = 'white';
  const TRAFFIC = [
    { value: 'right', text: 'right' },
    { value: 'left', text: 'left' },
  ] as const;
  let chosenId = $state<string | null>(null);
  const chosen = $derived(editor.build.eyes.find(({ id }) => id === chosenId));
  const ownOf = (stationId: string) => editor.build.eyes.find(({ id }) => ownEyeId(id) === stationId);

  /** One who stands at the right front corner and looks back along the vehicle: put right at once. */
  const NEW_EYE = { name: 'Another eye', xM: 3, yM: -2, zM: 1.6, lookDeg: 180, upDeg: 0 };
  function addEye(): void {
    const id = freshId('eye');
    editor.edit('Add an eye', (b) => addOwn(b, 'eyes', { ...NEW_EYE, id }));
    chosenId = id;
  }
</script>

{#snippet finish(surface: string, reflectance: number)}
  <td>
    {surface}
    {#if isSaid(surface)}
      <button
        class="link"
        aria-label="Let {surface} throw back as usual"
        onclick={() => setBack(surface, null)}>as usual</button
      >
    {/if}
  </td>
  <td class="figure">
    <FigureField
      label="{surface} throws back, %"
      value={Math.round(reflectance * 100)}
      min={0}
      max={95}
      whole={true}
      onset={(percent: number) => setBack(surface, percent)}
    /> %
  </td>
{/snippet}

<Beside label="Thrown back by fog" {stale}>
  <section aria-label="Glare">
    <div class="head">
      <h2>Glare</h2>
      {#if around === 'night'}<span>at night</span>{:else}
        <Choice
          label="Light around"
          small
          options={arounds}
          value={around}
          onchoose={(v: 'day' | 'dusk') => (dusk = v === 'dusk')}
        />
      {/if}
      <span class="quiet">an eye used to {LUMINANCE_USED_TO[around]} cd/m²</span>
      <span class="side">Traffic keeps</span>
      <Choice
        label="Traffic keeps"
        small
        options={TRAFFIC}
        value={editor.build.traffic}
        onchoose={(side: TrafficSide) => editor.edit(`Traffic keeps ${side}`, (b) => setTraffic(b, side))}
      />
    </div>
    <div class="lanes">
      {#each lanes as { lane, points, worst, most } (lane)}
        <figure aria-label={LANE[lane]}>
          <figcaption>
            {LANE[lane]}: worst <strong>{small(ti(worst.glare))} %</strong> more contrast needed,
            {worst.distanceM} m off
            <span class="quiet">{whoOf(worst.glare)}</span>
          </figcaption>
          <svg viewBox="0 0 210 60" preserveAspectRatio="none" aria-hidden="true">
            {#each points as { distanceM, glare } (distanceM)}
              <rect
                class:worst={distanceM === worst.distanceM}
                x={distanceM - 4}
                y={58 - (ti(glare) / most) * 54}
                width="8"
                height={(ti(glare) / most) * 54}
              />
            {/each}
          </svg>
          <p class="quiet axis"><span>10 m</span><span>100 m</span><span>200 m</span></p>
        </figure>
      {/each}
    </div>
    <table>
      <thead>
        <tr
          ><th>Eye</th><th>veil, cd/m²</th><th>more contrast</th><th>at the eye, lx</th><th>most from</th></tr
        >
      </thead>
      <tbody>
        {#each answer.stations as { station, glare } (station.id)}
          <tr>
            <td>
              {#if ownOf(station.id) === undefined}{station.name}{:else}
                {@const own = ownOf(station.id)?.id ?? null}
                <button
                  class="link"
                  aria-pressed={own === chosenId}
                  onclick={() => (chosenId = own === chosenId ? null : own)}>{station.name}</button
                >
              {/if}
            </td>
            <td class="figure">{small(glare.highest)}</td>
            <td class="figure">{small(ti(glare))} %</td>
            <td class="figure">{small(glare.eyeLx)}</td>
            <td class="who">{whoOf(glare)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if chosen !== undefined}<EyeEdit one={chosen} />{/if}
    <button class="link" onclick={addEye}>Add an eye</button>
    {#if lit.length > 0 || dark.length > 0}
      <table aria-label="Lit surfaces before the driver">
        <thead>
          <tr
            ><th>Lit before the driver</th><th>throws back</th><th>brightest, cd/m²</th><th>mean</th><th
              >seen at</th
            ><th>most from</th></tr
          >
        </thead>
        <tbody>
          {#each lit as bounce (bounce.surface)}
            <tr>
              {@render finish(bounce.surface, bounce.reflectance)}
              <td class="figure">{small(bounce.highest)}</td>
              <td class="figure">{small(bounce.mean)}</td>
              <td class="figure">{bounce.bearingDeg}°, {bounce.elevationDeg}°</td>
              <td class="who">{whoOf(bounce)}</td>
            </tr>
          {/each}
          {#each dark as { surface, percent } (surface)}
            <tr>
              {@render finish(surface, percent / 100)}
              <td class="figure quiet">hardly lit</td>
              <td colspan="3"></td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    {#if answer.reflections.length > 0}
      <table aria-label="Own lamps in glass and mirrors, seen by the driver">
        <thead>
          <tr
            ><th>Seen in own glass and mirrors</th><th>veil, cd/m²</th><th>more contrast</th><th
              >at the eye, lx</th
            ><th>seen at</th><th>most from</th></tr
          >
        </thead>
        <tbody>
          {#each answer.reflections.slice(0, 6) as reflection (reflection.mirror)}
            <tr>
              <td>{reflection.mirror}</td>
              <td class="figure">{small(reflection.highest)}</td>
              <td class="figure">{small(ti(reflection))} %</td>
              <td class="figure">{small(reflection.eyeLx)}</td>
              <td class="figure"
                >{Math.round(reflection.bearingDeg)}°, {Math.round(reflection.elevationDeg)}°</td
              >
              <td class="who">{whoOf(reflection)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
  </section>
  {#snippet says()}
    <h2>Thrown back by fog to the driver</h2>
    <Choice
      label="Seen through the fog, m"
      small
      options={RANGES}
      value={String(opticalRangeM)}
      onchoose={(v: string) => onrange(Number(v))}
    />
    {#if veil === null}
      <p class="quiet">This body has no driver’s seat.</p>
    {:else}
      <dl>
        <dt>At the highest instant</dt>
        <dd class="figure">{small(veil.highest)} cd/m²</dd>
        <dt>As a mean</dt>
        <dd class="figure">{small(veil.mean)} cd/m²</dd>
        <dt>Without {WHITE}, highest</dt>
        <dd class="figure">{small(veil.highest - veil.white.highest)} cd/m²</dd>
        <dt>Against the fog’s own {fogLuminance} cd/m², {around}</dt>
        <dd class="figure">× {small(veil.highest / fogLuminance)}</dd>
      </dl>
      <h2>By lamp</h2>
      <LampList
        rows={veil.byLamp.slice(0, 8).map(({ placementId, highest }) => ({
          placementId,
          figure: `${Math.round((100 * highest) / veil.highest)} %`,
        }))}
      />
    {/if}
    <p class="quiet small">
      Glare after CIE 146 at the highest instant, all clocks at theirs; lamps within 1.5° of the view count as
      at 1.5°. Fog by single scattering, as a mean over ±10° × ±5° straight ahead. Design figures, not
      measurements; flashing can harm people who are sensitive to it, whatever stands here.
    </p>
  {/snippet}
</Beside>

<style>
  .link {
    font-size: 13px;
  }

  section {
    display: grid;
    align-content: start;
    gap: 0.6rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  .head {
    display: flex;
    gap: 1rem;
    align-items: center;
  }

  .side {
    margin-left: auto;
    font-size: 13px;
  }

  .lanes {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 1rem;
  }

  figure {
    margin: 0;
    font-size: 13px;
  }

  figcaption {
    min-height: 3.6em;
    line-height: 1.35;
  }

  figcaption .quiet {
    display: block;
  }

  figure svg {
    width: 100%;
    height: 110px;
    border-bottom: 1px solid var(--sheet-line);
  }

  rect {
    fill: var(--accent);
  }

  rect.worst {
    fill: var(--gap);
  }

  .axis {
    display: flex;
    justify-content: space-between;
    font-size: 12px;
  }

  table {
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.25rem 0.4rem;
    text-align: right;
  }

  th {
    color: var(--cds-text-02);
    font-weight: 400;
  }

  th:first-child,
  td:first-child,
  th:last-child,
  .who {
    text-align: left;
  }

  td {
    border-top: 1px solid var(--sheet-line);
  }

  dd {
    text-align: right;
  }
</style>
