<script lang="ts">
  import type { Severity } from '@flarik/core/words/severity';
  import SeverityCounts from '$lib/frame/SeverityCounts.svelte';

  /** How many findings a build has, by severity. */
  let {
    findings,
    counting,
  }: {
    /** Null while they are not counted. */
    findings: Partial<Record<Severity, number>> | null;
    counting: boolean;
  } = $props();
</script>

{#if counting}
  <span class="quiet">Checking …</span>
{:else if findings === null}
  <span class="quiet" title="The server check exceeded 45 s. Open the build to see its findings.">
    not counted
  </span>
{:else}
  <span class="counts">
    <SeverityCounts counts={findings}>
      {#snippet none()}<span class="clean">✓ none</span>{/snippet}
    </SeverityCounts>
  </span>
{/if}

<style>
  span {
    white-space: nowrap;
  }

  .counts {
    display: inline-flex;
    gap: 0.75rem;
  }

  .clean {
    color: var(--good);
  }
</style>
