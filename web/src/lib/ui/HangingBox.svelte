<script lang="ts">
  import ChevronDown from 'carbon-icons-svelte/lib/ChevronDown.svelte';
  import type { Snippet } from 'svelte';

  /** A button that says something in short, and a box that hangs from it with the rest. */
  let {
    id,
    label,
    title,
    summary,
    tone,
    children,
  }: {
    id: string;
    label: string;
    title: string;
    summary: string;
    /** How the button stands out: not at all, as something that is on, or as something to mind. */
    tone: 'plain' | 'on' | 'mind';
    children: Snippet;
  } = $props();
  let button = $state<HTMLButtonElement>();
  let shown = $state(false);
  /** Where the box hangs from, px from the left edge of the window. */
  let left = $state(0);
</script>

<button bind:this={button} class="plain summary {tone}" popovertarget={id} aria-expanded={shown} {title}>
  <span>{summary}</span><ChevronDown size={16} />
</button>

<div
  {id}
  class="box"
  style:left="{left}px"
  popover
  role="group"
  aria-label={label}
  onbeforetoggle={() => (left = button?.getBoundingClientRect().left ?? 0)}
  ontoggle={(event: ToggleEvent) => (shown = event.newState === 'open')}
>
  {@render children()}
</div>

<style>
  .summary {
    display: flex;
    align-items: center;
    gap: 0.3rem;
    height: 28px;
    max-width: 8.6rem;
    min-width: 0;
    font-size: 13px;
    white-space: nowrap;
  }

  @media (max-width: 1150px) {
    .summary {
      flex-shrink: 0;
      padding: 0 0.35rem;
      max-width: 6rem;
      font-size: 12px;
    }
  }

  .summary span {
    overflow: hidden;
    text-overflow: ellipsis;
  }

  .on {
    border-color: var(--on);
    font-weight: 600;
  }

  .mind {
    border-color: var(--warn);
    background: color-mix(in srgb, var(--warn) 22%, transparent);
    font-weight: 600;
  }

  .box {
    position: fixed;
    inset: auto;
    top: 44px;
    margin: 0;
    padding: 0.75rem;
    max-height: calc(100vh - 60px);
    overflow: auto;
    background: var(--cds-ui-01);
    color: var(--cds-text-01);
    border: 1px solid var(--cds-ui-04);
    box-shadow: 0 4px 14px rgb(0 0 0 / 40%);
  }
</style>
