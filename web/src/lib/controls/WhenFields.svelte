<script lang="ts">
  import type { Condition, InputEvent } from '@flarik/core/design/condition';
  import { shown as shows, type ControlFunction, type When } from '@flarik/core/design/functions';
  import { usualFirst } from '@flarik/core/arrange/namedConditions';
  import { Wording } from '@flarik/core/controls/sentence';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { getEditor } from '$lib/editor/context';
  import ConditionEditor from '$lib/pieces/ConditionEditor.svelte';
  import EventList from './EventList.svelte';

  /** When a function is on, and what must be so besides. */
  let {
    fn,
    change,
  }: {
    fn: ControlFunction;
    change: (patch: Partial<Omit<ControlFunction, 'id'>>) => void;
  } = $props();
  const editor = getEditor()();
  const wording = $derived(new Wording(editor.build));
  const WAYS = {
    while: 'while a condition is true',
    latched: 'switched on and off, and remembered',
    cycle: 'one after another, by presses',
    always: 'always',
  } as const;

  const first = $derived(usualFirst(editor.build, fn.kind));

  function setWay(way: string): void {
    const events = { sets: [], clears: [], timeoutMs: 0 };
    const [shown = shows([])] = fn.shows;
    switch (way) {
      case 'while':
        change({
          when: { way, condition: first, afterMs: 0, staysMs: 0 },
          shows: [shown],
          choiceId: null,
        });
        return;
      case 'latched':
        change({ when: { way, ...events, toggles: [] }, shows: [shown] });
        return;
      case 'cycle':
        change({ when: { way, ...events, steps: [], wraps: 'off' }, shows: [shown, shows([])] });
        return;
      default:
        change({ when: { way: 'always' }, shows: [shown], enabledBy: null, choiceId: null });
    }
  }
  const setWhen = (when: When): void => change({ when });
  const seconds = (ms: number): number => ms / 1000;
  const choices = $derived([
    ...new Set(editor.build.controls.functions.flatMap((f) => (f.choiceId === null ? [] : [f.choiceId]))),
  ]);
</script>

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
    kind={fn.kind}
    onset={(condition: Condition) => setWhen({ ...when, condition })}
  />
  <div class="pair">
    <TypedNumber
      label="Start delay"
      unit="s"
      value={seconds(when.afterMs)}
      min={0}
      max={3600}
      onset={(s: number) => setWhen({ ...when, afterMs: Math.round(s * 1000) })}
    />
    <TypedNumber
      label="Extension"
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
  <EventList label="On when" events={when.sets} onset={(sets: InputEvent[]) => setWhen({ ...when, sets })} />
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
    {fn.shows.length} steps, sequential
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
      label="Switches off automatically after"
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
    <button class="plain" onclick={() => change({ enabledBy: first })}>Only while …</button>
  {:else}
    <h2>Only while</h2>
    <ConditionEditor
      condition={fn.enabledBy}
      label="Only while"
      kind={fn.kind}
      onset={(enabledBy: Condition) => change({ enabledBy })}
      onremove={() => change({ enabledBy: null, forgets: false })}
    />
    <label class="tick"
      ><input
        type="checkbox"
        checked={fn.forgets}
        onchange={(event) => change({ forgets: event.currentTarget.checked })}
      /> resets when that condition ends</label
    >
  {/if}
{/if}
<label class="tick"
  ><input
    type="checkbox"
    checked={fn.mayStay}
    onchange={(event) => change({ mayStay: event.currentTarget.checked })}
  /> may stay on with the ignition off</label
>
{#if editor.build.controls.enabledBy !== null}
  <label class="tick"
    ><input
      type="checkbox"
      checked={fn.withoutMaster}
      onchange={(event) => change({ withoutMaster: event.currentTarget.checked })}
    />
    exempt from “{wording.condition(editor.build.controls.enabledBy)}”</label
  >
{/if}
