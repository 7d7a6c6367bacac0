<script lang="ts">
  import { openText } from '@flarik/core/state/state';
  import type { Finding, Quantity } from '@flarik/core/rules/finding';
  import { Button } from 'carbon-components-svelte';
  import ChevronDown from 'carbon-icons-svelte/lib/ChevronDown.svelte';
  import ChevronUp from 'carbon-icons-svelte/lib/ChevronUp.svelte';
  import { getEditor } from '$lib/editor/context';
  import Choice from './Choice.svelte';
  import { severityMark } from './severity';
  import { showFinding } from './showFinding';

  const editor = getEditor()();
  let unfolded = $state(true);
  type Filter = 'all' | 'state';
  const FILTERS: readonly { value: Filter; text: string }[] = [
    { value: 'all', text: 'All states' },
    { value: 'state', text: 'This state' },
  ];
  let only = $state<Filter>('all');

  const findings = $derived(editor.check.answer?.findings ?? []);
  const here = $derived(editor.here.answer?.findings ?? []);
  const listed = $derived(only === 'all' ? findings : here);

  const answer = $derived(editor.check.answer);
  const asked = $derived(answer?.outcomes.filter((o) => o.verdict !== 'silent') ?? []);
  const holds = $derived(asked.length > 0 && asked.every((o) => o.verdict === 'holds'));

  const quantityText = ({ value, unit }: Quantity): string =>
    `${round(value)} ${unit === 'money' ? editor.build.brief.currency : unit}`;

  function limitText(f: Finding): string {
    return f.limits.map((l) => `${l.sense} ${quantityText(l)}`).join(', ');
  }

  const round = (v: number): string =>
    Math.abs(v) < 100 ? String(Math.round(v * 10) / 10) : String(Math.round(v));

  function stateText(f: Finding): string {
    if (f.evidence.state === null) return 'In every state';
    const { stage, open, ambient } = f.evidence.state;
    return [editor.stageName(stage), openText(editor.vehicle, open), ambient].join(' · ');
  }
</script>

<section class="drawer" class:unfolded aria-label="Findings" aria-busy={editor.check.running}>
  <div class="head">
    <h2>
      Findings
      {#if editor.check.answer === null}
        <span class="quiet">checking …</span>
      {:else}
        {#if holds}<span class="clean">✓ every rule and wish holds in every state checked</span>{/if}
        {#if findings.length > 0}
          <span class="quiet">{here.length} in this state, {findings.length} in all</span>
        {/if}
      {/if}
      {#if editor.check.error !== null}
        <span class="failed" role="alert">Not checked: {editor.check.error.message}</span>
      {/if}
    </h2>
    <Choice
      label="Which findings"
      small
      options={FILTERS}
      value={only}
      onchoose={(choice: Filter) => (only = choice)}
    />
    <Button
      kind="ghost"
      size="small"
      icon={unfolded ? ChevronDown : ChevronUp}
      iconDescription={unfolded ? 'Fold the findings' : 'Unfold the findings'}
      tooltipPosition="top"
      tooltipAlignment="end"
      on:click={() => (unfolded = !unfolded)}
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
        <li class="none quiet">
          {editor.check.answer === null
            ? 'Checking every state …'
            : editor.build.rulePacks.length === 0
              ? 'No rule pack is chosen, so nothing is checked. Choose one under Rules.'
              : only === 'state' && findings.length > 0
                ? 'Nothing in this state; other states have findings.'
                : 'Nothing to put right.'}
        </li>
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
    min-height: 0;
  }

  .drawer.unfolded {
    height: 172px;
  }

  .head {
    display: flex;
    align-items: center;
    gap: 1rem;
    padding: 0 0.25rem 0 0.75rem;
    min-height: 32px;
    border-bottom: 1px solid var(--cds-ui-03);
  }

  h2 {
    flex: 1;
    display: flex;
    gap: 0.75rem;
    align-items: baseline;
  }

  h2 span {
    font-weight: 400;
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
    min-height: 0;
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
