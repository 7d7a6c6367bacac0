<script lang="ts">
  import { SEVERITIES, type Severity } from '@flarik/core/words/severity';
  import SeverityMark from '$lib/frame/SeverityMark.svelte';

  /** How many findings a build has, by severity. */
  let {
    findings,
    counting,
  }: {
    /** Null while they are not counted. */
    findings: Partial<Record<Severity, number>> | null;
    counting: boolean;
  } = $props();

  const some = $derived(SEVERITIES.filter((s) => (findings?.[s] ?? 0) > 0));
</script>

{#if counting}
  <span class="quiet">being counted …</span>
{:else if findings === null}
  <span class="quiet" title="The check took too long beside the server; the open build shows its findings.">
    not counted
  </span>
{:else if some.length === 0}
  <span class="clean">✓ none</span>
{:else}
  {#each some as severity (severity)}
    <span class="count"><SeverityMark {severity} count={findings[severity] ?? 0} /></span>
  {/each}
{/if}

<style>
  span {
    white-space: nowrap;
  }

  .count {
    margin-right: 0.75rem;
  }

  .clean {
    color: var(--good);
  }
</style>
