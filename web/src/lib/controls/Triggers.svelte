<script lang="ts">
  import { leavesOf } from '@flarik/core/design/condition';
  import { TRIGGER_SOURCES, type Trigger } from '@flarik/core/design/controls';
  import { conditionsOf, eventsOf, inputsOf } from '@flarik/core/design/inputs';
  import { getEditor } from '$lib/editor/context';

  /** Where the controller gets each input from that the programme asks about: a wire, the data bus, a sensor of its own. */
  let { onset }: { onset: (what: string, triggers: Trigger[]) => void } = $props();
  const editor = getEditor()();
  const { triggers } = $derived(editor.build.controls);
  const asked = $derived.by(() => {
    const { controls } = editor.build;
    return new Set([
      ...conditionsOf(controls).flatMap((c) =>
        [...leavesOf(c)].flatMap((l) => (l.kind === 'is' ? [l.input] : [])),
      ),
      ...eventsOf(controls).flatMap((e) => (e.kind === 'arrives' ? [e.input] : [])),
    ]);
  });
  const inputs = $derived(
    inputsOf(editor.build).filter(
      ({ id, source }) =>
        source !== 'panel' && source !== 'around' && (asked.has(id) || triggers.some((t) => t.input === id)),
    ),
  );
  const of = (input: string): Trigger | undefined => triggers.find((t) => t.input === input);

  function put(input: string, patch: Partial<Trigger>): void {
    const there = of(input) ?? { input, source: 'wire', note: '' };
    onset('Set input source', [...triggers.filter((t) => t.input !== input), { ...there, ...patch }]);
  }
</script>

{#each inputs as input (input.id)}
  <div class="row">
    <span>{input.name}</span>
    <select
      aria-label="{input.name} comes from"
      value={of(input.id)?.source ?? ''}
      onchange={(event) => {
        const source = TRIGGER_SOURCES.find((s) => s === event.currentTarget.value);
        if (source !== undefined) put(input.id, { source });
        else
          onset(
            'Set input source',
            triggers.filter((t) => t.input !== input.id),
          );
      }}
    >
      <option value="">not assigned</option>
      {#each TRIGGER_SOURCES as source (source)}<option value={source}>{source}</option>{/each}
    </select>
    <input
      aria-label="Wire or message of {input.name}"
      placeholder="which wire or message"
      value={of(input.id)?.note ?? ''}
      maxlength="160"
      onchange={(event) => put(input.id, { note: event.currentTarget.value.trim() })}
    />
  </div>
{:else}
  <p class="quiet">The program uses no vehicle inputs yet.</p>
{/each}

<style>
  .row {
    display: grid;
    grid-template-columns: minmax(5rem, 1fr) 8rem;
    gap: 0.4rem;
    align-items: center;
    width: 100%;
    font-size: 12.5px;
  }

  .row > input {
    grid-column: 1 / -1;
  }
</style>
