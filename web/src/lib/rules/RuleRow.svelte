<script lang="ts">
  import type { Condition } from '@flarik/core/design/condition';
  import { MODES, type RuleData, type RulePack } from '@flarik/core/design/rulePack';
  import { movedRule, withRuleField, withRules } from '@flarik/core/rules/packEdits';
  import { kindOf, ruleSentence } from '@flarik/core/rules/registry';
  import type { RuleOutcome } from '@flarik/core/rules/finding';
  import { elevationsOf, elevationsText } from '@flarik/core/words/elevations';
  import { InputError } from '@flarik/core/words/errors';
  import { SERVICES, serviceName, type Service } from '@flarik/core/words/service';
  import { SEVERITIES, type Severity } from '@flarik/core/words/severity';
  import { Button } from 'carbon-components-svelte';
  import ArrowDown from 'carbon-icons-svelte/lib/ArrowDown.svelte';
  import ArrowUp from 'carbon-icons-svelte/lib/ArrowUp.svelte';
  import TrashCan from 'carbon-icons-svelte/lib/TrashCan.svelte';
  import { severityMark } from '$lib/frame/severity';
  import ConditionEditor from '$lib/pieces/ConditionEditor.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';
  import Outcome from './Outcome.svelte';
  import RuleSentence from './RuleSentence.svelte';

  /** One rule of a pack that is edited: its sentence with its figures in it, what else it says, and how it comes out. */
  let {
    pack,
    rule,
    outcome,
    onchange,
  }: {
    pack: RulePack;
    rule: RuleData;
    outcome: RuleOutcome | undefined;
    onchange: (label: string, pack: RulePack, merge?: string) => void;
  } = $props();
  let refused = $state('');

  const sentence = $derived(ruleSentence(rule));
  const kind = $derived(kindOf(rule));
  const first = $derived(pack.rules[0]?.id === rule.id);
  const last = $derived(pack.rules.at(-1)?.id === rule.id);

  function set(field: string, value: unknown): void {
    try {
      const changed = withRuleField(pack, rule.id, field, value);
      refused = '';
      onchange(`Change the rule: ${sentence}`, changed, `rule ${pack.id} ${rule.id} ${field}`);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      refused = error.reason;
    }
  }
</script>

<li aria-label={sentence}>
  <div class="words">
    <RuleSentence {rule} onset={set} />
    <div class="more">
      {#if kind.inStates}
        <TickBoxes
          label="Stages"
          items={MODES.map(String)}
          chosen={rule.stages.map(String)}
          nameOf={(mode: string) => `stage ${mode}`}
          onset={(modes: string[]) => set('stages', modes.map(Number).toSorted())}
        />
        {#if kind.alongElevations}
          <label
            >seen from
            <input
              type="text"
              class="short"
              aria-label="Elevations, degrees: -5 to 5; 10"
              value={elevationsText(rule.elevationsDeg)}
              onchange={({ currentTarget }) => set('elevationsDeg', elevationsOf(currentTarget.value))}
            />°</label
          >
        {/if}
      {/if}
      {#if kind.asksWhen && rule.when === null}
        <button class="plain" onclick={() => set('when', { kind: 'is', input: 'gear', values: ['drive'] })}
          >only when …</button
        >
      {/if}
      <details>
        <summary
          >{rule.services.length === 0
            ? 'all services'
            : rule.services.map((s) => serviceName[s]).join(', ')}</summary
        >
        <TickBoxes
          label="Services it applies to; none selected means all"
          items={SERVICES}
          chosen={rule.services}
          atLeast={0}
          nameOf={(service: Service) => serviceName[service]}
          onset={(services: Service[]) => set('services', services)}
        />
      </details>
      <label class="clause"
        >Clause
        <input
          type="text"
          maxlength={80}
          value={rule.clause}
          onchange={({ currentTarget }) => set('clause', currentTarget.value)}
        /></label
      >
      <InlineChoice
        label="Severity"
        options={SEVERITIES.map((value) => ({ value, text: severityMark[value].name }))}
        value={rule.severity}
        onset={(severity: Severity) => set('severity', severity)}
      />
    </div>
    {#if rule.when !== null && kind.asksWhen}
      <ConditionEditor
        condition={rule.when}
        label="Only when"
        inputsOnly
        onset={(when: Condition) => set('when', when)}
        onremove={() => set('when', null)}
      />
    {/if}
    {#if refused !== ''}<p class="refused" role="alert">Not accepted: {refused}.</p>{/if}
  </div>
  <Outcome {pack} {rule} {outcome} />
  <div class="tools">
    <Button
      kind="ghost"
      size="small"
      icon={ArrowUp}
      disabled={first}
      iconDescription="Up: {sentence}"
      tooltipPosition="left"
      on:click={() => onchange('Move a rule up', movedRule(pack, rule.id, -1))}
    />
    <Button
      kind="ghost"
      size="small"
      icon={ArrowDown}
      disabled={last}
      iconDescription="Down: {sentence}"
      tooltipPosition="left"
      on:click={() => onchange('Move a rule down', movedRule(pack, rule.id, 1))}
    />
    <Button
      kind="ghost"
      size="small"
      icon={TrashCan}
      iconDescription="Delete: {sentence}"
      tooltipPosition="left"
      on:click={() =>
        onchange(
          `Delete the rule: ${sentence}`,
          withRules(
            pack,
            pack.rules.filter((r) => r.id !== rule.id),
          ),
        )}
    />
  </div>
</li>

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 13rem auto;
    gap: 0.75rem;
    align-items: start;
    padding: 0.5rem 0;
    border-top: 1px solid var(--cds-ui-03);
    font-size: 13px;
  }

  .more {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 0.9rem;
    align-items: center;
    padding-top: 0.3rem;
    color: var(--cds-text-02);
  }

  .clause {
    display: flex;
    align-items: center;
    gap: 0.4rem;
  }

  .clause input {
    width: 15rem;
  }

  summary {
    cursor: pointer;
  }

  .short {
    width: 5rem;
  }

  .plain {
    padding: 0;
    border: 0;
    background: none;
    color: var(--cds-link-01);
    font: inherit;
    cursor: pointer;
  }

  .tools {
    display: flex;
  }

  .refused {
    color: var(--gap);
  }
</style>
