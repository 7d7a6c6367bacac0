<script lang="ts">
  import type { Contour } from './contours';

  /** Levels written on their contours, over a picture as large as what it stands in. */
  let {
    contours,
    nameOf,
    marked = null,
  }: {
    contours: readonly Contour[];
    nameOf: (level: number) => string;
    /** A level drawn as a limit. */
    marked?: number | null;
  } = $props();
</script>

{#each contours as { level, at } (level)}
  {#if at !== null}
    <span class:limit={level === marked} style:left="{at.x * 100}%" style:top="{at.y * 100}%"
      >{nameOf(level)}</span
    >
  {/if}
{/each}

<style>
  span {
    position: absolute;
    padding: 0 0.2rem;
    transform: translate(-50%, -50%);
    background: #10182bcc;
    color: #ffffff;
    font-size: 12px;
    font-variant-numeric: tabular-nums;
    line-height: 1.2;
    white-space: nowrap;
    pointer-events: none;
  }

  .limit {
    color: #ff8f93;
  }
</style>
