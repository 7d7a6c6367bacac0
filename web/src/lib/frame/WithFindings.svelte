<script lang="ts">
  import { Pane, PaneGroup, PaneResizer } from 'paneforge';
  import { onMount, untrack, type Snippet } from 'svelte';
  import { z } from 'zod';
  import { afterNavigate } from '$app/navigation';
  import { page } from '$app/state';
  import { recall, remember } from '$lib/ui/remember';
  import Findings from './Findings.svelte';

  /** The work of a step with the findings below it, open or in one line; each step keeps the height it was given. */
  let { children }: { children: Snippet } = $props();

  const OPEN = 'flarik-findings-unfolded';
  const HEIGHTS = 'flarik-findings-heights';
  /** Of the height there is, percent, until it is dragged. */
  const USUAL = 38;
  let unfolded = $state(false);
  let heights = $state.raw<Readonly<Record<string, number>>>({});
  let pane = $state<Pane>();
  let main = $state<HTMLElement>();
  const step = $derived(page.url.pathname.split('/').at(-1) ?? '');

  onMount(() => {
    heights = recall(HEIGHTS, z.record(z.string(), z.number()), {});
    unfolded = recall(OPEN, z.boolean(), false);
  });
  $effect(() => {
    const [open, here] = [pane, step];
    untrack(() => open?.resize(heights[here] ?? USUAL));
  });

  // Whoever goes to a step by keyboard goes on in it, and not from the top of the page.
  let last = page.url.pathname;
  afterNavigate(() => {
    const { pathname } = page.url;
    if (pathname !== last) main?.focus({ preventScroll: true });
    last = pathname;
  });

  function fold(to: boolean): void {
    unfolded = to;
    remember(OPEN, to);
  }

  function keep(height: number): void {
    heights = { ...heights, [step]: height };
    remember(HEIGHTS, heights);
  }
</script>

<div class="beside">
  <PaneGroup direction="vertical">
    <Pane order={1} minSize={20}>
      <main bind:this={main} tabindex="-1"><div class="room">{@render children()}</div></main>
    </Pane>
    {#if unfolded}
      <section aria-label="Divider">
        <PaneResizer class="divider" aria-label="Height of the findings" />
      </section>
      <Pane
        bind:this={pane}
        order={2}
        defaultSize={heights[step] ?? USUAL}
        minSize={12}
        maxSize={80}
        onResize={keep}
      >
        <Findings {unfolded} onfold={fold} />
      </Pane>
    {/if}
  </PaneGroup>
  {#if !unfolded}<Findings {unfolded} onfold={fold} />{/if}
</div>

<style>
  .beside {
    flex: 1;
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }

  /* What is placed in it by itself never makes the page longer. */
  main {
    position: relative;
    outline: none;
    height: 100%;
    overflow: auto;
    min-width: 0;
    min-height: 0;
  }

  /* In a small or much enlarged window the work keeps the room it needs and is scrolled. */
  .room {
    min-width: 56rem;
    height: 100%;
    min-height: 18rem;
  }
</style>
