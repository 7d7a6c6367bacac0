<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import Light from 'carbon-icons-svelte/lib/Light.svelte';
  import Moon from 'carbon-icons-svelte/lib/Moon.svelte';
  import type { Snippet } from 'svelte';
  import { onMount } from 'svelte';

  let { children }: { children?: Snippet } = $props();
  let theme = $state('g100');

  onMount(() => {
    theme = document.documentElement.getAttribute('theme') ?? 'g100';
  });

  function switchTheme(): void {
    theme = theme === 'g100' ? 'white' : 'g100';
    document.documentElement.setAttribute('theme', theme);
    document.cookie = `theme=${theme}; path=/; max-age=31536000; samesite=lax`;
  }
</script>

<header>
  <a class="name" href="/" aria-label="Flarik: all builds">
    <img src="/favicon.svg" alt="" width="22" height="22" />
    <span class="word" class:alone={children === undefined}>Flarik</span>
  </a>
  <div class="middle">{@render children?.()}</div>
  <Button
    kind="ghost"
    size="small"
    iconDescription={theme === 'g100' ? 'Light theme' : 'Dark theme'}
    tooltipPosition="bottom"
    tooltipAlignment="end"
    icon={theme === 'g100' ? Light : Moon}
    on:click={switchTheme}
  />
</header>

<style>
  header {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    height: 48px;
    padding: 0 0.5rem 0 0.75rem;
    background: var(--cds-ui-01);
    border-bottom: 1px solid var(--cds-ui-03);
  }

  .name {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    color: var(--cds-text-01);
    font-weight: 600;
    text-decoration: none;
  }

  .word:not(.alone) {
    display: none;
  }

  .middle {
    flex: 1;
    min-width: 0;
    display: flex;
    align-items: center;
    gap: 0.75rem;
  }

  @media (max-width: 1000px) {
    header {
      height: auto;
      min-height: 48px;
    }

    .middle {
      flex-wrap: wrap;
      row-gap: 0;
    }
  }
</style>
