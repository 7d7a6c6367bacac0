<script lang="ts">
  import { countBySeverity } from '@flarik/core/rules/causes';
  import { SEVERITIES } from '@flarik/core/words/severity';
  import ChartRadar from 'carbon-icons-svelte/lib/ChartRadar.svelte';
  import Controls from 'carbon-icons-svelte/lib/SettingsAdjust.svelte';
  import Policy from 'carbon-icons-svelte/lib/Policy.svelte';
  import Timeline from 'carbon-icons-svelte/lib/Timeline.svelte';
  import Document from 'carbon-icons-svelte/lib/Document.svelte';
  import Lamps from 'carbon-icons-svelte/lib/FlashFilled.svelte';
  import Car from 'carbon-icons-svelte/lib/Car.svelte';
  import { page } from '$app/state';
  import { getEditor } from '$lib/editor/context';
  import { severityCount, severityMark } from './severity';
  import { causesIn, STEPS, type StepId } from './steps';

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

  function counts(step: StepId) {
    const found = countBySeverity(causesIn(step, causes));
    return SEVERITIES.map((severity) => ({ severity, count: found[severity] })).filter(
      ({ count }) => count > 0,
    );
  }
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
            {#each counts(step.id) as { severity, count } (severity)}
              <span class="count {severity}" title={severityCount(severity, count)}>
                <span aria-hidden="true">{severityMark[severity].shape}{count}</span>
                <span class="visually-hidden">{severityCount(severity, count)}</span>
              </span>
            {/each}
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

  .counts {
    display: flex;
    gap: 0.25rem;
    min-height: 18px;
    font-size: 11px;
  }

  .count.blocks {
    color: var(--gap);
  }

  .count.warns {
    color: var(--warn);
  }

  .count.advises {
    color: var(--accent);
  }
</style>
