<script lang="ts">
  import { causesOf, type Cause } from '@flarik/core/rules/causes';
  import { findingsTable, findingsText } from '@flarik/core/rules/findingsTable';
  import { SEVERITIES } from '@flarik/core/words/severity';
  import Papa from 'papaparse';
  import { getEditor } from '$lib/editor/context';
  import { download } from '$lib/download';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import CauseRow from './CauseRow.svelte';
  import Choice from '$lib/ui/Choice.svelte';
  import GoneAcceptances from './GoneAcceptances.svelte';
  import Margins from './Margins.svelte';
  import { severityMark } from './severity';
  import { STEPS } from './steps';
  import { reachable } from '$lib/ui/reachable';

  /** What is wrong, what is accepted, and what holds: chosen from by step, gravity, place and lamp. */
  let { here, nothingText }: { here: readonly Cause[]; nothingText: string } = $props();
  const editor = getEditor()();

  const VIEWS = [
    { value: 'open', text: 'Open' },
    { value: 'accepted', text: 'Accepted' },
    { value: 'holds', text: 'Passed' },
  ] as const;
  const STATES = [
    { value: 'all', text: 'All states' },
    { value: 'state', text: 'This state' },
  ] as const;
  let view = $state<(typeof VIEWS)[number]['value']>('open');
  let states = $state<(typeof STATES)[number]['value']>('all');
  let step = $state('all');
  let severity = $state('all');
  let place = $state('all');
  let selectedOnly = $state(false);
  let copied = $state(false);

  const { build, standing, selection } = $derived(editor);
  const places = $derived(build.brief.jurisdictions);
  const accepted = $derived(
    causesOf(
      build,
      standing.accepted.map(({ finding }) => finding),
    ),
  );
  /** Packs that hold somewhere; what is of no pack holds everywhere. */
  const holdsIn = $derived(new Map(build.rulePacks.map((pack) => [pack.id, pack.jurisdictions] as const)));
  const isIn = (packId: string): boolean => {
    const there = holdsIn.get(packId) ?? [];
    return place === 'all' || there.length === 0 || there.includes(place);
  };
  const passes = ({ first, findings }: Cause): boolean =>
    (step === 'all' || first.home === step) &&
    (severity === 'all' || first.severity === severity) &&
    findings.some((f) => isIn(f.packId)) &&
    (!selectedOnly ||
      findings.some((f) => f.evidence.channels.some(({ placementId }) => selection.has(placementId))));
  const listed = $derived(
    (view === 'accepted' ? accepted : states === 'all' ? editor.causes : here).filter(passes),
  );
  const findings = $derived(listed.flatMap((cause) => cause.findings));
  const emptyText = $derived(
    view === 'accepted'
      ? 'No accepted findings.'
      : editor.causes.length > 0
        ? 'No findings match. Change the filters.'
        : nothingText,
  );

  const all = (text: string) => ({ value: 'all', text });

  async function copy(): Promise<void> {
    await navigator.clipboard.writeText(findingsText(build, listed));
    copied = true;
    setTimeout(() => (copied = false), 2000);
  }
</script>

<div class="choose">
  <Choice
    label="Open, accepted or passed"
    small
    options={VIEWS}
    value={view}
    onchoose={(choice: (typeof VIEWS)[number]['value']) => (view = choice)}
  />
  {#if view !== 'holds'}
    {#if view === 'open'}
      <Choice
        label="States"
        small
        options={STATES}
        value={states}
        onchoose={(choice: (typeof STATES)[number]['value']) => (states = choice)}
      />
    {/if}
    <InlineChoice
      label="Step"
      options={[all('All steps'), ...STEPS.slice(0, -1).map(({ id, name }) => ({ value: id, text: name }))]}
      value={step}
      onset={(value: string) => (step = value)}
    />
    <InlineChoice
      label="Severity"
      options={[all('All severities'), ...SEVERITIES.map((s) => ({ value: s, text: severityMark[s].name }))]}
      value={severity}
      onset={(value: string) => (severity = value)}
    />
    {#if places.length > 1}
      <InlineChoice
        label="Jurisdiction"
        options={[all('All jurisdictions'), ...places.map((value) => ({ value, text: value }))]}
        value={place}
        onset={(value: string) => (place = value)}
      />
    {/if}
    <label class:quiet={selection.size === 0}
      ><input type="checkbox" disabled={selection.size === 0} bind:checked={selectedOnly} /> Selected lamps only</label
    >
    <span class="out">
      <button onclick={() => void copy()} disabled={listed.length === 0}
        >{copied ? 'Copied' : 'Copy as text'}</button
      >
      <button
        disabled={listed.length === 0}
        onclick={() =>
          download(
            `${build.name} findings.csv`,
            Papa.unparse(findingsTable(build, findings), { newline: '\r\n', escapeFormulae: true }),
            'text/csv',
          )}>Export CSV</button
      >
    </span>
  {/if}
</div>
{#if view === 'holds'}
  <Margins />
{:else}
  <ul {@attach reachable}>
    {#each listed as cause (cause.key)}
      <CauseRow {cause} accepted={view === 'accepted'} />
    {:else}
      <li class="none quiet">{emptyText}</li>
    {/each}
    {#if view === 'accepted'}<GoneAcceptances />{/if}
  </ul>
{/if}

<style>
  .choose {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 0.6rem;
    padding: 0.25rem 0.75rem;
    border-top: 1px solid var(--cds-ui-03);
    font-size: 12px;
  }

  label {
    display: inline-flex;
    align-items: center;
    gap: 0.3rem;
  }

  .out {
    display: flex;
    gap: 0.4rem;
    margin-left: auto;
  }

  button {
    padding: 0 0.5rem;
    height: 24px;
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    cursor: pointer;
  }

  button:disabled {
    color: var(--cds-disabled-02);
    cursor: default;
  }

  ul {
    overflow-y: auto;
    flex: 1;
    min-height: 0;
    border-top: 1px solid var(--cds-ui-03);
  }

  li.none {
    padding: 0.75rem;
    font-size: 13px;
  }
</style>
