<script lang="ts">
  import { usualConditions } from '@flarik/core/arrange/usualConditions';
  import { leavesOf, type Condition } from '@flarik/core/design/condition';
  import { programmeOf } from '@flarik/core/controls/programme';
  import { Wording } from '@flarik/core/controls/sentence';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';
  import { getEditor } from '$lib/editor/context';

  type Put = (condition: Condition) => void;

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
    onset: Put;
    onremove?: (() => void) | null;
  } = $props();
  const editor = getEditor()();
  const wording = $derived(new Wording(editor.build));
  const programme = $derived(programmeOf(editor.build));
  const inputs = $derived([
    ...programme.inputs,
    ...editor.build.controls.panels.flatMap((p) =>
      p.controls
        .filter((c) => c.kind === 'button' && !programme.hasValue(c.id))
        .map((c) => ({ id: c.id, name: `${c.label || c.id} held`, values: ['up', 'down'] })),
    ),
  ]);
  const { functions } = $derived(editor.build.controls);
  const usual = $derived(
    usualConditions(editor.build).filter(
      ({ condition: c }) => !inputsOnly || [...leavesOf(c)].every(({ kind }) => kind === 'is'),
    ),
  );

  const firstLeaf = (): Condition => ({ kind: 'is', input: 'ignition', values: ['on'] });
  const valuesOf = (id: string): readonly string[] => inputs.find((i) => i.id === id)?.values ?? [];

  /** Another thing that is asked about, as the list of choices names it. */
  function asked(about: string): Condition {
    const [kind, id = ''] = about.split(' ');
    const named = usual.find((one) => kind === 'usual' && one.id === id);
    if (named !== undefined) return named.condition;
    return kind === 'on'
      ? { kind: 'on', functionId: id }
      : { kind: 'is', input: id, values: [valuesOf(id).at(-1) ?? ''] };
  }

  /** The same parts put together otherwise; "one" keeps the first alone. */
  function together(of: readonly Condition[], how: string): Condition {
    return how === 'all' || how === 'any' ? { kind: how, of } : (of[0] ?? firstLeaf());
  }
</script>

{#snippet clause(c: Condition, name: string, put: Put, remove: (() => void) | null)}
  <div class="condition" role="group" aria-label={name}>
    {#if c.kind === 'all' || c.kind === 'any'}
      <select
        aria-label="{name}: together"
        value={c.kind}
        onchange={(event) => put(together(c.of, event.currentTarget.value))}
      >
        <option value="all">all of these</option>
        <option value="any">any of these</option>
        <option value="one">only the first of these</option>
      </select>
      <div class="parts">
        {#each c.of as part, i (i)}
          {@render clause(
            part,
            `${name}, part ${i + 1}`,
            (next) => put({ ...c, of: c.of.map((other, k) => (k === i ? next : other)) }),
            c.of.length > 1 ? () => put({ ...c, of: c.of.filter((_, k) => k !== i) }) : null,
          )}
        {/each}
        <button class="link" onclick={() => put({ ...c, of: [...c.of, firstLeaf()] })}>+ another</button>
      </div>
    {:else if c.kind === 'not'}
      <button class="plain" title="Press to take the “not” away" onclick={() => put(c.of)}>not</button>
      {@render clause(c.of, `${name}, not`, (of) => put({ kind: 'not', of }), null)}
    {:else}
      <select
        aria-label="{name}: asks about"
        value={c.kind === 'on' ? `on ${c.functionId}` : `is ${c.input}`}
        onchange={(event) => put(asked(event.currentTarget.value))}
      >
        {#if usual.length > 0}
          <optgroup label="Several at once">
            {#each usual as { id, name: text } (id)}<option value="usual {id}">{text}</option>{/each}
          </optgroup>
        {/if}
        <optgroup label="Inputs">
          {#each inputs as input (input.id)}<option value="is {input.id}">{input.name}</option>{/each}
          {#if c.kind === 'is' && !inputs.some(({ id }) => id === c.input)}
            <option value="is {c.input}">{c.input} (not there)</option>
          {/if}
        </optgroup>
        {#if !inputsOnly}
          <optgroup label="Functions">
            {#each functions as fn (fn.id)}<option value="on {fn.id}">{fn.name}</option>{/each}
          </optgroup>
        {/if}
      </select>
      {#if c.kind === 'on'}
        <span>is on</span>
      {:else}
        {@const { input } = c}
        <span>is</span>
        <TickBoxes
          label="{name}: values"
          items={[...valuesOf(input)]}
          chosen={c.values}
          nameOf={(value: string) => wording.value(input, value)}
          onset={(values: string[]) => put({ kind: 'is', input, values })}
        />
      {/if}
      <span class="more">
        <button class="link" onclick={() => put({ kind: 'all', of: [c, firstLeaf()] })}>and</button>
        <button class="link" onclick={() => put({ kind: 'any', of: [c, firstLeaf()] })}>or</button>
        <button class="link" onclick={() => put({ kind: 'not', of: c })}>not</button>
      </span>
    {/if}
    {#if remove !== null}
      <button class="link" aria-label="Take away {name}" onclick={remove}>✕</button>
    {/if}
  </div>
{/snippet}

{@render clause(condition, label, onset, onremove)}

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
