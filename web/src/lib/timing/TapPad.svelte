<script lang="ts">
  import { tapLine, type Tap } from '@flarik/core/timing/draw';
  import { getDesk } from './desk.svelte';

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
  <button onclick={done} disabled={taps.length === 0}>Done</button>
  <button onclick={() => (tapping = false)}>Leave it</button>
{:else}
  <button onclick={begin}>Tap in rhythm</button>
{/if}

<style>
  button {
    height: 26px;
    padding: 0 0.5rem;
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
    cursor: pointer;
  }

  .pad {
    background: var(--accent);
    color: var(--cds-ui-background);
    min-width: 12rem;
    user-select: none;
    touch-action: none;
  }

  button:disabled {
    color: var(--cds-disabled-03);
  }

  button:focus-visible {
    outline: 2px solid var(--cds-focus);
    outline-offset: -1px;
  }
</style>
