<script lang="ts">
  import { countBySeverity } from '@flarik/core/rules/causes';
  import ChartRadar from 'carbon-icons-svelte/lib/ChartRadar.svelte';
  import Controls from 'carbon-icons-svelte/lib/SettingsAdjust.svelte';
  import Policy from 'carbon-icons-svelte/lib/Policy.svelte';
  import Timeline from 'carbon-icons-svelte/lib/Timeline.svelte';
  import Document from 'carbon-icons-svelte/lib/Document.svelte';
  import Lamps from 'carbon-icons-svelte/lib/FlashFilled.svelte';
  import Car from 'carbon-icons-svelte/lib/Car.svelte';
  import { page } from '$app/state';
  import { getEditor } from '$lib/editor/context';
  import SeverityCounts from './SeverityCounts.svelte';
  import { causesIn, STEPS } from './steps';

  const editor = getEditor()();
  const causes = $derived(editor.causes);
  const icons = {
    brief: Document,
    vehicle: Car,
    layout: Lamps,
    timing: Timeline,
    controls: Controls,
    visibility: ChartRadar,
    rules: Policy,
  };
</script>

<nav aria-label="Steps">
  <ul>
    {#each STEPS as step (step.id)}
      {@const Icon = icons[step.id]}
      {@const here = page.url.pathname.endsWith(`/${step.id}`)}
      <li>
        <a href="/builds/{editor.build.id}/{step.id}" class:here aria-current={here ? 'page' : undefined}>
          <Icon size={20} />
          <span>{step.name}</span>
          <span class="counts">
            <SeverityCounts counts={countBySeverity(causesIn(step.id, causes))} short />
          </span>
        </a>
      </li>
    {/each}
  </ul>
</nav>

<style>
  nav {
    background: var(--cds-ui-01);
    border-right: 1px solid var(--cds-ui-03);
    width: 92px;
    position: relative;
    flex: none;
    overflow-y: auto;
  }

  a {
    display: grid;
    justify-items: center;
    gap: 2px;
    padding: 0.5rem 0.25rem;
    color: var(--cds-text-02);
    text-decoration: none;
    font-size: 13px;
    border-left: 3px solid transparent;
  }

  a:hover {
    background: var(--cds-hover-ui);
    color: var(--cds-text-01);
  }

  a.here {
    background: var(--cds-ui-background);
    color: var(--cds-text-01);
    border-left-color: var(--cds-interactive-01);
    font-weight: 600;
  }

  a:focus-visible {
    outline: 2px solid var(--cds-focus);
    outline-offset: -2px;
  }

  @media (max-width: 800px) {
    nav {
      width: 72px;
    }

    a {
      font-size: 12px;
    }
  }

  .counts {
    display: flex;
    gap: 0.25rem;
    min-height: 18px;
    font-size: 11px;
  }
</style>
