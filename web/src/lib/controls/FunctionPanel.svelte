<script lang="ts">
  import { changePlacement } from '@flarik/core/arrange/lamps';
  import type { Placement } from '@flarik/core/design/placement';
  import type { Condition, InputEvent } from '@flarik/core/design/condition';
  import { changeFunction, changeShown, controlsFailure } from '@flarik/core/design/controlEdits';
  import { functionAt, onKey } from '@flarik/core/design/controls';
  import {
    FUNCTION_KINDS,
    LONGEST_LABEL,
    shown as shows,
    targetKey,
    type ControlFunction,
    type Dim,
    type FunctionKind,
    type When,
  } from '@flarik/core/design/functions';
  import { Wording } from '@flarik/core/controls/sentence';
  import { Name } from '@flarik/core/words/names';
  import TypedNumber from '$lib/layout/TypedNumber.svelte';
  import { getEditor } from '$lib/editor/context';
  import CueCell from '$lib/timing/CueCell.svelte';
  import { cueRows, membersOf } from '$lib/timing/members';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';
  import ConditionEditor from './ConditionEditor.svelte';
  import EventList from './EventList.svelte';

  /** Everything about one function. */
  let { id }: { id: string } = $props();
  const editor = getEditor()();
  const wording = $derived(new Wording(editor.build));
  const fn = $derived(functionAt(editor.build, id));
  let number = $state(1);
  const shownNow = $derived(fn.shows[Math.min(number, fn.shows.length) - 1] ?? shows([]));
  const on = $derived(onKey(fn.id, Math.min(number, fn.shows.length)));
  let trouble = $state('');
  /** Whom it speaks to first, then all others. */
  const rows = $derived.by(() => {
    const spoken = new Set(shownNow.cues.map((cue) => targetKey(cue.target)));
    const there = cueRows(editor.build).filter(({ target }) => membersOf(editor.build, target).length > 0);
    return there.toSorted(
      (a, b) => Number(spoken.has(targetKey(b.target))) - Number(spoken.has(targetKey(a.target))),
    );
  });
  const WAYS = {
    while: 'while something is so',
    latched: 'switched on and off, and remembered',
    cycle: 'one after another, by presses',
    always: 'always',
  } as const;

  function change(patch: Partial<Omit<ControlFunction, 'id'>>, what = 'Change'): void {
    const reason = controlsFailure(changeFunction(editor.build, id, patch));
    trouble = reason === null ? '' : `Not done: ${reason}.`;
    if (reason === null) editor.edit(`${what} ${fn.name}`, (b) => changeFunction(b, id, patch));
  }

  function rename(text: string): void {
    const name = Name.safeParse(text.trim());
    if (!name.success) return;
    const follows = fn.label === fn.name.slice(0, LONGEST_LABEL);
    change({ name: name.data, ...(follows ? { label: name.data.slice(0, LONGEST_LABEL) } : {}) }, 'Rename');
  }

  const ignition: Condition = { kind: 'is', input: 'ignition', values: ['on'] };

  function setWay(way: string): void {
    const events = { sets: [], clears: [], timeoutMs: 0 };
    const [first = shows([])] = fn.shows;
    switch (way) {
      case 'while':
        change({
          when: { way, condition: ignition, afterMs: 0, staysMs: 0 },
          shows: [first],
          choiceId: null,
        });
        return;
      case 'latched':
        change({ when: { way, ...events, toggles: [] }, shows: [first] });
        return;
      case 'cycle':
        change({ when: { way, ...events, steps: [], wraps: 'off' }, shows: [first, shows([])] });
        return;
      default:
        change({ when: { way: 'always' }, shows: [first], enabledBy: null, choiceId: null });
    }
  }
  const setWhen = (when: When): void => change({ when });
  const seconds = (ms: number): number => ms / 1000;
  const KINDS = FUNCTION_KINDS;

  function setDims(dims: Dim[]): void {
    editor.edit(`Dims of ${fn.name}`, (b) => changeShown(b, on, { dims }));
  }
  function setLoad(loadId: string, value: string): void {
    const others = shownNow.loads.filter((l) => l.loadId !== loadId);
    editor.edit(`Loads of ${fn.name}`, (b) =>
      changeShown(b, on, { loads: value === '' ? others : [...others, { loadId, value }] }),
    );
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
  const choices = $derived([
    ...new Set(editor.build.controls.functions.flatMap((f) => (f.choiceId === null ? [] : [f.choiceId]))),
  ]);
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
          const kind = KINDS.find((k) => k === event.currentTarget.value);
          if (kind !== undefined) change({ kind }, 'Kind of');
        }}
      >
        {#each KINDS as kind (kind)}<option value={kind}>{kind}</option>{/each}
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

  <h2>When it is on</h2>
  <p class="said">{wording.when(fn)}</p>
  <label
    >Way
    <select value={fn.when.way} onchange={(event) => setWay(event.currentTarget.value)}>
      {#each Object.entries(WAYS) as [way, text] (way)}<option value={way}>{text}</option>{/each}
    </select></label
  >
  {#if fn.when.way === 'while'}
    {@const when = fn.when}
    <ConditionEditor
      condition={when.condition}
      label="While"
      onset={(condition: Condition) => setWhen({ ...when, condition })}
    />
    <div class="pair">
      <TypedNumber
        label="Begins after"
        unit="s"
        value={seconds(when.afterMs)}
        min={0}
        max={3600}
        onset={(s: number) => setWhen({ ...when, afterMs: Math.round(s * 1000) })}
      />
      <TypedNumber
        label="Stays longer"
        unit="s"
        value={seconds(when.staysMs)}
        min={0}
        max={3600}
        onset={(s: number) => setWhen({ ...when, staysMs: Math.round(s * 1000) })}
      />
    </div>
  {:else if fn.when.way === 'latched'}
    {@const when = fn.when}
    <EventList
      label="On and off when"
      events={when.toggles}
      onset={(toggles: InputEvent[]) => setWhen({ ...when, toggles })}
    />
    <EventList
      label="On when"
      events={when.sets}
      onset={(sets: InputEvent[]) => setWhen({ ...when, sets })}
    />
    <EventList
      label="Off when"
      events={when.clears}
      onset={(clears: InputEvent[]) => setWhen({ ...when, clears })}
    />
  {:else if fn.when.way === 'cycle'}
    {@const when = fn.when}
    <EventList
      label="The next when"
      events={when.steps}
      onset={(steps: InputEvent[]) => setWhen({ ...when, steps })}
    />
    <EventList
      label="To the first when"
      events={when.sets}
      onset={(sets: InputEvent[]) => setWhen({ ...when, sets })}
    />
    <EventList
      label="Off when"
      events={when.clears}
      onset={(clears: InputEvent[]) => setWhen({ ...when, clears })}
    />
    <label
      >After the last
      <select
        value={when.wraps}
        onchange={(event) =>
          setWhen({ ...when, wraps: event.currentTarget.value === 'first' ? 'first' : 'off' })}
      >
        <option value="off">off</option>
        <option value="first">the first again</option>
      </select></label
    >
    <p>
      {fn.shows.length} in turn
      <button
        class="plain"
        disabled={fn.shows.length >= 8}
        onclick={() => change({ shows: [...fn.shows, shows([])] })}>Add one</button
      >
      <button
        class="plain"
        disabled={fn.shows.length <= 1}
        onclick={() => change({ shows: fn.shows.slice(0, -1) })}>Drop the last</button
      >
    </p>
  {/if}
  {#if fn.when.way === 'latched' || fn.when.way === 'cycle'}
    {@const when = fn.when}
    <div class="pair">
      <TypedNumber
        label="Ends by itself after"
        unit="s, 0 never"
        value={seconds(when.timeoutMs)}
        min={0}
        max={86_400}
        onset={(s: number) => setWhen({ ...when, timeoutMs: Math.round(s * 1000) })}
      />
      <label
        >One of a choice <input
          list="choices"
          value={fn.choiceId ?? ''}
          maxlength="40"
          onchange={(event) =>
            change({ choiceId: event.currentTarget.value.trim().replaceAll(' ', '-') || null })}
        /></label
      >
      <datalist id="choices"
        >{#each choices as c (c)}<option value={c}></option>{/each}</datalist
      >
    </div>
  {/if}
  {#if fn.when.way !== 'always'}
    {#if fn.enabledBy === null}
      <button class="plain" onclick={() => change({ enabledBy: ignition })}>Only while …</button>
    {:else}
      <h2>Only while</h2>
      <ConditionEditor
        condition={fn.enabledBy}
        label="Only while"
        onset={(enabledBy: Condition) => change({ enabledBy })}
        onremove={() => change({ enabledBy: null, forgets: false })}
      />
      <label class="tick"
        ><input
          type="checkbox"
          checked={fn.forgets}
          onchange={(event) => change({ forgets: event.currentTarget.checked })}
        /> it forgets that it was on when that ends</label
      >
    {/if}
  {/if}
  <label class="tick"
    ><input
      type="checkbox"
      checked={fn.mayStay}
      onchange={(event) => change({ mayStay: event.currentTarget.checked })}
    /> it may burn on with the key off</label
  >
  {#if editor.build.controls.enabledBy !== null}
    <label class="tick"
      ><input
        type="checkbox"
        checked={fn.withoutMaster}
        onchange={(event) => change({ withoutMaster: event.currentTarget.checked })}
      />
      it goes without “{wording.condition(editor.build.controls.enabledBy)}”</label
    >
  {/if}

  {#if fn.kind === 'signal' && flashers.length > 0}
    <h2>Flashers of the maker’s lamps that stop for it</h2>
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

  <h2>What it shows</h2>
  {#if fn.shows.length > 1}
    <div role="group" aria-label="Number of the cycle">
      {#each fn.shows.keys() as i (i)}
        <button class="plain" aria-pressed={number === i + 1} onclick={() => (number = i + 1)}>{i + 1}</button
        >
      {/each}
    </div>
  {/if}
  {#each rows as row (targetKey(row.target))}
    <div class="cues">
      <span>{row.name}</span>
      <div><CueCell {on} {row} onlyAllowed={false} /></div>
    </div>
  {:else}
    <p class="quiet">No lamps yet: place some in Layout.</p>
  {/each}
  {#each shownNow.dims as dim, i (i)}
    {@const put = (patch: Partial<Dim>) =>
      setDims(shownNow.dims.map((d, k) => (k === i ? { ...d, ...patch } : d)))}
    <div class="dim" role="group" aria-label="Dim {i + 1}">
      <TypedNumber
        label="Dims to"
        unit="%"
        value={dim.factor * 100}
        min={5}
        max={100}
        onset={(p: number) => put({ factor: p / 100 })}
      />
      <select
        aria-label="What is dimmed"
        value={targetKey(dim.targets[0] ?? { kind: 'ungrouped' })}
        onchange={(event) => {
          const row = rows.find(({ target }) => targetKey(target) === event.currentTarget.value);
          if (row !== undefined) put({ targets: [row.target] });
        }}
      >
        {#each rows as row (targetKey(row.target))}<option value={targetKey(row.target)}>{row.name}</option
          >{/each}
      </select>
      <TickBoxes
        label="Kinds that are dimmed"
        items={[...KINDS]}
        chosen={dim.kinds}
        onset={(kinds: FunctionKind[]) => put({ kinds })}
      />
      <button class="link" onclick={() => setDims(shownNow.dims.filter((_, k) => k !== i))}>take away</button>
    </div>
  {/each}
  {#if rows[0] !== undefined}
    {@const [first] = rows}
    <button
      class="plain"
      onclick={() =>
        setDims([...shownNow.dims, { targets: [first.target], factor: 0.5, kinds: ['stage', 'warning'] }])}
      >Dim others …</button
    >
  {/if}
  {#each editor.build.controls.loads as load (load.id)}
    <label
      >{load.name}
      <select
        value={shownNow.loads.find((l) => l.loadId === load.id)?.value ?? ''}
        onchange={(event) => setLoad(load.id, event.currentTarget.value)}
      >
        <option value="">leaves it alone</option>
        {#each load.values as value (value)}<option {value}>{value}</option>{/each}
      </select></label
    >
  {/each}
</section>

<style>
  .function {
    display: grid;
    align-content: start;
    gap: 0.45rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.4rem;
  }

  label {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  label.tick {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    color: var(--cds-text-01);
    font-size: 12.5px;
  }

  label.tick input {
    width: auto;
    height: auto;
  }

  h2 {
    font-size: 13px;
    font-weight: 600;
    border-top: 1px solid var(--cds-ui-03);
    padding-top: 0.4rem;
  }

  .said {
    font-size: 12.5px;
    font-style: italic;
  }

  .cues {
    display: grid;
    grid-template-columns: 7rem 1fr;
    gap: 0.4rem;
    font-size: 12.5px;
    border-bottom: 1px solid var(--cds-ui-03);
  }

  /* Here there is room for what is taken too. */
  .cues :global(.takes) {
    display: grid;
  }

  .dim {
    display: grid;
    grid-template-columns: 6rem 1fr auto;
    gap: 0.4rem;
    align-items: end;
    font-size: 12px;
  }

  .trouble {
    color: var(--gap);
    font-size: 12.5px;
  }
</style>
