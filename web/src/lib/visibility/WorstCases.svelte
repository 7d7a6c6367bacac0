<script lang="ts">
  import { positionName } from '@flarik/core/coverage/gaps';
  import { sectorText, type Sector } from '@flarik/core/coverage/sectors';
  import type { Approach } from '@flarik/core/design/approach';
  import { approachText } from '@flarik/core/sight/words';
  import type { Sight } from '$lib/editor/sight.svelte';

  /** What matters first, above every view: the worst gap of the ring and the worst approach; each leads to its picture. */
  let {
    sight,
    gaps,
    asksNothing,
    isRingKnown,
    worst,
    ongap,
    onapproach,
  }: {
    sight: Sight;
    gaps: readonly Sector[];
    /** No rule asks for light all round. */
    asksNothing: boolean;
    /** The ring is that of the build and state looked at. */
    isRingKnown: boolean;
    worst: Parameters<typeof approachText>[0] | undefined;
    ongap: (gap: Sector) => void;
    onapproach: (approach: Approach) => void;
  } = $props();

  /** A run of bearings on a circle of 9, the front up. */
  function arc(fromDeg: number, toDeg: number): string {
    const span = (toDeg - fromDeg + 360) % 360;
    // A whole circle has no ends to be drawn between.
    const to = span === 359 ? 358.9 : span;
    const at = (deg: number): string => {
      const turn = (deg * Math.PI) / 180;
      return `${(9 * Math.sin(turn)).toFixed(2)} ${(-9 * Math.cos(turn)).toFixed(2)}`;
    };
    return `M${at(fromDeg)}A9 9 0 ${to > 180 ? 1 : 0} 1 ${at(fromDeg + to)}`;
  }
  /** From how far it is seen and from how far it should be, as shares of the farther. */
  const farM = $derived(worst === undefined ? 1 : Math.max(worst.sightings[0].seenM, worst.neededM));
  const seenShare = $derived((worst?.sightings[0].seenM ?? 0) / farM);
  const neededShare = $derived((worst?.neededM ?? 0) / farM);
</script>

<p class="worst">
  {#if gaps[0] !== undefined}
    {@const [gap] = gaps}
    <button class:stale={!isRingKnown} onclick={() => ongap(gap)}
      ><svg class="ring" viewBox="-12 -12 24 24" aria-hidden="true">
        <circle r="9" />
        {#each gaps as { fromDeg, toDeg } (fromDeg)}<path d={arc(fromDeg, toDeg)} />{/each}
        <path class="nose" d="M-3 2L0 -5L3 2z" />
      </svg>
      Gap {positionName(gap)}, {sectorText(gap)}{gaps.length > 1
        ? `, and ${gaps.length - 1} more`
        : ''}</button
    >
  {:else if isRingKnown}
    <span class="quiet">{asksNothing ? 'No minimum for this state' : 'No gap'}</span>
  {/if}
  {#if worst !== undefined}
    <button
      class:stale={sight.approaches.running}
      class:late={worst.sightings[0].marginS < 0}
      onclick={() => onapproach(worst.approach)}
      ><svg class="way" viewBox="0 0 64 16" preserveAspectRatio="none" aria-hidden="true">
        <path class="seen" d="M{64 - seenShare * 62} 11H64" />
        <path class="needed" d="M{64 - neededShare * 62} 3V13" />
        <path class="needed thin" d="M{64 - neededShare * 62} 5H64" />
      </svg>
      {approachText(worst)}</button
    >
  {:else if !sight.stopped}
    <span class="quiet">Sight distance: calculating …</span>
  {/if}
  {#if sight.progress !== null}
    <span class="quiet" role="status">{Math.round(sight.progress * 100)} %</span>
    <button class="plain" onclick={() => sight.stop()}>Stop</button>
  {/if}
</p>

<style>
  .worst {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.75rem;
    align-items: center;
    font-size: 13px;
  }

  .stale {
    opacity: 0.6;
  }

  .worst button:has(svg) {
    display: inline-flex;
    gap: 0.5rem;
    align-items: center;
  }

  svg {
    flex: none;
    fill: none;
    stroke-width: 2;
  }

  .ring {
    width: 20px;
    height: 20px;
    stroke: var(--gap);
  }

  .ring path {
    stroke-width: 5;
  }

  .ring circle {
    stroke: var(--sheet-line);
  }

  .ring .nose {
    stroke: none;
    fill: var(--cds-text-02);
  }

  .way {
    width: 64px;
    height: 16px;
  }

  .seen {
    stroke: var(--accent);
    stroke-width: 4;
  }

  .needed {
    stroke: var(--gap);
  }

  .thin {
    stroke-width: 1;
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
</style>
