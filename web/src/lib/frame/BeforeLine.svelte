<script lang="ts">
  import { countBySeverity, type CausesOfWork } from '@flarik/core/rules/causes';
  import { getEditor } from '$lib/editor/context';
  import SeverityCounts from './SeverityCounts.svelte';

  /** What was wrong before the work, and how much of it the work puts right, in one line. */
  let { work }: { work: CausesOfWork | null } = $props();
  const editor = getEditor()();
</script>

{#if editor.checkBefore.error !== null}
  <p class="failed" role="alert">Not checked: {editor.checkBefore.error.message}</p>
{:else if work === null}
  <p class="quiet">Checking the original vehicle …</p>
{:else}
  <p class="said">
    <strong>Before the work</strong>
    <SeverityCounts counts={countBySeverity([...work.gone, ...work.stay])}>
      {#snippet none()}<span>nothing found</span>{/snippet}
    </SeverityCounts>
    <span class="quiet"
      >{work.gone.length} resolved, {work.stay.length} unchanged, {work.come.length} new; function by function</span
    >
  </p>
{/if}

<style>
  p {
    flex: 1;
    min-width: 0;
    font-size: 13px;
  }

  .said {
    display: flex;
    gap: 0.75rem;
    align-items: baseline;
    overflow: hidden;
    white-space: nowrap;
  }

  .failed {
    color: var(--gap);
  }
</style>
