<script lang="ts">
  import { whereabouts } from '@flarik/core/coverage/gaps';
  import { sectorText, type Sector } from '@flarik/core/coverage/sectors';
  import type { Approach } from '@flarik/core/design/approach';
  import { approachText } from '@flarik/core/sight/words';
  import type { Sight } from './sight.svelte';

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
    isRingKnown: boolean;
    worst: Parameters<typeof approachText>[0] | undefined;
    ongap: (gap: Sector) => void;
    onapproach: (approach: Approach) => void;
  } = $props();
</script>

<p class="worst">
  {#if gaps[0] !== undefined}
    {@const [gap] = gaps}
    <button onclick={() => ongap(gap)}
      ><span aria-hidden="true">▨</span> Gap {whereabouts(gap)}, {sectorText(gap)}{gaps.length > 1
        ? `, and ${gaps.length - 1} more`
        : ''}</button
    >
  {:else if isRingKnown}
    <span class="quiet">{asksNothing ? 'No floor is asked of the ring' : 'No gap in the ring'}</span>
  {/if}
  {#if worst !== undefined}
    <button class:late={worst.sightings[0].marginS < 0} onclick={() => onapproach(worst.approach)}
      >{approachText(worst)}</button
    >
  {:else if !sight.stopped}
    <span class="quiet">Approaches: working them out …</span>
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
