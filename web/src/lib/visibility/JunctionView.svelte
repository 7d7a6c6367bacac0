<script lang="ts">
  import { TRAFFIC_SIDES, type TrafficSide } from '@flarik/core/design/site';
  import type { Junction, JunctionResult } from '@flarik/core/sight/junction';
  import { outlineOf } from '@flarik/core/sight/stations';
  import { firstSeenText } from '@flarik/core/sight/words';
  import { LIGHTS_AROUND } from '@flarik/core/words/weather';
  import { getEditor } from '$lib/editor/context';
  import ViewPicture from '$lib/sheet/ViewPicture.svelte';
  import FigureField from '$lib/ui/FigureField.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import Beside from './Beside.svelte';
  import LampList from './LampList.svelte';

  /** When one who comes along a crossing road first sees the vehicle past the corner of a wall, from above, the front up. */
  let {
    answer,
    junction,
    stale,
    onset,
  }: {
    answer: JunctionResult;
    junction: Junction;
    stale: boolean;
    onset: (patch: Partial<Junction>) => void;
  } = $props();
  const editor = getEditor()();
  /** Half a lane, m. */
  const HALF_LANE_M = 1.75;
  const ROOM_M = 3;
  const outline = $derived(outlineOf(editor.vehicle));
  const longM = $derived(outline.frontX - outline.rearX);
  /** Where the nose is looked at; where light is first seen when not said, m before the line. */
  let chosenM = $state<number | null>(null);
  const mostM = $derived(Math.ceil(Math.max(10, (answer.noseM ?? 0) + 2, junction.cornerBackM + 2)));
  const noseM = $derived(Math.min(mostM, chosenM ?? answer.noseM ?? 0));
  const seen = $derived(answer.byLamp.filter((lamp) => lamp.noseM !== null && lamp.noseM >= noseM - 0.005));
  const labels = $derived(new Map(editor.build.placements.map((p) => [p.id, p.label])));

  const side = $derived(junction.from === 'left' ? -1 : 1);
  const eyeX = $derived(side * junction.eyeAlongM);
  const cornerX = $derived(side * junction.cornerAsideM);
  const beyondM = $derived(junction.cornerAsideM + 2);
  const left = $derived(Math.min(eyeX, -beyondM) - ROOM_M);
  const right = $derived(Math.max(eyeX, beyondM) + ROOM_M);
  const top = -HALF_LANE_M - ROOM_M;
  const bottom = $derived(noseM + longM + ROOM_M);
  /** From body axes: the front up, the nose so far below the line. */
  const x = (y: number): number => -y;
  const y = (ahead: number): number => noseM + outline.frontX - ahead;
  const first = $derived(seen[0] ?? answer.byLamp[0]);
</script>

<Beside label="Crossing driver" {stale}>
  <figure>
    <svg
      viewBox="{left} {top} {right - left} {bottom - top}"
      role="img"
      aria-label="Plan of the vehicle approaching a crossing past a wall; the values are listed beside it"
    >
      <rect class="road" x={left} y={-HALF_LANE_M} width={right - left} height={2 * HALF_LANE_M} />
      <rect class="road" x={-HALF_LANE_M} y={top} width={2 * HALF_LANE_M} height={bottom - top} />
      <line class="line" x1={left} y1="0" x2={right} y2="0" />
      <rect
        class="wall"
        x={side < 0 ? left : cornerX}
        y={junction.cornerBackM}
        width={side < 0 ? cornerX - left : right - cornerX}
        height={Math.max(0, bottom - junction.cornerBackM)}
      />
      <g transform="matrix(0 -1 -1 0 0 {noseM + outline.frontX})">
        <ViewPicture vehicle={editor.vehicle} view="plan" open={editor.open} />
      </g>
      {#if first !== undefined}
        <line
          class="sight"
          class:hidden={seen.length === 0}
          x1={eyeX}
          y1="0"
          x2={x(first.lens[1])}
          y2={y(first.lens[0])}
        />
      {/if}
      {#each answer.byLamp as lamp (lamp.placementId)}
        <circle
          class="lamp"
          class:seen={seen.includes(lamp)}
          class:on={editor.selection.has(lamp.placementId)}
          cx={x(lamp.lens[1])}
          cy={y(lamp.lens[0])}
          r="0.14"
        />
      {/each}
      <circle class="eye" cx={eyeX} cy="0" r="0.5" />
      <text transform="translate({eyeX} {-HALF_LANE_M - 0.5}) scale(0.07)">eye</text>
    </svg>
    <figcaption>
      <label
        >Front bumper <strong class="figure">{noseM.toFixed(1)} m</strong> before the crossing line
        <input
          type="range"
          aria-label="Front bumper before the crossing line, m"
          min="0"
          max={mostM}
          step="0.1"
          value={noseM}
          oninput={({ currentTarget }) => (chosenM = currentTarget.valueAsNumber)}
        /></label
      >
      {#if chosenM !== null}<button class="link" onclick={() => (chosenM = null)}
          >First visible position</button
        >{/if}
      <span class="quiet" role="status"
        >{seen.length === 0
          ? 'no lamp is visible separately'
          : `${seen.length} of ${answer.byLamp.length} lit lamps are visible`}</span
      >
    </figcaption>
  </figure>
  {#snippet says()}
    <h2>Crossing driver from the {junction.from}</h2>
    {#if answer.byLamp.length === 0}
      <p class="none">No lamp is lit in this state.</p>
    {:else}
      <p class:late={answer.noseM === null}>
        The vehicle is <strong>{firstSeenText(answer)}</strong>{answer.noseM === null
          ? ''
          : `, past a wall that ends ${junction.cornerBackM} m before it`}.
      </p>
    {/if}
    <p class="sentence">
      Crossing driver from the
      <InlineChoice
        label="Comes from the"
        options={TRAFFIC_SIDES.map((value) => ({ value, text: value }))}
        value={junction.from}
        onset={(from: TrafficSide) => onset({ from })}
      />, the eye
      <FigureField
        label="Eye along the crossing road, m"
        value={junction.eyeAlongM}
        min={Math.max(2, junction.cornerAsideM + 0.1)}
        max={200}
        whole={false}
        onset={(eyeAlongM: number) => onset({ eyeAlongM })}
      /> m from the crossing and
      <FigureField
        label="Height of the eye, m"
        value={junction.eyeM}
        min={0.3}
        max={4}
        whole={false}
        onset={(eyeM: number) => onset({ eyeM })}
      /> m up; the wall ends
      <FigureField
        label="Wall ends before the line, m"
        value={junction.cornerBackM}
        min={0}
        max={30}
        whole={false}
        onset={(cornerBackM: number) => onset({ cornerBackM })}
      /> m before the crossing line and is
      <FigureField
        label="Wall beside the middle of the vehicle, m"
        value={junction.cornerAsideM}
        min={1}
        max={Math.min(30, junction.eyeAlongM - 0.1)}
        whole={false}
        onset={(cornerAsideM: number) => onset({ cornerAsideM })}
      /> m beside the vehicle’s centre line;
      <InlineChoice
        label="Light around the crossing"
        options={LIGHTS_AROUND.map((value) => ({ value, text: value === 'day' ? 'by day' : `at ${value}` }))}
        value={junction.around}
        onset={(around: Junction['around']) => onset({ around })}
      />, detected from
      <FigureField
        label="Multiple of the detection threshold"
        value={junction.noticing}
        min={1}
        max={1000}
        whole={false}
        onset={(noticing: number) => onset({ noticing })}
      /> times the detection threshold.
    </p>
    {#if answer.byLamp.length > 0}
      <h2>By lamp: bumper position at first sight</h2>
      <LampList
        rows={answer.byLamp
          .filter((lamp) => lamp.noseM !== null)
          .slice(0, 12)
          .map((lamp) => ({ placementId: lamp.placementId, figure: `${(lamp.noseM ?? 0).toFixed(2)} m` }))}
      />
      {@const unseen = answer.byLamp.filter((lamp) => lamp.noseM === null)}
      {#if unseen.length > 0}
        <p class="quiet">
          Not visible separately before the bumper reaches the line: {unseen
            .slice(0, 4)
            .map(({ placementId }) => labels.get(placementId) ?? 'deleted lamp')
            .join(', ')}{unseen.length > 4 ? `, and ${unseen.length - 4} more` : ''}.
        </p>
      {/if}
    {/if}
    <p class="quiet small">
      Straight sight lines, level ground, clear air, wall higher than lamps and eyes. Design value, not a
      measurement. Visible light may go unnoticed and gives no right of way.
    </p>
  {/snippet}
</Beside>

<style>
  figure {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    margin: 0;
    padding: 0.5rem 0.75rem;
    min-height: 0;
  }

  svg {
    width: 100%;
    height: 100%;
    min-height: 0;
  }

  figcaption {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1rem;
    align-items: center;
    font-size: 13px;
  }

  label {
    display: flex;
    gap: 0.5rem;
    align-items: center;
  }

  input[type='range'] {
    width: 14rem;
    accent-color: var(--accent);
  }

  .figure {
    min-width: 3.4rem;
    text-align: right;
  }

  .road {
    fill: var(--cds-ui-02);
  }

  .line {
    stroke: var(--cds-text-02);
    stroke-dasharray: 6 5;
    vector-effect: non-scaling-stroke;
  }

  .wall {
    fill: var(--cds-ui-04);
    stroke: var(--cds-text-02);
    vector-effect: non-scaling-stroke;
  }

  .sight {
    stroke: var(--accent);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }

  .sight.hidden {
    stroke: var(--gap);
    stroke-dasharray: 3 4;
  }

  .lamp {
    fill: var(--cds-ui-01);
    stroke: var(--cds-text-02);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }

  .lamp.seen {
    fill: var(--on);
    stroke: var(--cds-text-01);
  }

  .lamp.on {
    stroke: var(--accent);
    stroke-width: 2.5;
  }

  .eye {
    fill: var(--accent);
  }

  text {
    fill: var(--cds-text-01);
    font-size: 14px;
    text-anchor: middle;
  }

  .sentence {
    line-height: 2.1;
  }

  .sentence :global(input[type='number']) {
    width: 4.4rem;
  }

  .late {
    color: var(--gap);
  }
</style>
