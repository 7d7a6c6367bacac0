<script lang="ts">
  import type { Build } from '@flarik/core/design/schema';
  import type { Cause, CausesOfWork } from '@flarik/core/rules/causes';
  import { stateText } from '@flarik/core/rules/findingsTable';
  import { getEditor } from '$lib/editor/context';
  import SeverityMark from './SeverityMark.svelte';
  import { showFinding } from './showFinding';
  import { reachable } from '$lib/ui/reachable';

  /** What was wrong before the work, what of it stays, and what the work brings. */
  let { work }: { work: CausesOfWork } = $props();
  const editor = getEditor()();
  const rows = $derived(
    [
      { causes: work.stay, after: 'stays', build: editor.seen },
      { causes: work.come, after: 'new after it', build: editor.build },
      { causes: work.gone, after: 'resolved', build: editor.seen },
    ].flatMap(({ causes, after, build }): { cause: Cause; after: string; build: Build }[] =>
      causes.map((cause) => ({ cause, after, build })),
    ),
  );
</script>

<ul aria-label="Findings before and after the work" {@attach reachable}>
  {#each rows as { cause: { key, first }, after, build } (`${after} ${key}`)}
    <li>
      <SeverityMark severity={first.severity} />
      <p>{first.sentence} <span class="quiet">{stateText(build, first)} — {first.clause}</span></p>
      <strong>{after}</strong>
      <button class="link" aria-label="Show: {first.sentence}" onclick={() => showFinding(editor, first)}
        >Show</button
      >
    </li>
  {:else}
    <li class="quiet">No findings before or after the work.</li>
  {/each}
</ul>

<style>
  ul {
    flex: 1;
    min-height: 0;
    overflow-y: auto;
    padding: 0 0.75rem 0.5rem;
  }

  li {
    display: grid;
    grid-template-columns: 5.5rem minmax(0, 1fr) 7rem auto;
    gap: 0.75rem;
    align-items: baseline;
    padding: 0.25rem 0;
    border-top: 1px solid var(--cds-ui-03);
    font-size: 13px;
  }
</style>
