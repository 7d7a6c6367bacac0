<script lang="ts">
  import type { Condition } from '@flarik/core/design/condition';
  import { programmeOf } from '@flarik/core/controls/programme';
  import { Wording } from '@flarik/core/controls/sentence';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';
  import { getEditor } from '$lib/editor/context';
  import Self from './ConditionEditor.svelte';

  /** A condition as a sentence that is changed in place. */
  let {
    condition,
    label,
    inputsOnly = false,
    onset,
    onremove = null,
  }: {
    condition: Condition;
    label: string;
    /** It may not ask about functions. */
    inputsOnly?: boolean;
    onset: (condition: Condition) => void;
    onremove?: (() => void) | null;
  } = $props();
  const editor = getEditor()();
  const wording = $derived(new Wording(editor.build));
  const inputs = $derived([
    ...programmeOf(editor.build).inputs,
    ...editor.build.controls.panels.flatMap((p) =>
      p.controls
        .filter((c) => c.kind === 'button' && !programmeOf(editor.build).hasValue(c.id))
        .map((c) => ({ id: c.id, name: `${c.label || c.id} held`, values: ['up', 'down'] })),
    ),
  ]);
  const { functions } = $derived(editor.build.controls);

  const firstLeaf = (): Condition => ({ kind: 'is', input: 'ignition', values: ['on'] });
  const valuesOf = (id: string): readonly string[] => inputs.find((i) => i.id === id)?.values ?? [];

  function ask(about: string): void {
    const [kind, id = ''] = about.split(' ');
    if (kind === 'on') onset({ kind: 'on', functionId: id });
    else onset({ kind: 'is', input: id, values: [valuesOf(id).at(-1) ?? ''] });
  }

  function change(kind: string): void {
    const { of } = condition.kind === 'all' || condition.kind === 'any' ? condition : { of: [condition] };
    if (kind === 'all' || kind === 'any') onset({ kind, of });
    else if (kind === 'not') onset({ kind: 'not', of: condition.kind === 'not' ? condition.of : condition });
    else onset(condition.kind === 'not' ? condition.of : (of[0] ?? firstLeaf()));
  }
</script>

<div class="condition" role="group" aria-label={label}>
  {#if condition.kind === 'all' || condition.kind === 'any'}
    {@const list = condition}
    <select
      aria-label="{label}: together"
      value={condition.kind}
      onchange={(event) => change(event.currentTarget.value)}
    >
      <option value="all">all of these</option>
      <option value="any">any of these</option>
      <option value="one">only the first of these</option>
    </select>
    <div class="parts">
      {#each condition.of as part, i (i)}
        <Self
          condition={part}
          label="{label}, part {i + 1}"
          {inputsOnly}
          onset={(next: Condition) => onset({ ...list, of: list.of.map((c, k) => (k === i ? next : c)) })}
          onremove={list.of.length > 1
            ? () => onset({ ...list, of: list.of.filter((_, k) => k !== i) })
            : null}
        />
      {/each}
      <button class="link" onclick={() => onset({ ...list, of: [...list.of, firstLeaf()] })}>+ another</button
      >
    </div>
  {:else if condition.kind === 'not'}
    <button class="plain" title="Press to take the “not” away" onclick={() => change('one')}>not</button>
    <Self
      condition={condition.of}
      label="{label}, not"
      {inputsOnly}
      onset={(of: Condition) => onset({ kind: 'not', of })}
    />
  {:else}
    <select
      aria-label="{label}: asks about"
      value={condition.kind === 'on' ? `on ${condition.functionId}` : `is ${condition.input}`}
      onchange={(event) => ask(event.currentTarget.value)}
    >
      <optgroup label="Inputs">
        {#each inputs as input (input.id)}<option value="is {input.id}">{input.name}</option>{/each}
        {#if condition.kind === 'is' && !inputs.some((i) => condition.kind === 'is' && i.id === condition.input)}
          <option value="is {condition.input}">{condition.input} (not there)</option>
        {/if}
      </optgroup>
      {#if !inputsOnly}
        <optgroup label="Functions">
          {#each functions as fn (fn.id)}<option value="on {fn.id}">{fn.name}</option>{/each}
        </optgroup>
      {/if}
    </select>
    {#if condition.kind === 'on'}
      <span>is on</span>
    {:else}
      {@const { input } = condition}
      <span>is</span>
      <TickBoxes
        label="{label}: values"
        items={[...valuesOf(input)]}
        chosen={condition.values}
        nameOf={(value: string) => wording.value(input, value)}
        onset={(values: string[]) => onset({ kind: 'is', input, values })}
      />
    {/if}
    <span class="more">
      <button class="link" onclick={() => onset({ kind: 'all', of: [condition, firstLeaf()] })}>and</button>
      <button class="link" onclick={() => onset({ kind: 'any', of: [condition, firstLeaf()] })}>or</button>
      <button class="link" onclick={() => change('not')}>not</button>
    </span>
  {/if}
  {#if onremove !== null}
    <button class="link" aria-label="Take away {label}" onclick={onremove}>✕</button>
  {/if}
</div>

<style>
  .condition {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.25rem 0.4rem;
    padding: 0.2rem 0 0.2rem 0.4rem;
    border-left: 2px solid var(--cds-ui-04);
    font-size: 12.5px;
  }

  .parts {
    flex-basis: 100%;
  }

  .more {
    display: flex;
    gap: 0.4rem;
  }

  select {
    max-width: 12rem;
  }
</style>
