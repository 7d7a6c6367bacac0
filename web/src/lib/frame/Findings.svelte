<script lang="ts">
  import { onText } from '@flarik/core/design/controls';
  import { openText } from '@flarik/core/state/state';
  import { Wording } from '@flarik/core/controls/sentence';
  import type { Finding, Quantity } from '@flarik/core/rules/finding';
  import { SEVERITIES } from '@flarik/core/words/severity';
  import { Button } from 'carbon-components-svelte';
  import ChevronDown from 'carbon-icons-svelte/lib/ChevronDown.svelte';
  import ChevronUp from 'carbon-icons-svelte/lib/ChevronUp.svelte';
  import { onMount } from 'svelte';
  import { z } from 'zod';
  import { getEditor } from '$lib/editor/context';
  import { recall, remember } from '$lib/ui/remember';
  import Choice from './Choice.svelte';
  import { severityCount, severityMark } from './severity';
  import { showFinding } from './showFinding';

  const editor = getEditor()();
  const KEY = 'flarik-findings-unfolded';
  let unfolded = $state(false);
  onMount(() => (unfolded = recall(KEY, z.boolean(), false)));

  function fold(to: boolean): void {
    unfolded = to;
    remember(KEY, to);
  }

  type Filter = 'all' | 'state';
  const FILTERS: readonly { value: Filter; text: string }[] = [
    { value: 'all', text: 'All states' },
    { value: 'state', text: 'This state' },
  ];
  let only = $state<Filter>('all');

  const { findings } = $derived(editor);
  const here = $derived(editor.here.answer?.findings ?? []);
  const listed = $derived(only === 'all' ? findings : here);

  const answer = $derived(editor.check.answer);
  const asked = $derived(
    [...(answer?.outcomes ?? []), ...(editor.proving.answer?.outcomes ?? [])].filter(
      (o) => o.verdict !== 'silent',
    ),
  );
  const holds = $derived(asked.length > 0 && asked.every((o) => o.verdict === 'holds'));

  const counts = $derived(
    SEVERITIES.map((severity) => ({
      severity,
      count: findings.filter((f) => f.severity === severity).length,
    })).filter(({ count }) => count > 0),
  );
  /** The first of the gravest, as they are listed. */
  const worst = $derived(findings[0]);
  const nothingText = $derived(
    editor.check.answer === null
      ? 'Checking every state …'
      : editor.build.rulePacks.length === 0
        ? 'No rule pack is chosen, so nothing is checked. Choose one under Rules.'
        : only === 'state' && findings.length > 0
          ? 'Nothing in this state; other states have findings.'
          : 'Nothing to put right.',
  );

  const quantityText = ({ value, unit }: Quantity): string =>
    `${round(value)} ${unit === 'money' ? editor.build.brief.currency : unit}`;

  function limitText(f: Finding): string {
    return f.limits.map((l) => `${l.sense} ${quantityText(l)}`).join(', ');
  }

  const round = (v: number): string =>
    Math.abs(v) < 100 ? String(Math.round(v * 10) / 10) : String(Math.round(v));

  const wording = $derived(new Wording(editor.build));
  const wayText = (f: Finding): string => wording.way(f.evidence.steps);

  function stateText(f: Finding): string {
    if (f.evidence.state === null) return 'In every state';
    const { on, open, ambient } = f.evidence.state;
    return [onText(editor.build, on), openText(editor.build, open), ambient].join(' · ');
  }
</script>

<section
  class="drawer"
  aria-label="Findings"
  aria-busy={editor.check.running || editor.proving.progress !== null}
>
  <div class="head">
    <h2>Findings</h2>
    {#if editor.check.error !== null}
      <p class="failed" role="alert">Not checked: {editor.check.error.message}</p>
    {:else if editor.check.answer === null}
      <p class="quiet">checking …</p>
    {:else}
      <p class="said">
        {#each counts as { severity, count } (severity)}
          <span class="mark {severity}">
            <span aria-hidden="true">{severityMark[severity].shape}</span>
            {severityCount(severity, count)}
          </span>
        {/each}
        {#if holds}<span class="clean">✓ every rule and wish holds in every state checked</span>{/if}
        {#if findings.length > 0}
          <span class="quiet">{here.length} in this state, {findings.length} in all</span>
        {:else if !holds}
          <span class="quiet">{nothingText}</span>
        {/if}
        {#if worst !== undefined && !unfolded}<span class="worst">Worst: {worst.sentence}</span>{/if}
      </p>
    {/if}
    {#if unfolded}
      <Choice
        label="Which findings"
        small
        options={FILTERS}
        value={only}
        onchoose={(choice: Filter) => (only = choice)}
      />
    {:else if worst !== undefined}
      <button class="show" aria-label="Show: {worst.sentence}" onclick={() => showFinding(editor, worst)}
        >Show</button
      >
    {/if}
    <Button
      kind="ghost"
      size="small"
      icon={unfolded ? ChevronDown : ChevronUp}
      iconDescription={unfolded ? 'Fold the findings' : 'Unfold the findings'}
      tooltipPosition="top"
      tooltipAlignment="end"
      on:click={() => fold(!unfolded)}
    />
  </div>
  {#if unfolded}
    <ul>
      {#each listed as finding (finding.id)}
        <li class:shown={finding.id === editor.shownFindingId}>
          <span class="mark {finding.severity}" title={severityMark[finding.severity].name}>
            <span aria-hidden="true">{severityMark[finding.severity].shape}</span>
            {severityMark[finding.severity].name}
          </span>
          <div class="text">
            <p>
              {#if finding.outcome === 'cannot tell'}<strong>Cannot tell.</strong>{/if}
              {finding.sentence}
            </p>
            <p class="quiet small">{stateText(finding)} — {finding.clause}</p>
            {#if finding.evidence.steps.length > 0}
              <p class="small way">{wayText(finding)}</p>
            {/if}
          </div>
          <span class="figure numbers">
            {#if finding.figure !== null}{quantityText(finding.figure)}{/if}
            {#if finding.limits.length > 0}<span class="quiet small">{limitText(finding)}</span>{/if}
          </span>
          <button
            class="show"
            aria-label="Show: {finding.sentence}"
            onclick={() => showFinding(editor, finding)}>Show</button
          >
        </li>
      {:else}
        <li class="none quiet">{nothingText}</li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  .drawer {
    display: flex;
    flex-direction: column;
    background: var(--cds-ui-01);
    border-top: 1px solid var(--cds-ui-03);
  }

  .head {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0 0.25rem 0 0.75rem;
    height: 32px;
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
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
    cursor: pointer;
  }

  ul {
    overflow-y: auto;
    max-height: min(15rem, 32vh);
    border-top: 1px solid var(--cds-ui-03);
  }

  li {
    display: grid;
    grid-template-columns: 5.5rem 1fr auto auto;
    gap: 0.75rem;
    align-items: center;
    padding: 0.3rem 0.75rem;
    border-bottom: 1px solid var(--cds-ui-03);
  }

  li.none {
    display: block;
    padding: 0.75rem;
  }

  li.shown {
    background: var(--cds-ui-03);
    box-shadow: inset 3px 0 0 var(--accent);
  }

  .mark {
    font-size: 13px;
    white-space: nowrap;
  }

  .mark.blocks {
    color: var(--gap);
  }

  .mark.warns {
    color: var(--warn);
  }

  .mark.advises {
    color: var(--accent);
  }

  .text {
    min-width: 0;
    font-size: 13px;
    line-height: 1.35;
  }

  .small {
    font-size: 12px;
  }

  .numbers {
    display: grid;
    text-align: right;
    font-size: 12px;
  }

  .show {
    border-color: var(--cds-interactive-04);
    color: var(--cds-link-01);
  }
</style>
