<script lang="ts">
  import type { RulePack } from '@flarik/core/design/rulePack';
  import { ruleSentence } from '@flarik/core/rules/registry';
  import { Button, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { severityMark } from '$lib/frame/severity';
  import { showFinding } from '$lib/frame/showFinding';

  let { pack }: { pack: RulePack } = $props();
  const editor = getEditor()();
  const outcomes = $derived(
    new Map(
      (editor.check.answer?.outcomes ?? [])
        .filter((o) => o.packId === pack.id)
        .map((o) => [o.ruleId, o] as const),
    ),
  );
  const findings = $derived(editor.check.answer?.findings ?? []);

  const STATUS = {
    example: 'Made-up example, not the law',
    form: 'Blank form',
    own: 'Own pack',
  } as const;

  const change = (label: string, patch: Partial<RulePack>) =>
    editor.edit(label, (b) => ({
      ...b,
      rulePacks: b.rulePacks.map((p) => (p.id === pack.id ? { ...p, ...patch } : p)),
    }));

  /** The least room to the limit; a limit that is met to a hair says so. */
  const marginText = (margin: number | null): string =>
    margin === null || margin >= 1 ? '' : `, by ${Math.max(0, Math.floor(margin * 100))} %`;

  const isDate = (text: string): boolean => text === '' || /^\d{4}-\d{2}-\d{2}$/.test(text);
</script>

<article>
  <header>
    <div>
      <h2>{pack.name}</h2>
      <p class="quiet">{STATUS[pack.status]}. Source: {pack.source}. Edition: {pack.edition}.</p>
    </div>
    <Button
      size="small"
      kind="ghost"
      on:click={() =>
        editor.edit(`Leave out ${pack.name}`, (b) => ({
          ...b,
          rulePacks: b.rulePacks.filter((p) => p.id !== pack.id),
        }))}
    >
      Leave out
    </Button>
  </header>
  {#if pack.notes !== ''}<p class="notes quiet">{pack.notes}</p>{/if}
  <div class="checked">
    <TextInput
      size="sm"
      labelText="Checked against the edition in force by"
      placeholder="nobody yet"
      maxlength={80}
      value={pack.checkedBy}
      on:change={(event) =>
        change('Checked by', { checkedBy: String(event.detail ?? '').replaceAll(/[<>]/g, '') })}
    />
    <TextInput
      size="sm"
      labelText="Checked on (year-month-day)"
      placeholder="not yet"
      value={pack.checkedOn}
      on:change={(event) => {
        const on = String(event.detail ?? '').trim();
        if (isDate(on)) change('Checked on', { checkedOn: on });
      }}
    />
  </div>
  <table>
    <caption class="visually-hidden">Rules of {pack.name}</caption>
    <thead>
      <tr
        ><th scope="col">Outcome</th><th scope="col">Rule</th><th scope="col">Clause</th><th scope="col"
          >If broken</th
        ></tr
      >
    </thead>
    <tbody>
      {#each pack.rules as rule (rule.id)}
        {@const outcome = outcomes.get(rule.id)}
        {@const first = findings.find((f) => f.packId === pack.id && f.ruleId === rule.id)}
        <tr>
          <td class="outcome">
            {#if outcome === undefined}
              <span class="quiet">…</span>
            {:else if outcome.verdict === 'holds'}
              <span class="holds"
                >✓ holds in all {outcome.statesChecked} states{marginText(outcome.margin)}</span
              >
            {:else if outcome.verdict === 'silent'}
              <span class="quiet">– not for this service</span>
            {:else if outcome.verdict === 'cannot tell'}
              <button class="unsure" onclick={() => first !== undefined && showFinding(editor, first)}
                >? cannot tell: show</button
              >
            {:else}
              <button class="broken" onclick={() => first !== undefined && showFinding(editor, first)}
                >✕ broken: show</button
              >
            {/if}
          </td>
          <td>{ruleSentence(rule)}</td>
          <td class="quiet">{rule.clause}</td>
          <td class="severity"
            ><span aria-hidden="true">{severityMark[rule.severity].shape}</span>
            {severityMark[rule.severity].name.toLowerCase()}</td
          >
        </tr>
      {:else}
        <tr><td colspan="4" class="quiet">This pack holds no rules yet.</td></tr>
      {/each}
    </tbody>
  </table>
</article>

<style>
  article {
    display: grid;
    gap: 0.5rem;
    padding: 0.75rem 1rem;
    background: var(--cds-ui-01);
  }

  header {
    display: flex;
    justify-content: space-between;
    gap: 1rem;
  }

  .notes {
    font-size: 13px;
    max-width: 60rem;
  }

  .checked {
    display: grid;
    grid-template-columns: 18rem 14rem;
    gap: 1rem;
  }

  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 13px;
  }

  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.35rem 0.75rem 0.35rem 0;
    line-height: 1.4;
    border-top: 1px solid var(--cds-ui-03);
  }

  th {
    color: var(--cds-text-02);
    font-weight: 400;
  }

  .outcome,
  .severity {
    white-space: nowrap;
  }

  .holds {
    color: var(--good);
  }

  .broken,
  .unsure {
    border: 1px solid var(--gap);
    background: none;
    color: var(--gap);
    font: inherit;
    padding: 0 0.4rem;
    cursor: pointer;
  }

  .unsure {
    border-color: var(--warn);
    color: var(--warn);
  }
</style>
