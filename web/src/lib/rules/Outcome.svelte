<script lang="ts">
  import type { RuleData, RulePack } from '@flarik/core/design/rulePack';
  import type { RuleOutcome } from '@flarik/core/rules/finding';
  import { formatNumber } from '@flarik/core/words/quantity';
  import { getEditor } from '$lib/editor/context';
  import { showFinding } from '$lib/frame/showFinding';

  /** How a rule came out over the states it speaks of, with the way to what is wrong. */
  let { pack, rule, outcome }: { pack: RulePack; rule: RuleData; outcome: RuleOutcome | undefined } =
    $props();
  const editor = getEditor()();
  const first = $derived(editor.findings.find((f) => f.packId === pack.id && f.ruleId === rule.id));

  /** The least room to the limit; a limit that is met to a hair says so. */
  const marginText = (margin: number | null): string =>
    margin === null || margin >= 1 ? '' : `, by ${Math.max(0, Math.floor(margin * 100))} %`;
</script>

<span>
  {#if outcome === undefined}
    <span class="quiet">…</span>
  {:else if outcome.verdict === 'holds'}
    {@const pass = `Pass in ${formatNumber(outcome.statesChecked)} states${marginText(outcome.margin)}`}
    {#if editor.pending === null}
      <span class="holds">✓ {pass}</span>
    {:else}
      <span class="quiet">{pass} so far ({editor.pending})</span>
    {/if}
  {:else if outcome.verdict === 'silent'}
    <span class="quiet">– Not applicable</span>
  {:else if outcome.verdict === 'cannot tell'}
    <button class="unsure" onclick={() => first !== undefined && showFinding(editor, first)}
      >? Inconclusive: show</button
    >
  {:else}
    <button class="broken" onclick={() => first !== undefined && showFinding(editor, first)}
      >✕ Fail: show</button
    >
  {/if}
</span>

<style>
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
