<script lang="ts">
  import { changePlacement } from '@flarik/core/arrange/lamps';
  import type { Placement } from '@flarik/core/design/placement';
  import { changeFunction, controlsFailure } from '@flarik/core/design/controlEdits';
  import { functionAt } from '@flarik/core/design/controls';
  import {
    FUNCTION_KINDS,
    labelFrom,
    LONGEST_LABEL,
    type ControlFunction,
  } from '@flarik/core/design/functions';
  import { Name } from '@flarik/core/words/names';
  import { getEditor } from '$lib/editor/context';
  import ShownFields from './ShownFields.svelte';
  import WhenFields from './WhenFields.svelte';

  /** Everything about one function. */
  let { id }: { id: string } = $props();
  const editor = getEditor()();
  const fn = $derived(functionAt(editor.build, id));
  let trouble = $state('');

  function change(patch: Partial<Omit<ControlFunction, 'id'>>, what = 'Change'): void {
    const reason = controlsFailure(changeFunction(editor.build, id, patch), editor.build);
    trouble = reason === null ? '' : `Nothing was changed: ${reason}.`;
    if (reason === null) editor.edit(`${what} ${fn.name}`, (b) => changeFunction(b, id, patch));
  }

  function rename(text: string): void {
    const name = Name.safeParse(text.trim());
    if (!name.success) return;
    const follows = fn.label === labelFrom(fn.name);
    change({ name: name.data, ...(follows ? { label: labelFrom(name.data) } : {}) }, 'Rename');
  }

  const flashers = $derived(
    editor.build.placements.filter((p) => editor.lookup.fixture(p.fixtureId).kind === 'factory'),
  );
  const stop = (p: Placement, stops: boolean): void =>
    editor.edit(`Flasher of ${p.label}`, (b) =>
      changePlacement(b, p.id, {
        stopsFor: stops ? [...p.stopsFor, fn.id] : p.stopsFor.filter((signal) => signal !== fn.id),
      }),
    );
</script>

<section class="function" aria-label="Function {fn.name}">
  <div class="pair">
    <label
      >Name <input
        value={fn.name}
        maxlength="80"
        onchange={(event) => rename(event.currentTarget.value)}
      /></label
    >
    <label
      >On the key <input
        value={fn.label}
        maxlength={LONGEST_LABEL}
        onchange={(event) => change({ label: event.currentTarget.value.trim() }, 'Label of')}
      /></label
    >
    <label
      >Kind
      <select
        value={fn.kind}
        onchange={(event) => {
          const kind = FUNCTION_KINDS.find((k) => k === event.currentTarget.value);
          if (kind !== undefined) change({ kind }, 'Kind of');
        }}
      >
        {#each FUNCTION_KINDS as kind (kind)}<option value={kind}>{kind}</option>{/each}
      </select></label
    >
    <label
      >Mode for rules
      <select
        value={fn.mode === null ? '' : String(fn.mode)}
        onchange={(event) => {
          const mode = ([0, 1, 2, 3] as const).find((m) => String(m) === event.currentTarget.value) ?? null;
          change({ mode }, 'Mode of');
        }}
      >
        <option value="">none of its own</option>
        {#each [0, 1, 2, 3] as m (m)}<option value={String(m)}>{m === 0 ? '0, no warning' : m}</option>{/each}
      </select></label
    >
  </div>
  {#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}

  <WhenFields {fn} {change} />

  {#if fn.kind === 'signal' && flashers.length > 0}
    <h2>Factory lamp flashers that stop for this signal</h2>
    {#each flashers as p (p.id)}
      <label class="tick"
        ><input
          type="checkbox"
          checked={p.stopsFor.includes(fn.id)}
          onchange={(event) => stop(p, event.currentTarget.checked)}
        />
        {p.label}</label
      >
    {/each}
  {/if}

  <ShownFields {fn} />
</section>

<style>
  .function {
    display: grid;
    align-content: start;
    gap: 0.45rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  .function :global(.pair) {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.4rem;
  }

  .function > :global(label),
  .function > :global(.pair > label) {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .function > :global(label.tick) {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    color: var(--cds-text-01);
    font-size: 12.5px;
  }

  .function > :global(label.tick input) {
    width: auto;
    height: auto;
  }

  .function :global(h2) {
    font-size: 13px;
    font-weight: 600;
    border-top: 1px solid var(--cds-ui-03);
    padding-top: 0.4rem;
  }

  .function :global(.said) {
    font-size: 12.5px;
    font-style: italic;
  }

  .trouble {
    color: var(--gap);
    font-size: 12.5px;
  }
</style>
