<script lang="ts">
  import { SEVERITIES, type Severity } from '@flarik/core/words/severity';
  import type { Snippet } from 'svelte';
  import SeverityMark from './SeverityMark.svelte';

  /** How many there are of each severity that there is, the gravest first. */
  let {
    counts,
    short = false,
    none,
  }: {
    counts: Partial<Record<Severity, number>>;
    /** Drawn without their words. */
    short?: boolean;
    /** What stands there when there are none. */
    none?: Snippet;
  } = $props();
  const some = $derived(SEVERITIES.filter((severity) => (counts[severity] ?? 0) > 0));
</script>

{#each some as severity (severity)}
  <SeverityMark {severity} count={counts[severity] ?? 0} {short} />
{:else}
  {@render none?.()}
{/each}
