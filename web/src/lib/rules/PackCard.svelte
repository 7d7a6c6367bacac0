<script lang="ts">
  import { choosePack, removePack } from '@flarik/core/design/packEdits';
  import type { RulePack } from '@flarik/core/design/rulePack';
  import { withNewRule } from '@flarik/core/rules/packEdits';
  import { ruleSentence } from '@flarik/core/rules/registry';
  import { Button } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { severityMark } from '$lib/frame/severity';
  import { download } from '$lib/download';
  import NewRule from './NewRule.svelte';
  import Outcome from './Outcome.svelte';
  import PackHead from './PackHead.svelte';
  import RuleRow from './RuleRow.svelte';

  /** A pack of the build: how its rules come out; one's own are edited where they stand. */
  let {
    pack,
    oncopy,
    onshelve,
    ontry,
  }: {
    pack: RulePack;
    /** A copy of one's own is wanted, to be edited in its place. */
    oncopy: (pack: RulePack) => void;
    onshelve: (pack: RulePack) => void;
    ontry: (pack: RulePack) => void;
  } = $props();
  const editor = getEditor()();
  const outcomes = $derived(
    new Map(editor.outcomes.filter((o) => o.packId === pack.id).map((o) => [o.ruleId, o] as const)),
  );
  const own = $derived(pack.status === 'own');

  const STATUS = {
    example: 'Fictitious example, not the law',
    form: 'Blank form',
    own: 'Custom pack',
  } as const;

  const change = (label: string, changed: RulePack, merge?: string): void =>
    editor.edit(label, (b) => choosePack(b, changed), merge);
</script>

<article aria-label={pack.name}>
  <header>
    <div>
      <h2>{pack.name}</h2>
      <p class="quiet">{STATUS[pack.status]}. Source: {pack.source}. Edition: {pack.edition}.</p>
    </div>
    <div class="actions">
      {#if own}
        <Button size="small" kind="ghost" on:click={() => onshelve(pack)}>Add to library</Button>
      {:else}
        <Button size="small" kind="ghost" on:click={() => oncopy(pack)}
          >{pack.status === 'form' ? 'Fill in a copy' : 'Edit a copy'}</Button
        >
      {/if}
      <Button size="small" kind="ghost" on:click={() => ontry(pack)}>Try on other builds</Button>
      <Button
        size="small"
        kind="ghost"
        on:click={() => download(`${pack.id}.json`, `${JSON.stringify(pack, null, 2)}\n`)}
        >Save as a file</Button
      >
      <Button
        size="small"
        kind="ghost"
        on:click={() => editor.edit(`Remove ${pack.name}`, (b) => removePack(b, pack.id))}>Remove</Button
      >
    </div>
  </header>
  {#if pack.notes !== '' && !own}<p class="notes quiet">{pack.notes}</p>{/if}
  <PackHead {pack} onchange={change} />
  {#if own}
    <ol>
      {#each pack.rules as rule (rule.id)}
        <RuleRow {pack} {rule} outcome={outcomes.get(rule.id)} onchange={change} />
      {:else}
        <li class="quiet">This pack contains no rules. Add the first one below.</li>
      {/each}
    </ol>
    <NewRule
      onadd={(kind: string, title: string) => change(`Add a rule: ${title}`, withNewRule(pack, kind))}
    />
  {:else}
    <table>
      <caption class="visually-hidden">Rules of {pack.name}</caption>
      <thead>
        <tr
          ><th scope="col">Outcome</th><th scope="col">Rule</th><th scope="col">Clause</th><th scope="col"
            >Severity</th
          ></tr
        >
      </thead>
      <tbody>
        {#each pack.rules as rule (rule.id)}
          <tr>
            <td><Outcome {pack} {rule} outcome={outcomes.get(rule.id)} /></td>
            <td>{ruleSentence(rule)}</td>
            <td class="quiet">{rule.clause}</td>
            <td class="severity"
              ><span aria-hidden="true">{severityMark[rule.severity].shape}</span>
              {severityMark[rule.severity].name.toLowerCase()}</td
            >
          </tr>
        {:else}
          <tr><td colspan="4" class="quiet">This pack contains no rules.</td></tr>
        {/each}
      </tbody>
    </table>
  {/if}
</article>

<style>
  article {
    display: grid;
    gap: 0.6rem;
    padding: 0.75rem 1rem;
    background: var(--cds-ui-01);
  }

  header {
    display: flex;
    justify-content: space-between;
    gap: 1rem;
  }

  .actions {
    display: flex;
    flex-wrap: wrap;
    justify-content: flex-end;
  }

  .notes {
    font-size: 13px;
    max-width: 60rem;
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

  .severity {
    white-space: nowrap;
  }
</style>
