<script lang="ts">
  import { accept, withdraw } from '@flarik/core/rules/acceptances';
  import { alsoAffectedText, type Cause } from '@flarik/core/rules/causes';
  import { figureText, limitsText, stateText } from '@flarik/core/rules/findingsTable';
  import { InputError } from '@flarik/core/words/errors';
  import { Wording } from '@flarik/core/controls/sentence';
  import { getEditor } from '$lib/editor/context';
  import AcceptForm from './AcceptForm.svelte';
  import SeverityMark from './SeverityMark.svelte';
  import { showFinding } from './showFinding';

  /** One cause with its gravest finding; the others open below it. */
  let { cause, accepted }: { cause: Cause; accepted: boolean } = $props();
  const editor = getEditor()();
  let open = $state(false);
  let accepting = $state(false);
  let refused = $state('');

  const { first, findings } = $derived(cause);
  const { build } = $derived(editor);
  const also = $derived(alsoAffectedText(build, cause));
  const wording = $derived(new Wording(build));
  const acceptance = $derived(accepted ? build.accepted.find(({ id }) => id === first.id) : undefined);
  const outgrown = $derived(
    findings.flatMap(({ id }) => editor.standing.outgrown.get(id) ?? []).at(0) ?? null,
  );
</script>

<li class:shown={findings.some(({ id }) => id === editor.shownFindingId)}>
  <SeverityMark severity={first.severity} />
  <div class="text">
    <p>
      {#if first.outcome === 'cannot tell'}<strong>Inconclusive.</strong>{/if}
      {first.sentence}
    </p>
    <p class="quiet small">{stateText(build, first)} — {first.clause}</p>
    {#if first.evidence.steps.length > 0}<p class="small">{wording.way(first.evidence.steps)}</p>{/if}
    {#if acceptance !== undefined}
      <p class="small stands">Accepted by {acceptance.by} on {acceptance.on}: {acceptance.reason}</p>
    {:else if outgrown !== null}
      <p class="small changed">
        Accepted by {outgrown.by} on {outgrown.on}. It has changed since and is open again.
      </p>
    {/if}
    {#if also !== ''}
      <button class="plain small" aria-expanded={open} onclick={() => (open = !open)}
        >{open ? '▾' : '▸'} {also}</button
      >
    {/if}
  </div>
  <span class="figure">
    {figureText(build, first)}
    {#if first.limits.length > 0}<span class="quiet small">{limitsText(build, first)}</span>{/if}
  </span>
  <span class="do">
    <button class="show" aria-label="Show: {first.sentence}" onclick={() => showFinding(editor, first)}
      >Show</button
    >
    {#if accepted}
      <button
        aria-label="Withdraw: {first.sentence}"
        onclick={() =>
          editor.edit('Withdraw an acceptance', (b) =>
            withdraw(
              b,
              findings.map(({ id }) => id),
            ),
          )}>Withdraw</button
      >
    {:else}
      <button
        aria-label="Accept: {first.sentence}"
        aria-expanded={accepting}
        onclick={() => (accepting = !accepting)}>Accept …</button
      >
    {/if}
  </span>
  {#if accepting}
    <AcceptForm
      {findings}
      oncancel={() => (accepting = false)}
      onaccept={(word: { reason: string; by: string; on: string }) => {
        try {
          editor.edit('Accept a finding', (b) => accept(b, findings, word));
          accepting = false;
        } catch (error) {
          if (!(error instanceof InputError)) throw error;
          refused = error.reason;
        }
      }}
    />
  {/if}
  {#if accepting && refused !== ''}<p class="changed" role="alert">Not accepted: {refused}.</p>{/if}
  {#if open}
    <ol>
      {#each findings.slice(1) as finding (finding.id)}
        <li>
          <span>{finding.sentence} <span class="quiet">{finding.packName}, {finding.clause}</span></span>
          <button
            class="show"
            aria-label="Show: {finding.sentence}"
            onclick={() => showFinding(editor, finding)}>Show</button
          >
        </li>
      {/each}
    </ol>
  {/if}
</li>

<style>
  li {
    display: grid;
    grid-template-columns: 5.5rem minmax(0, 1fr) auto auto;
    gap: 0 0.75rem;
    align-items: center;
    padding: 0.3rem 0.75rem;
    border-bottom: 1px solid var(--cds-ui-03);
    font-size: 13px;
    line-height: 1.35;
  }

  li.shown {
    background: var(--cds-ui-03);
    box-shadow: inset 3px 0 0 var(--accent);
  }

  .changed {
    color: var(--warn);
  }

  .stands {
    color: var(--good);
  }

  .small {
    font-size: 12px;
  }

  .figure {
    display: grid;
    text-align: right;
    font-size: 12px;
    font-variant-numeric: tabular-nums;
  }

  .do {
    display: flex;
    gap: 0.4rem;
  }

  button {
    padding: 0 0.6rem;
    height: 24px;
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
    cursor: pointer;
  }

  .show {
    border-color: var(--cds-interactive-04);
    color: var(--cds-link-01);
  }

  .plain {
    padding: 0;
    text-align: left;
    height: auto;
    border: 0;
    color: var(--cds-text-02);
  }

  ol {
    grid-column: 2 / -1;
  }

  ol li {
    grid-template-columns: minmax(0, 1fr) auto;
    padding: 0.2rem 0;
    border-bottom: 0;
    font-size: 12px;
  }
</style>
