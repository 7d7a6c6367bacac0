<script lang="ts">
  import { thresholdIncrement, type Glare, type Lane } from '@flarik/core/sight/glare';
  import { getEditor } from '$lib/editor/context';
  import type { LaneGlare } from '$lib/workers/sight.worker';
  import Beside from './Beside.svelte';
  import { contrastText, small, whoText, type UsedTo } from './glareText';
  import LampList from './LampList.svelte';

  /** Glare to who drives toward the vehicle, every 10 m: the other way past it, and after it in its lane. */
  let { lanes, usedTo, stale }: { lanes: readonly LaneGlare[]; usedTo: UsedTo; stale: boolean } = $props();
  const editor = getEditor()();
  const labels = $derived(new Map(editor.build.placements.map((p) => [p.id, p.label])));
  const NAMES: Readonly<Record<Lane, string>> = {
    oncoming: 'Oncoming driver, next lane',
    following: 'Following driver, same lane',
  };
  /** How much more contrast is needed, %. */
  const more = (veil: number): number => thresholdIncrement(veil, usedTo.cdPerM2);
  const rows = $derived(
    lanes.map(({ lane, points }) => ({
      lane,
      points,
      worst: points.reduce((a, b) => (b.glare.highest > a.glare.highest ? b : a)),
    })),
  );
  /** Both lanes are drawn to one scale. */
  const most = $derived(Math.max(1, ...rows.map(({ worst }) => more(worst.glare.highest))));
  let at = $state.raw<{ readonly lane: Lane; readonly distanceM: number } | null>(null);
  const worstOfAll = $derived(rows.reduce((a, b) => (b.worst.glare.highest > a.worst.glare.highest ? b : a)));
  /** The eye looked at: the worst of all, until another is chosen. */
  const looked = $derived(at ?? { lane: worstOfAll.lane, distanceM: worstOfAll.worst.distanceM });
  const glare = $derived<Glare>(
    rows
      .find(({ lane }) => lane === looked.lane)
      ?.points.find(({ distanceM }) => distanceM === looked.distanceM)?.glare ?? worstOfAll.worst.glare,
  );
  /** 200 m wide; so high, units. */
  const HIGH = 100;
  const heightOf = (veil: number): number => (more(veil) / most) * (HIGH - 4);
</script>

<Beside label="Selected driver" {stale}>
  <section aria-label="Glare to traffic">
    {#each rows as { lane, points, worst } (lane)}
      <figure aria-label={NAMES[lane]}>
        <figcaption>
          {NAMES[lane]}: highest threshold increment
          <strong>{contrastText(worst.glare.highest, usedTo)}</strong>
          at {worst.distanceM} m; average {contrastText(worst.glare.mean, usedTo)}.
          <span class="quiet">{whoText(labels, worst.glare.byLamp)}</span>
        </figcaption>
        <svg viewBox="0 0 210 {HIGH}" preserveAspectRatio="none" aria-hidden="true">
          {#each points as { distanceM, glare: one } (distanceM)}
            <rect
              class:worst={distanceM === worst.distanceM}
              class:looked={lane === looked.lane && distanceM === looked.distanceM}
              x={distanceM - 4}
              y={HIGH - heightOf(one.highest)}
              width="8"
              height={heightOf(one.highest)}
            />
            <path
              class="mean"
              d="M{distanceM - 4} {HIGH - heightOf(one.mean)}h8"
              vector-effect="non-scaling-stroke"
            />
            <rect
              class="press"
              role="presentation"
              x={distanceM - 5}
              y="0"
              width="10"
              height={HIGH}
              onpointerdown={() => (at = { lane, distanceM })}
            />
          {/each}
        </svg>
        <p class="quiet axis"><span>10 m</span><span>100 m</span><span>200 m</span></p>
      </figure>
    {/each}
    <p class="quiet key">Bars: peak. Lines in the bars: average over time.</p>
  </section>
  {#snippet says()}
    <h2>{NAMES[looked.lane]}</h2>
    <label>
      At {looked.distanceM} m
      <input
        type="range"
        min="10"
        max="200"
        step="10"
        value={looked.distanceM}
        aria-label="{NAMES[looked.lane]}, distance, m"
        oninput={({ currentTarget }) => (at = { lane: looked.lane, distanceM: currentTarget.valueAsNumber })}
      />
    </label>
    <dl>
      <dt>Veiling luminance, peak</dt>
      <dd class="figure">{small(glare.highest)} cd/m²</dd>
      <dt>Veiling luminance, average</dt>
      <dd class="figure">{small(glare.mean)} cd/m²</dd>
      <dt>Threshold increment, peak</dt>
      <dd class="figure">{contrastText(glare.highest, usedTo)}</dd>
      <dt>Threshold increment, average</dt>
      <dd class="figure">{contrastText(glare.mean, usedTo)}</dd>
      <dt>At the eye, peak</dt>
      <dd class="figure">{small(glare.eyeLx)} lx</dd>
    </dl>
    <h2>Glare by lamp</h2>
    {#if glare.byLamp.length === 0}<p class="quiet">No lamp causes glare there.</p>{/if}
    <LampList
      rows={glare.byLamp.slice(0, 8).map(({ placementId, share }) => ({
        placementId,
        figure: `${Math.round(100 * share)} %`,
      }))}
    />
    <p class="quiet small">
      CIE 146, every 10 m, line of sight along the lane, all clocks at their worst alignment. Lamps within
      1.5° count as at 1.5°; lamps beyond 60° are excluded. Shares are of the average. Design values, not
      measurements. Flashing light can harm photosensitive people, regardless of these figures.
    </p>
  {/snippet}
</Beside>

<style>
  section {
    display: grid;
    grid-template-rows: 1fr 1fr auto;
    gap: 0.75rem;
    min-height: 0;
    padding: 0.5rem 0.75rem;
  }

  figure {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto;
    margin: 0;
    min-height: 0;
    font-size: 13px;
  }

  figcaption {
    padding-bottom: 0.3rem;
    line-height: 1.35;
  }

  figcaption .quiet {
    display: block;
  }

  svg {
    width: 100%;
    height: 100%;
    min-height: 60px;
    border-bottom: 1px solid var(--sheet-line);
  }

  rect {
    fill: var(--accent);
  }

  rect.worst {
    fill: var(--gap);
  }

  rect.looked {
    stroke: var(--cds-text-01);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }

  rect.press {
    fill: transparent;
    cursor: pointer;
  }

  .mean {
    stroke: var(--sheet);
    stroke-width: 2;
  }

  .axis {
    display: flex;
    justify-content: space-between;
    font-size: 12px;
  }

  .key {
    font-size: 12px;
  }

  dd {
    text-align: right;
  }

  label {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.75rem;
    align-items: center;
  }

  input {
    accent-color: var(--accent);
  }
</style>
