<script lang="ts">
  import { tapLine, type Tap } from '@flarik/core/timing/draw';
  import { getDesk } from '$lib/pieces/desk.svelte';

  /** Taps a line in rhythm: lit as long as the button or the space bar is held. */
  const desk = getDesk()();
  let tapping = $state(false);
  let taps = $state.raw<readonly Tap[]>([]);
  let downMs: number | null = null;

  const cycle = $derived(desk.pattern?.cycle.cycleMs ?? 1000);

  function begin(): void {
    tapping = true;
    taps = [];
    downMs = null;
  }

  function down(): void {
    downMs ??= performance.now();
  }

  function up(): void {
    if (downMs === null) return;
    taps = [...taps, { downMs, upMs: performance.now() }];
    downMs = null;
  }

  function done(): void {
    const tapped = taps;
    tapping = false;
    if (tapped.length > 0) desk.draw('Tap a line', (p) => tapLine(p, desk.line, tapped));
  }
</script>

{#if tapping}
  <button
    class="pad"
    aria-label="Hold while it should be lit"
    onpointerdown={down}
    onpointerup={up}
    onpointercancel={up}
    onkeydown={(event) => {
      if (event.key !== ' ') return;
      event.preventDefault();
      event.stopPropagation();
      down();
    }}
    onkeyup={(event) => {
      if (event.key !== ' ') return;
      event.preventDefault();
      up();
    }}>hold while lit · {taps.length} of a cycle of {cycle} ms</button
  >
  <button class="plain" onclick={done} disabled={taps.length === 0}>Done</button>
  <button class="plain" onclick={() => (tapping = false)}>Cancel</button>
{:else}
  <button class="plain" onclick={begin}>Tap in rhythm</button>
{/if}

<style>
  .pad {
    background: var(--accent);
    color: var(--cds-ui-background);
    min-width: 12rem;
    user-select: none;
    touch-action: none;
  }
</style>
