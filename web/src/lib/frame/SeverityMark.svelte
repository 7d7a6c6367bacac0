<script lang="ts">
  import type { Severity } from '@flarik/core/words/severity';
  import { severityCount, severityMark } from './severity';

  /**
   * A severity by shape, word and colour: its name, or how many there are of it. Where room is short the
   * word is read out and not drawn.
   */
  let {
    severity,
    count = null,
    short = false,
  }: { severity: Severity; count?: number | null; short?: boolean } = $props();
  const mark = $derived(severityMark[severity]);
  const words = $derived(count === null ? mark.name : severityCount(severity, count));
</script>

<span class={severity} title={short ? words : mark.name}>
  <span aria-hidden="true">{mark.shape}{short ? count : ''}</span>
  <span class:visually-hidden={short}>{words}</span>
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
