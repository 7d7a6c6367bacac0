<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A line across the frame: what is the matter, and buttons for what can be done. */
  let { tone, role, children }: { tone: 'warns' | 'tells'; role: 'status' | 'alert'; children: Snippet } =
    $props();
</script>

<div class="notice {tone}" {role}>{@render children()}</div>

<style>
  .notice {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0.25rem 0.75rem;
    border-bottom: 1px solid var(--tone);
    background: color-mix(in srgb, var(--tone) 20%, var(--cds-ui-01));
  }

  .notice :global(p) {
    flex: 1;
  }

  .warns {
    --tone: var(--warn);
  }

  .tells {
    --tone: var(--accent);
  }
</style>
