<script lang="ts">
  import { acceptanceStatusOf } from '@flarik/core/rules/acceptances';
  import type { Build } from '@flarik/core/design/schema';
  import { causesOf, causesOfWork, countBySeverity, type Cause } from '@flarik/core/rules/causes';
  import { stateText } from '@flarik/core/rules/findingsTable';
  import type { Finding } from '@flarik/core/rules/finding';
  import { Button } from 'carbon-components-svelte';
  import ChevronDown from 'carbon-icons-svelte/lib/ChevronDown.svelte';
  import ChevronUp from 'carbon-icons-svelte/lib/ChevronUp.svelte';
  import { getEditor } from '$lib/editor/context';
  import BeforeLine from './BeforeLine.svelte';
  import BeforeList from './BeforeList.svelte';
  import FindingList from './FindingList.svelte';
  import SeverityCounts from './SeverityCounts.svelte';
  import { showFinding } from './showFinding';

  /** What is wrong, in one line that opens. */
  let { unfolded, onfold }: { unfolded: boolean; onfold: (to: boolean) => void } = $props();
  const editor = getEditor()();

  const { causes, standing } = $derived(editor);
  const here = $derived(
    causesOf(editor.build, acceptanceStatusOf(editor.build, editor.here.answer?.findings ?? []).open),
  );

  /** Whether the state looked at is checked as it and the build are now. */
  const isHereKnown = $derived(
    !editor.here.running && editor.here.error === null && editor.here.answer !== null,
  );

  const answer = $derived(editor.check.answer);
  const asked = $derived(editor.outcomes.filter((o) => o.verdict !== 'silent'));
  /** What every design is asked, as that keep-outs stay clear, is in no pack's outcomes: only its findings tell. */
  const hasFaults = $derived(
    editor.findings.some(({ severity }) => severity === 'blocks' || severity === 'warns'),
  );
  const holds = $derived(
    editor.pending === null && !hasFaults && asked.length > 0 && asked.every((o) => o.verdict === 'holds'),
  );

  /** The first of the gravest, as they are listed. */
  const worst = $derived(causes[0]?.first);
  /** What the work does to what the check finds, function by function; null until both are known. */
  const work = $derived.by(() => {
    const before = editor.checkBefore.answer;
    // What was checked must be the build as it is now, before and after.
    if (before?.build !== editor.build || answer?.build !== editor.build || !editor.isBefore) return null;
    const causesIn = (build: Build, findings: readonly Finding[]): Cause[] =>
      causesOf(build, acceptanceStatusOf(build, findings).open);
    return causesOfWork(causesIn(editor.seen, before.findings), causesIn(editor.build, answer.findings));
  });
  const nothingText = $derived(
    answer === null
      ? 'Checking every state …'
      : editor.build.rulePacks.length === 0
        ? 'No rule pack is selected. Add one under Rules.'
        : editor.pending === null
          ? 'No open findings.'
          : editor.isProvedSoon
            ? 'No findings so far. Checking …'
            : 'No findings. The controls are not verified.',
  );
</script>

<section
  class="drawer"
  class:unfolded
  aria-label="Findings"
  aria-busy={editor.check.running || editor.isProvedSoon}
>
  <div class="head">
    <h2>Findings</h2>
    {#if editor.isBefore}
      <BeforeLine {work} />
    {:else if editor.check.error !== null}
      <p class="failed" role="alert">Check failed: {editor.check.error.message}</p>
    {:else if answer === null}
      <p class="quiet">checking …</p>
    {:else}
      <p class="said">
        <SeverityCounts counts={countBySeverity(causes)} />
        {#if standing.accepted.length > 0}<span class="quiet">{standing.accepted.length} accepted</span>{/if}
        {#if holds}<span class="clean">✓ All rules and requirements pass in every state checked</span>{/if}
        {#if causes.length > 0}
          <span class="quiet"
            >{isHereKnown ? here.length : '…'} in this state, {causes.length} in total{editor.isProvedSoon
              ? ' so far'
              : ''}</span
          >
        {:else if !holds}
          <span class="quiet">{nothingText}</span>
        {/if}
        {#if worst !== undefined && !unfolded}<span class="worst"
            >Worst: {worst.sentence} <span class="quiet">{stateText(editor.build, worst)}</span></span
          >{/if}
      </p>
    {/if}
    {#if worst !== undefined && !unfolded && !editor.isBefore}
      <button class="show" aria-label="Show: {worst.sentence}" onclick={() => showFinding(editor, worst)}
        >Show</button
      >
    {/if}
    <Button
      kind="ghost"
      size="small"
      icon={unfolded ? ChevronDown : ChevronUp}
      iconDescription={unfolded ? 'Collapse findings' : 'Expand findings'}
      tooltipPosition="top"
      tooltipAlignment="end"
      on:click={() => onfold(!unfolded)}
    />
  </div>
  {#if unfolded && editor.isBefore}
    {#if work !== null}<BeforeList {work} />{/if}
  {:else if unfolded}
    <FindingList {here} {nothingText} />
  {/if}
</section>

<style>
  .drawer {
    display: flex;
    flex-direction: column;
    background: var(--cds-ui-01);
    border-top: 1px solid var(--cds-ui-03);
  }

  .unfolded {
    height: 100%;
  }

  .head {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0 0.25rem 0 0.75rem;
    height: 32px;
    flex: none;
  }

  .said {
    flex: 1;
    min-width: 0;
    display: flex;
    gap: 0.75rem;
    align-items: baseline;
    overflow: hidden;
    white-space: nowrap;
    font-size: 13px;
  }

  .worst {
    overflow: hidden;
    text-overflow: ellipsis;
  }

  .clean {
    color: var(--good);
  }

  .failed {
    color: var(--gap);
  }

  .show {
    padding: 0 0.6rem;
    height: 24px;
    border: 1px solid var(--cds-interactive-04);
    background: transparent;
    color: var(--cds-link-01);
    font: inherit;
    font-size: 12px;
    cursor: pointer;
  }
</style>
