<script lang="ts">
  import { nameCondition, namedConditions, usualFirst } from '@flarik/core/arrange/namedConditions';
  import { usualConditions } from '@flarik/core/arrange/usualConditions';
  import { controlsFailure } from '@flarik/core/design/controlEdits';
  import { leavesOf, type Condition } from '@flarik/core/design/condition';
  import type { FunctionKind } from '@flarik/core/design/functions';
  import { controlName } from '@flarik/core/design/panel';
  import { Name } from '@flarik/core/words/names';
  import { compileProgram } from '@flarik/core/controls/program';
  import { Wording } from '@flarik/core/controls/sentence';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import AskedAbout from './AskedAbout.svelte';

  type Put = (condition: Condition) => void;

  /** A condition as a sentence that is changed in place. */
  let {
    condition,
    label,
    inputsOnly = false,
    kind = 'stage',
    onset,
    onremove = null,
  }: {
    condition: Condition;
    label: string;
    /** It may not ask about functions. */
    inputsOnly?: boolean;
    /** What the function is for that asks, by which its next part is guessed. */
    kind?: FunctionKind;
    onset: Put;
    onremove?: (() => void) | null;
  } = $props();
  const editor = getEditor()();
  const wording = $derived(new Wording(editor.build));
  const programme = $derived(compileProgram(editor.build));
  const inputs = $derived([
    ...programme.inputs,
    ...editor.build.controls.panels.flatMap((p) =>
      p.controls
        .filter((c) => c.kind === 'button' && !programme.hasValue(c.id))
        .map((c) => ({ id: c.id, name: `${controlName(c)} held`, values: ['up', 'down'] })),
    ),
  ]);
  const { functions } = $derived(editor.build.controls);
  const usual = $derived(
    usualConditions(editor.build).filter(
      ({ condition: c }) => !inputsOnly || [...leavesOf(c)].every(({ kind }) => kind === 'is'),
    ),
  );

  const firstLeaf = (): Condition => {
    const usualOne = usualFirst(editor.build, kind);
    return inputsOnly && usualOne.kind === 'on'
      ? { kind: 'is', input: 'ignition', values: ['on'] }
      : usualOne;
  };
  const choices = $derived.by(() => {
    const named = new Set(namedConditions(editor.build).map(({ id }) => id));
    return [
      ...usual.map(({ id, name }) => ({ id: `usual ${id}`, text: name })),
      ...(inputsOnly ? [] : functions)
        .toSorted((a, b) => Number(named.has(b.id)) - Number(named.has(a.id)))
        .map(({ id, name }) => ({
          id: `on ${id}`,
          text: named.has(id) ? `${name} (named)` : `${name} is on`,
        })),
      ...inputs.map(({ id, name }) => ({ id: `is ${id}`, text: name })),
    ];
  });
  /** What the list shows of a part: its choices, and what is asked about although it is not there. */
  const choicesFor = (about: string): { id: string; text: string }[] =>
    choices.some(({ id }) => id === about) ? choices : [...choices, { id: about, text: 'Deleted item' }];

  /** The part that is being given a name, and the name; null while none is. */
  let naming: { readonly part: string; name: string } | null = $state(null);

  let trouble = $state('');

  function keepName(c: Condition, put: Put): void {
    const name = Name.safeParse(naming?.name.trim());
    naming = null;
    if (!name.success) return;
    const id = freshId('condition-');
    const named = nameCondition(editor.build, id, name.data, c);
    const reason = controlsFailure(named, editor.build);
    trouble = reason === null ? '' : `Not named: ${reason}.`;
    if (reason !== null) return;
    editor.edit(`Name the condition ${name.data}`, () => named);
    put({ kind: 'on', functionId: id });
  }
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

{#snippet more(c: Condition, name: string, put: Put, unwrap: (() => void) | null)}
  <span class="more">
    {#if naming?.part === name}
      <input aria-label="{name}: call it" maxlength="80" placeholder="Name" bind:value={naming.name} />
      <button class="link" onclick={() => keepName(c, put)}>Save</button>
      <button class="link" aria-label="No name" onclick={() => (naming = null)}>✕</button>
    {:else}
      <button class="link" onclick={() => put({ kind: 'all', of: [c, firstLeaf()] })}>and</button>
      <button class="link" onclick={() => put({ kind: 'any', of: [c, firstLeaf()] })}>or</button>
      <button class="link" onclick={() => put({ kind: 'not', of: c })}>not</button>
      {#if unwrap !== null}
        <button class="link" title="Merge its parts into the list" onclick={unwrap}>unwrap</button>
      {/if}
      {#if !inputsOnly && (c.kind === 'all' || c.kind === 'any')}
        <button
          class="link"
          title="Save as a named condition for other functions"
          onclick={() => (naming = { part: name, name: '' })}>name it</button
        >
      {/if}
    {/if}
  </span>
{/snippet}

{#snippet clause(
  c: Condition,
  name: string,
  put: Put,
  remove: (() => void) | null,
  unwrap: (() => void) | null,
)}
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
      {@render more(c, name, put, unwrap)}
      <div class="parts">
        {#each c.of as part, i (i)}
          {@render clause(
            part,
            `${name}, part ${i + 1}`,
            (next) => put({ ...c, of: c.of.map((other, k) => (k === i ? next : other)) }),
            c.of.length > 1 ? () => put({ ...c, of: c.of.filter((_, k) => k !== i) }) : null,
            part.kind === 'all' || part.kind === 'any'
              ? () => put({ ...c, of: c.of.flatMap((other, k) => (k === i ? part.of : [other])) })
              : null,
          )}
        {/each}
        <button class="link" onclick={() => put({ ...c, of: [...c.of, firstLeaf()] })}>+ another</button>
      </div>
    {:else if c.kind === 'not'}
      <button class="plain" title="Remove “not”" onclick={() => put(c.of)}>not</button>
      {@render clause(c.of, `${name}, not`, (of) => put({ kind: 'not', of }), null, null)}
    {:else}
      {@const about = c.kind === 'on' ? `on ${c.functionId}` : `is ${c.input}`}
      <AskedAbout
        label="{name}: reads"
        items={choicesFor(about)}
        value={about}
        onset={(next: string) => put(asked(next))}
      />
      {#if c.kind === 'is'}
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
      {@render more(c, name, put, null)}
    {/if}
    {#if remove !== null}
      <button class="link" aria-label="Remove {name}" onclick={remove}>✕</button>
    {/if}
  </div>
{/snippet}

{@render clause(condition, label, onset, onremove, null)}
{#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}

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

  .trouble {
    color: var(--gap);
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
