<script lang="ts">
  import type { Snippet } from 'svelte';
  import { reachable } from '$lib/ui/reachable';

  /** A picture or table, and beside it what it says. */
  let {
    label,
    stale = false,
    children,
    says,
  }: { label: string; stale?: boolean; children: Snippet; says: Snippet } = $props();
</script>

<div class="beside" class:stale aria-busy={stale}>
  {@render children()}
  <aside aria-label={label} {@attach reachable}>{@render says()}</aside>
</div>

<style>
  .beside {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 24rem;
    height: 100%;
    min-height: 0;
    border-top: 2px solid transparent;
  }

  /* What is read or edited stays plain while new figures are worked out. */
  .stale {
    border-top-color: var(--accent);
  }

  aside {
    display: grid;
    align-content: start;
    gap: 0.5rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
    background: var(--cds-ui-01);
    font-size: 13px;
  }

  aside :global(dl) {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.2rem 0.6rem;
  }

  aside :global(dt) {
    color: var(--cds-text-02);
  }

  aside :global(.small) {
    font-size: 12px;
    line-height: 1.4;
  }
</style>
