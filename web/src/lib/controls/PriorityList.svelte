<script lang="ts">
  import {
    addFunction,
    controlsFailure,
    freeFunctionName,
    rankFunction,
    rankOfNew,
    removeFunction,
  } from '@flarik/core/design/controlEdits';
  import { readOn } from '@flarik/core/design/controls';
  import { newFunction } from '@flarik/core/design/functions';
  import { freeId } from '@flarik/core/arrange/panelEdits';
  import { Wording } from '@flarik/core/controls/sentence';
  import { showingOf } from '@flarik/core/resolve/showing';
  import { getEditor } from '$lib/editor/context';

  /** The functions by rank, strongest first: when each is on, what it takes, whether it is on now. */
  let { chosen, onchoose }: { chosen: string | null; onchoose: (id: string) => void } = $props();
  const editor = getEditor()();
  const wording = $derived(new Wording(editor.build));
  const functions = $derived(editor.cockpit.programme.ranked);
  const onIds = $derived(new Set(editor.state.on.map((on) => readOn(on).id)));
  let trouble = $state('');
  /** Where a function that was just added went. */
  let added = $state('');

  /** The lamp chosen on the sheet: only those that want it are shown, and what becomes of that. */
  const lamp = $derived(editor.selected.length === 1 ? (editor.selected[0] ?? null) : null);
  const moduleId = $derived(lamp === null ? null : (editor.moduleId ?? lamp.modules[0]?.id ?? null));
  let onlyChosen = $state(true);
  const settled = $derived(
    lamp === null || moduleId === null
      ? []
      : showingOf(editor.build).onModule(lamp.id, moduleId, editor.state.on, editor.state.ambient),
  );
  const wanting = $derived(
    lamp === null || moduleId === null
      ? null
      : new Set(
          editor.named
            .filter(
              ({ on }) =>
                showingOf(editor.build).onModule(lamp.id, moduleId, [on], editor.state.ambient).length > 0,
            )
            .map(({ on }) => readOn(on).id),
        ),
  );
  const rows = $derived(
    functions.filter(({ id }) => wanting === null || !onlyChosen || wanting.has(id) || id === chosen),
  );

  /** What a function comes to on the chosen lamp, now. */
  function fateOf(id: string): string | null {
    const mine = settled.filter(({ on }) => readOn(on).id === id);
    if (mine.length === 0) return null;
    return mine
      .map(({ claim, lost }) => {
        if (lost === null) return `${claim.colour}: lights it`;
        const by = wording.functionName(readOn(lost.by).id);
        return lost.because === 'taken'
          ? `${claim.colour}: ${by} has priority`
          : `${claim.colour}: ${by} forbids it`;
      })
      .join('; ');
  }

  /** Puts a function in the place of another, as the ladder shows them. */
  function rank(id: string, place: number): void {
    const name = wording.functionName(id);
    const other = functions[Math.min(functions.length - 1, Math.max(0, place))]?.id;
    const { functions: list } = editor.build.controls;
    editor.edit(`Rank of ${name}`, (b) =>
      rankFunction(
        b,
        id,
        list.findIndex((f) => f.id === other),
      ),
    );
  }

  function add(): void {
    const id = freeId(editor.build, 'function');
    const name = freeFunctionName(editor.build, 'New function');
    const at = rankOfNew(editor.build);
    const { functions: before } = editor.build.controls;
    const when = { way: 'latched' as const, sets: [], clears: [], toggles: [], timeoutMs: 0 };
    const grown = addFunction(editor.build, newFunction(id, name, 'warning', when, []), at);
    const reason = controlsFailure(grown, editor.build);
    trouble = reason === null ? '' : `Not added: ${reason}.`;
    added = '';
    if (reason !== null) return;
    editor.edit('New function', () => grown);
    const [above, below] = [before[at - 1], before[at]];
    added = [
      `${name} was put`,
      above === undefined ? '' : ` below ${above.name}`,
      below === undefined ? '' : `${above === undefined ? '' : ' and'} above ${below.name}`,
      '.',
    ].join('');
    onchoose(id);
  }

  function remove(id: string): void {
    const name = wording.functionName(id);
    const reason = controlsFailure(removeFunction(editor.build, id), editor.build);
    trouble = reason === null ? '' : `${name} stays: ${reason}.`;
    if (reason === null) editor.edit(`Delete ${name}`, (b) => removeFunction(b, id));
  }

  let dragged = $state<string | null>(null);
</script>

<section class="ladder" aria-label="Priority list">
  <div class="head">
    <h2>Priority: highest first</h2>
    <button class="plain" onclick={add}>Add a function</button>
  </div>
  {#if lamp !== null}
    <p class="lamp">
      <span>
        {#if settled.length === 0}
          <strong>{lamp.label}</strong> is off: no active function uses it.
        {:else}
          <strong>{lamp.label}</strong>: active functions that use it, and the result of each.
        {/if}
      </span>
      <label><input type="checkbox" bind:checked={onlyChosen} /> functions of this lamp only</label>
      <button class="link" onclick={() => editor.select([])}>all functions</button>
    </p>
  {/if}
  {#if trouble !== ''}<p role="alert" class="trouble">{trouble}</p>{/if}
  <p role="status" class="added">{added}</p>
  <ol>
    {#each rows as fn (fn.id)}
      {@const fate = fateOf(fn.id)}
      <li
        class:chosen={fn.id === chosen}
        class:on={onIds.has(fn.id)}
        draggable="true"
        ondragstart={() => (dragged = fn.id)}
        ondragover={(event) => event.preventDefault()}
        ondrop={() => {
          if (dragged !== null)
            rank(
              dragged,
              functions.findIndex((f) => f.id === fn.id),
            );
          dragged = null;
        }}
      >
        <span class="light" title={onIds.has(fn.id) ? 'on now' : 'off now'} aria-hidden="true"></span>
        <button class="what" aria-pressed={fn.id === chosen} onclick={() => onchoose(fn.id)}>
          <span class="name">{fn.name}</span>
          <span class="kind">{fn.kind}{fn.mode === null || fn.mode === 0 ? '' : `, mode ${fn.mode}`}</span>
          <span class="when">{wording.when(fn)}</span>
          <span class="takes">{wording.takes(fn)}</span>
          {#if fate !== null}<span class="fate">→ {fate}</span>{/if}
          <span class="visually-hidden">{onIds.has(fn.id) ? 'on now' : 'off now'}</span>
        </button>
        <span class="tools">
          <button
            class="plain"
            aria-label="{fn.name} higher priority"
            title="Higher priority"
            onclick={() => rank(fn.id, functions.indexOf(fn) - 1)}>↑</button
          >
          <button
            class="plain"
            aria-label="{fn.name} lower priority"
            title="Lower priority"
            onclick={() => rank(fn.id, functions.indexOf(fn) + 1)}>↓</button
          >
          <button class="plain" aria-label="Delete {fn.name}" title="Delete" onclick={() => remove(fn.id)}
            >✕</button
          >
        </span>
      </li>
    {:else}
      <li class="quiet">
        No function uses this lamp. Assign a pattern to its group under Timing, or add it to a lamp set.
      </li>
    {/each}
  </ol>
  <p class="quiet small">Signals always rank above all other functions.</p>
</section>

<style>
  .ladder {
    height: 100%;
    overflow-y: auto;
    padding: 0.5rem 0.75rem;
  }

  .head {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }

  .lamp {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.8rem;
    font-size: 13px;
    padding: 0.3rem 0;
  }

  .lamp label {
    display: flex;
    align-items: center;
    gap: 0.3rem;
  }

  .lamp input {
    width: auto;
    height: auto;
  }

  ol {
    list-style: none;
    margin: 0.4rem 0;
    padding: 0;
  }

  li {
    position: relative;
    display: flex;
    align-items: stretch;
    gap: 0.5rem;
    border-bottom: 1px solid var(--cds-ui-03);
    padding: 0.25rem 0;
  }

  li.chosen {
    background: color-mix(in srgb, var(--accent) 12%, transparent);
  }

  .light {
    flex: none;
    align-self: center;
    width: 10px;
    height: 10px;
    border-radius: 50%;
    border: 1px solid var(--car-edge);
  }

  .on .light {
    background: var(--good);
    border-color: var(--good);
  }

  .what {
    flex: 1;
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0 0.5rem;
    border: 0;
    padding: 0;
    background: none;
    color: inherit;
    font: inherit;
    text-align: left;
    cursor: pointer;
  }

  .what:focus-visible {
    outline: 2px solid var(--cds-focus);
  }

  .name {
    font-weight: 600;
    font-size: 13.5px;
  }

  .kind,
  .takes {
    font-size: 12px;
    color: var(--cds-text-02);
    align-self: center;
  }

  .when,
  .takes,
  .fate {
    grid-column: 1 / -1;
    font-size: 12.5px;
    line-height: 1.35;
  }

  .fate {
    color: var(--accent);
    font-weight: 600;
  }

  .tools {
    display: flex;
    gap: 2px;
    align-self: center;
  }

  .tools button {
    padding: 0 0.35rem;
  }

  .added {
    padding: 0 0.75rem;
    font-size: 12.5px;
  }

  .added:empty {
    display: none;
  }

  .trouble {
    color: var(--gap);
    font-size: 13px;
  }

  .small {
    font-size: 12px;
  }
</style>
