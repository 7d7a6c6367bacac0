<script lang="ts">
  import ChevronLeft from 'carbon-icons-svelte/lib/ChevronLeft.svelte';
  import ChevronRight from 'carbon-icons-svelte/lib/ChevronRight.svelte';
  import { Pane, PaneResizer } from 'paneforge';
  import type { Snippet } from 'svelte';

  /** A panel beside the work whose width is dragged and remembered, and which folds into a strip that names it. */
  let {
    name,
    side,
    share,
    least = 12,
    children,
  }: {
    name: string;
    side: 'left' | 'right';
    /** Its width at first, and the least before it folds, percent of all. */
    share: number;
    least?: number;
    children: Snippet;
  } = $props();

  /** Of the strip, percent. */
  const STRIP = 2.6;
  let pane = $state<Pane>();
  let folded = $state(false);
  const Fold = $derived(side === 'left' ? ChevronLeft : ChevronRight);
  const Unfold = $derived(side === 'left' ? ChevronRight : ChevronLeft);

  /** By a share of all: the panel's share, percent. */
  export const widen = (to: number): void => pane?.resize(to);
  export const width = (): number => pane?.getSize() ?? share;
</script>

{#if side === 'right'}<PaneResizer class="divider" aria-label="Width of {name}" />{/if}
<Pane
  bind:this={pane}
  defaultSize={share}
  minSize={least}
  maxSize={75}
  collapsible
  collapsedSize={STRIP}
  order={side === 'left' ? 1 : 3}
  onCollapse={() => (folded = true)}
  onExpand={() => (folded = false)}
>
  <div class="side {side}">
    {#if folded}
      <button class="strip" aria-expanded="false" onclick={() => pane?.expand()}>
        <Unfold size={16} /><span>{name}</span>
      </button>
    {:else}
      <button
        class="fold"
        aria-expanded="true"
        aria-label="Collapse {name}"
        title="Collapse {name}"
        onclick={() => pane?.collapse()}><Fold size={16} /></button
      >
    {/if}
    <div class="content" class:folded>{@render children()}</div>
  </div>
</Pane>
{#if side === 'left'}<PaneResizer class="divider" aria-label="Width of {name}" />{/if}

<style>
  .side {
    position: relative;
    height: 100%;
    background: var(--cds-ui-01);
  }

  .content {
    height: 100%;
    min-height: 0;
  }

  .content > :global(:only-child) {
    height: 100%;
  }

  .folded {
    display: none;
  }

  .fold {
    position: absolute;
    z-index: 2;
    top: 5px;
    right: 2px;
    display: grid;
    place-items: center;
    width: 24px;
    height: 24px;
    padding: 0;
    border: 0;
    background: none;
    color: var(--cds-text-02);
    cursor: pointer;
  }

  .fold:hover,
  .strip:hover {
    background: var(--cds-hover-ui);
    color: var(--cds-text-01);
  }

  .strip {
    display: flex;
    flex-direction: column;
    align-items: center;
    gap: 0.75rem;
    width: 100%;
    height: 100%;
    padding: 0.6rem 0;
    border: 0;
    background: none;
    color: var(--cds-text-02);
    font: inherit;
    font-size: 13px;
    cursor: pointer;
  }

  .strip span {
    writing-mode: vertical-rl;
    white-space: nowrap;
  }
</style>
