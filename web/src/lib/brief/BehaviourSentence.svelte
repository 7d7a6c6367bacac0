<script lang="ts">
  import type { Condition } from '@flarik/core/design/condition';
  import { targetKey } from '@flarik/core/design/functions';
  import { MOST_WITHIN_S, type BehaviourRequirement } from '@flarik/core/rules/brief/requirements/behaviour';
  import { PATTERNS } from '@flarik/core/timing/library';
  import { COLOURS, type Colour } from '@flarik/core/words/colour';
  import { FACES, type Face } from '@flarik/core/words/face';
  import ConditionEditor from '$lib/pieces/ConditionEditor.svelte';
  import { getEditor } from '$lib/editor/context';
  import { cueRows } from '$lib/pieces/members';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import InlineNumber from '$lib/ui/InlineNumber.svelte';
  import TickBoxes from '$lib/ui/TickBoxes.svelte';

  /** A wish about what the controls do, as a sentence that is changed in place. */
  let { wish, onset }: { wish: BehaviourRequirement; onset: (wish: BehaviourRequirement) => void } = $props();
  const editor = getEditor()();
  const { functions, loads } = $derived(editor.build.controls);

  const SAYS = [
    { value: 'whenever', text: 'Whenever' },
    { value: 'never', text: 'Never, when' },
    { value: 'possible', text: 'Possible: when' },
  ] as const;
  const LAMPS_ARE = [
    { value: 'lit', text: 'lit' },
    { value: 'dark', text: 'dark' },
    { value: 'flashing', text: 'flashing' },
    { value: 'steady', text: 'steady' },
    { value: 'in pattern', text: 'in pattern …' },
    { value: 'at most', text: 'at most at …' },
    { value: 'in two colours', text: 'in two colours' },
  ] as const;
  const OTHERS_ARE = [
    { value: 'on', text: 'on' },
    { value: 'off', text: 'off' },
  ] as const;
  const rows = $derived(cueRows(editor.build));
  const { subject } = $derived(wish);
  const chosen = $derived.by((): string => {
    switch (subject.kind) {
      case 'function':
        return `function ${subject.functionId}`;
      case 'load':
        return `load ${subject.loadId}`;
      case 'lamps':
        return subject.target === null ? 'lamps' : `lamps ${targetKey(subject.target)}`;
    }
  });
  const subjects = $derived([
    { value: 'lamps', text: 'all lamps' },
    ...rows.map(({ target, name }) => ({ value: `lamps ${targetKey(target)}`, text: name })),
    ...functions.map((fn) => ({ value: `function ${fn.id}`, text: fn.name })),
    ...loads.map((load) => ({ value: `load ${load.id}`, text: load.name })),
  ]);

  const patterns = $derived(
    [...editor.build.timing.patterns, ...PATTERNS].map(({ id, name }) => ({ value: id, text: name })),
  );

  /** What lamps are to be, with a pattern or level where that asks for one. */
  function be(is: BehaviourRequirement['is']): void {
    onset({
      ...wish,
      is,
      patternId: is === 'in pattern' ? (patterns[0]?.value ?? null) : null,
      mostLevel: is === 'at most' ? 0.5 : null,
    });
  }

  function choose(value: string): void {
    const fn = functions.find(({ id }) => value === `function ${id}`);
    const load = loads.find(({ id }) => value === `load ${id}`);
    const isOn = wish.is === 'off' || wish.is === 'dark' ? 'off' : 'on';
    const bare = { ...wish, patternId: null, mostLevel: null };
    if (fn !== undefined) onset({ ...bare, subject: { kind: 'function', functionId: fn.id }, is: isOn });
    else if (load !== undefined) onset({ ...bare, subject: { kind: 'load', loadId: load.id }, is: isOn });
    else {
      const row = rows.find(({ target }) => value === `lamps ${targetKey(target)}`);
      const { colours, faces } = subject.kind === 'lamps' ? subject : { colours: [], faces: [] };
      const is = wish.is === 'off' ? 'dark' : wish.is === 'on' ? 'lit' : wish.is;
      onset({ ...wish, subject: { kind: 'lamps', target: row?.target ?? null, colours, faces }, is });
    }
  }
  const reverse: Condition = { kind: 'is', input: 'gear', values: ['reverse'] };
</script>

<div class="sentence">
  <InlineChoice
    label="Whenever, never or possible"
    options={SAYS}
    value={wish.says}
    onset={(says: BehaviourRequirement['says']) =>
      onset({ ...wish, says, withinS: says === 'whenever' ? wish.withinS : null })}
  />
  <ConditionEditor condition={wish.when} label="When" onset={(when: Condition) => onset({ ...wish, when })} />
  <InlineChoice label="Subject of the requirement" options={subjects} value={chosen} onset={choose} />
  {#if subject.kind === 'lamps'}
    in
    <TickBoxes
      label="Colours; none is any"
      items={COLOURS}
      chosen={subject.colours}
      atLeast={0}
      onset={(colours: Colour[]) => onset({ ...wish, subject: { ...subject, colours } })}
    />
    to
    <TickBoxes
      label="Sides they light with everything closed; none means any"
      items={FACES}
      chosen={subject.faces}
      atLeast={0}
      onset={(faces: Face[]) => onset({ ...wish, subject: { ...subject, faces } })}
    />
    {#if wish.is !== 'dark' && wish.is !== 'at most'}
      , at least
      <InlineNumber
        label="Modules at least"
        value={wish.atLeast}
        min={1}
        max={400}
        onset={(atLeast: number) => onset({ ...wish, atLeast })}
      />
      of them,
    {/if}
    is
    <InlineChoice label="Required state" options={LAMPS_ARE} value={wish.is} onset={be} />
    {#if wish.patternId !== null}
      <InlineChoice
        label="Pattern that they are to be in"
        options={patterns}
        value={wish.patternId}
        onset={(patternId: string) => onset({ ...wish, patternId })}
      />
    {/if}
    {#if wish.mostLevel !== null}
      <InlineNumber
        label="Share of their light, %"
        value={Math.round(100 * wish.mostLevel)}
        min={1}
        max={100}
        onset={(percent: number) => onset({ ...wish, mostLevel: percent / 100 })}
      />
      %
    {/if}
  {:else}
    is
    <InlineChoice
      label="Required value"
      options={OTHERS_ARE}
      value={wish.is}
      onset={(is: BehaviourRequirement['is']) => onset({ ...wish, is })}
    />
  {/if}
  {#if wish.says === 'whenever'}
    {#if wish.withinS === null}
      <button class="link" onclick={() => onset({ ...wish, withinS: 5 })}>+ within …</button>
    {:else}
      within
      <InlineNumber
        label="Within so many seconds, with no other event"
        value={wish.withinS}
        min={1}
        max={MOST_WITHIN_S}
        onset={(withinS: number) => onset({ ...wish, withinS })}
      />
      s
      <button class="link" onclick={() => onset({ ...wish, withinS: null })}>at once</button>
    {/if}
  {/if}
  {#if wish.unless === null}
    <button class="link" onclick={() => onset({ ...wish, unless: reverse })}>+ unless …</button>
  {:else}
    unless
    <ConditionEditor
      condition={wish.unless}
      label="Unless"
      onset={(unless: Condition) => onset({ ...wish, unless })}
      onremove={() => onset({ ...wish, unless: null })}
    />
  {/if}
</div>

<style>
  .sentence {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    align-items: center;
    line-height: 26px;
  }
</style>
