<script lang="ts">
  import { freeId } from '@flarik/core/arrange/panelEdits';
  import type { Condition } from '@flarik/core/design/condition';
  import { controlsFailure, withControls } from '@flarik/core/design/controlEdits';
  import type { Controls } from '@flarik/core/design/controls';
  import { inputsOf } from '@flarik/core/design/inputs';
  import { Wording } from '@flarik/core/controls/sentence';
  import { Name } from '@flarik/core/words/names';
  import { getEditor } from '$lib/editor/context';
  import ConditionEditor from '$lib/pieces/ConditionEditor.svelte';
  import Triggers from './Triggers.svelte';

  /** Inputs of the shop's own, what follows what, what cannot happen together, the master switch, other outputs. */
  const editor = getEditor()();
  const { controls } = $derived(editor.build);
  const inputs = $derived(inputsOf(editor.build));
  const wording = $derived(new Wording(editor.build));
  let trouble = $state('');

  function change(what: string, patch: Partial<Controls>): void {
    const reason = controlsFailure(withControls(editor.build, patch), editor.build);
    trouble = reason === null ? '' : `Nothing was changed: ${reason}.`;
    if (reason === null) editor.edit(what, (b) => withControls(b, patch));
  }

  const ignition: Condition = { kind: 'is', input: 'ignition', values: ['on'] };
  const replaced = <T>(list: readonly T[], i: number, item: T): T[] =>
    list.map((x, k) => (k === i ? item : x));
  const without = <T>(list: readonly T[], i: number): T[] => list.filter((_, k) => k !== i);
  const words = (text: string): string[] => text.split(',').flatMap((w) => w.trim() || []);
  const valuesOf = (id: string): readonly string[] => inputs.find((i) => i.id === id)?.values ?? [];
</script>

<section class="inputs" aria-label="Inputs and outputs">
  {#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}
  <h2>Master switch: functions require</h2>
  {#if controls.enabledBy === null}
    <button class="plain" onclick={() => change('Master switch', { enabledBy: ignition })}>Condition …</button
    >
  {:else}
    <ConditionEditor
      condition={controls.enabledBy}
      label="Master"
      inputsOnly
      onset={(enabledBy: Condition) => change('Master switch', { enabledBy })}
      onremove={() => change('No master switch', { enabledBy: null })}
    />
  {/if}

  <h2>Custom inputs</h2>
  {#each controls.inputs as input, i (input.id)}
    <div class="row">
      <input
        aria-label="Name of input"
        value={input.name}
        maxlength="80"
        onchange={(event) => {
          const name = Name.safeParse(event.currentTarget.value.trim());
          if (name.success)
            change(`Rename ${input.name}`, {
              inputs: replaced(controls.inputs, i, { ...input, name: name.data }),
            });
        }}
      />
      <input
        aria-label="Values, default first"
        value={input.values.join(', ')}
        onchange={(event) => {
          const values = words(event.currentTarget.value);
          if (values.length < 2 || values.length > 8) trouble = 'An input has two to eight values.';
          else
            change(`Values of ${input.name}`, { inputs: replaced(controls.inputs, i, { ...input, values }) });
        }}
      />
      <button
        class="link"
        aria-label="Delete input {input.name}"
        onclick={() =>
          change(`Delete ${input.name}`, {
            inputs: without(controls.inputs, i),
            triggers: controls.triggers.filter((t) => t.input !== input.id),
          })}>✕</button
      >
    </div>
  {/each}
  <button
    class="plain"
    onclick={() =>
      change('New input', {
        inputs: [
          ...controls.inputs,
          {
            id: freeId(editor.build, 'input'),
            name: `Input ${controls.inputs.length + 1}`,
            values: ['off', 'on'],
            byHand: false,
          },
        ],
      })}>Add an input</button
  >

  <h2>Input sources</h2>
  <Triggers onset={(what: string, triggers: Controls['triggers']) => change(what, { triggers })} />

  <h2>Auxiliary outputs</h2>
  {#each controls.loads as load, i (load.id)}
    <div class="row">
      <input
        aria-label="Name of output"
        value={load.name}
        maxlength="80"
        onchange={(event) => {
          const name = Name.safeParse(event.currentTarget.value.trim());
          if (name.success)
            change(`Rename ${load.name}`, {
              loads: replaced(controls.loads, i, { ...load, name: name.data }),
            });
        }}
      />
      <input
        aria-label="Values, off first"
        value={load.values.join(', ')}
        onchange={(event) => {
          const values = words(event.currentTarget.value);
          if (values.length < 2 || values.length > 12)
            trouble = 'An output needs off and at least one other value.';
          else change(`Values of ${load.name}`, { loads: replaced(controls.loads, i, { ...load, values }) });
        }}
      />
      <button
        class="link"
        aria-label="Delete output {load.name}"
        onclick={() => change(`Delete ${load.name}`, { loads: without(controls.loads, i) })}>✕</button
      >
    </div>
  {/each}
  <button
    class="plain"
    onclick={() =>
      change('New output', {
        loads: [
          ...controls.loads,
          {
            id: freeId(editor.build, 'load'),
            name: `Output ${controls.loads.length + 1}`,
            values: ['off', 'on'],
          },
        ],
      })}>Add a siren, gate, fan …</button
  >

  <h2>Input links</h2>
  {#each controls.follows as f, i (i)}
    <div class="follow">
      When
      <select
        aria-label="Leader"
        value={f.input}
        onchange={(event) => {
          const input = event.currentTarget.value;
          change('Change input links', {
            follows: replaced(controls.follows, i, { ...f, input, values: [valuesOf(input).at(-1) ?? ''] }),
          });
        }}
        >{#each inputs as input (input.id)}<option value={input.id}>{input.name}</option>{/each}</select
      >
      goes to
      <select
        aria-label="Leader's value"
        value={f.values[0]}
        onchange={(event) =>
          change('Change input links', {
            follows: replaced(controls.follows, i, { ...f, values: [event.currentTarget.value] }),
          })}
        >{#each valuesOf(f.input) as value (value)}<option {value}>{wording.value(f.input, value)}</option
          >{/each}</select
      >,
      <select
        aria-label="Follower"
        value={f.follower}
        onchange={(event) => {
          const follower = event.currentTarget.value;
          change('Change input links', {
            follows: replaced(controls.follows, i, { ...f, follower, takes: valuesOf(follower)[0] ?? '' }),
          });
        }}
        >{#each inputs as input (input.id)}<option value={input.id}>{input.name}</option>{/each}</select
      >
      goes to
      <select
        aria-label="Follower's value"
        value={f.takes}
        onchange={(event) =>
          change('Change input links', {
            follows: replaced(controls.follows, i, { ...f, takes: event.currentTarget.value }),
          })}
        >{#each valuesOf(f.follower) as value (value)}<option {value}
            >{wording.value(f.follower, value)}</option
          >{/each}</select
      >
      <button
        class="link"
        aria-label="Remove input link {i + 1}"
        onclick={() => change('Change input links', { follows: without(controls.follows, i) })}>✕</button
      >
    </div>
  {/each}
  <button
    class="plain"
    onclick={() =>
      change('Change input links', {
        follows: [
          ...controls.follows,
          { input: 'engine', values: ['running'], follower: 'shore', takes: 'no' },
        ],
      })}>Starting the engine ejects the shore plug …</button
  >

  <h2>Excluded combinations</h2>
  {#each controls.never as rule, i (i)}
    <div class="never">
      Whenever
      <ConditionEditor
        condition={rule.when}
        label="Whenever {i + 1}"
        inputsOnly
        onset={(when: Condition) =>
          change('Change excluded combinations', { never: replaced(controls.never, i, { ...rule, when }) })}
      />
      then always
      <ConditionEditor
        condition={rule.then}
        label="Then {i + 1}"
        inputsOnly
        onset={(then: Condition) =>
          change('Change excluded combinations', { never: replaced(controls.never, i, { ...rule, then }) })}
      />
      <button
        class="link"
        aria-label="Remove excluded combination {i + 1}"
        onclick={() => change('Change excluded combinations', { never: without(controls.never, i) })}
        >✕</button
      >
    </div>
  {/each}
  <button
    class="plain"
    onclick={() =>
      change('Change excluded combinations', {
        never: [
          ...controls.never,
          { when: { kind: 'is', input: 'engine', values: ['running'] }, then: ignition },
        ],
      })}>Add one</button
  >
</section>

<style>
  .inputs {
    display: grid;
    align-content: start;
    justify-items: start;
    gap: 0.4rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  h2 {
    width: 100%;
    font-size: 13px;
    font-weight: 600;
    border-top: 1px solid var(--cds-ui-03);
    padding-top: 0.4rem;
  }

  .row {
    display: grid;
    grid-template-columns: 1fr 1fr auto;
    gap: 0.4rem;
    width: 100%;
  }

  .follow,
  .never {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    align-items: center;
    font-size: 12.5px;
  }

  .trouble {
    color: var(--gap);
    font-size: 12.5px;
  }
</style>
