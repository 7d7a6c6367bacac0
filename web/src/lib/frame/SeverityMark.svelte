<script lang="ts">
  import type { Severity } from '@flarik/core/words/severity';
  import { severityCount, severityMark } from './severity';

  /** A severity by shape, word and colour: its name, or how many there are of it. */
  let { severity, count = null }: { severity: Severity; count?: number | null } = $props();
</script>

<span class={severity} title={severityMark[severity].name}>
  <span aria-hidden="true">{severityMark[severity].shape}</span>
  {count === null ? severityMark[severity].name : severityCount(severity, count)}
</span>

<style>
  span {
    white-space: nowrap;
  }

  .blocks {
    color: var(--gap);
  }

  .warns {
    color: var(--warn);
  }

  .advises {
    color: var(--accent);
  }
</style>
