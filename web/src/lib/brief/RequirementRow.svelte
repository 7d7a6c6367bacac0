<script lang="ts">
  import { describeRequirement, type CompleteRequirement } from '@flarik/core/rules/brief/requirements';
  import { changeRequirement, removeRequirement } from '@flarik/core/design/briefEdits';
  import { SEVERITIES, type Severity } from '@flarik/core/words/severity';
  import { Button } from 'carbon-components-svelte';
  import TrashCan from 'carbon-icons-svelte/lib/TrashCan.svelte';
  import { getEditor } from '$lib/editor/context';
  import { severityMark } from '$lib/frame/severity';
  import SeverityMark from '$lib/frame/SeverityMark.svelte';
  import { showFinding } from '$lib/frame/showFinding';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import RequirementSentence from './RequirementSentence.svelte';

  /** One wish: a sentence with its figures in it, and how it stands just now. */
  let { wish }: { wish: CompleteRequirement } = $props();
  const editor = getEditor()();

  const sentence = $derived(describeRequirement(editor.build, wish));
  const findings = $derived(editor.findings.filter((f) => f.packId === 'brief' && f.ruleId === wish.id));

  /** Known once the build as it is now is verified; until then only what fails is told. */
  const verdict = $derived(
    editor.pending === null
      ? editor.outcomes.find((o) => o.packId === 'brief' && o.ruleId === wish.id)?.verdict
      : undefined,
  );
  const holds = $derived(findings.length === 0 && verdict === 'holds');

  const set = (changed: CompleteRequirement): void =>
    editor.edit(
      `Change requirement: ${sentence}`,
      (b) => changeRequirement(b, changed),
      `requirement ${wish.id}`,
    );
</script>

<li class:broken={findings.length > 0} class:holds>
  <div>
    <RequirementSentence {wish} onset={set} />
    <p class="standing">
      {#if holds}
        <span class="pass">✓ Pass</span>
      {:else if verdict === 'silent'}
        <span class="quiet">– Not applicable: its condition never occurs</span>
      {:else if findings.length === 0}
        <span class="quiet">{editor.pending ?? '? Inconclusive'}</span>
      {:else}
        {#each findings.slice(0, 3) as finding (finding.id)}
          <button onclick={() => showFinding(editor, finding)}
            ><SeverityMark severity={finding.severity} short />
            {finding.sentence}</button
          >
        {/each}
        {#if findings.length > 3}<span class="quiet">and {findings.length - 3} more below</span>{/if}
      {/if}
    </p>
  </div>
  <InlineChoice
    label="Severity: {sentence}"
    options={SEVERITIES.map((value) => ({ value, text: severityMark[value].name }))}
    value={wish.severity}
    onset={(severity: Severity) => set({ ...wish, severity })}
  />
  <Button
    kind="ghost"
    size="small"
    icon={TrashCan}
    iconDescription="Delete: {sentence}"
    tooltipPosition="left"
    on:click={() => editor.edit(`Delete requirement: ${sentence}`, (b) => removeRequirement(b, wish.id))}
  />
</li>

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 0.5rem;
    align-items: start;
    padding: 0.6rem 0.5rem 0.6rem 0.75rem;
    border-left: 3px solid var(--cds-ui-04);
    background: var(--cds-ui-01);
  }

  li.holds {
    border-left-color: var(--good);
  }

  li.broken {
    border-left-color: var(--gap);
  }

  .standing {
    display: grid;
    gap: 2px;
    font-size: 13px;
  }

  .standing button {
    padding: 0;
    border: 0;
    background: none;
    color: var(--cds-text-02);
    font: inherit;
    text-align: left;
    cursor: pointer;
  }

  .standing button:hover {
    color: var(--cds-text-01);
    text-decoration: underline;
  }

  .pass {
    color: var(--good);
  }
</style>
