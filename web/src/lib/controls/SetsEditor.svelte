<script lang="ts">
  import { likeButOutside, ruleLike } from '@flarik/core/arrange/likeSet';
  import { forUse } from '@flarik/core/arrange/lampSets';
  import { putSet, removeSet } from '@flarik/core/design/controlEdits';
  import { fixedSet, MOST_SETS, type LampSet } from '@flarik/core/design/lampSets';
  import type { ModuleRef } from '@flarik/core/design/schema';
  import { membersOfSet } from '@flarik/core/resolve/setMembers';
  import { setText } from '@flarik/core/resolve/setText';
  import { Name } from '@flarik/core/words/names';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import SetRuleFields from './SetRuleFields.svelte';

  /** Modules that functions address together, by rule or as a fixed list; a module may be in any number of sets. */
  const editor = getEditor()();
  const { sets } = $derived(editor.build.controls);
  const isFull = $derived(sets.length >= MOST_SETS);
  let opened = $state<string | null>(null);

  const chosen = $derived(
    editor.selected.flatMap((p) =>
      p.modules
        .filter((m) => editor.moduleId === null || m.id === editor.moduleId)
        .map((m) => ({ placementId: p.id, moduleId: m.id })),
    ),
  );
  const select = (modules: readonly ModuleRef[]): void =>
    editor.select([...new Set(modules.map((m) => m.placementId))]);
  const modulesText = (n: number): string => `${n} ${n === 1 ? 'module' : 'modules'}`;
  const freeName = (): string => {
    const taken = new Set(sets.map(({ name }) => name));
    let n = sets.length + 1;
    while (taken.has(`Set ${n}`)) n += 1;
    return `Set ${n}`;
  };

  function rename(set: LampSet, text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success) change(`Rename ${set.name}`, { ...set, name: name.data });
  }

  const change = (what: string, set: LampSet): void => editor.edit(what, (b) => putSet(b, set));

  function add(set: LampSet): void {
    change('New set', set);
    opened = set.id;
  }

  const keyOf = (m: ModuleRef): string => `${m.placementId}/${m.moduleId}`;
  /** Puts the selection in by hand, or leaves it out; a module is on one of the two lists at most. */
  function byHand(set: LampSet, isIn: boolean): void {
    const keys = new Set(chosen.map(keyOf));
    const rest = (list: LampSet['modules']) => list.filter((m) => !keys.has(keyOf(m)));
    const modules = isIn ? [...rest(set.modules), ...chosen] : rest(set.modules);
    const without = isIn || set.rule === null ? rest(set.without) : [...rest(set.without), ...chosen];
    change(`Modules of ${set.name}`, { ...set, modules, without });
  }
</script>

<section class="sets" aria-label="Sets of lamps">
  <p class="quiet">
    A function addresses a set regardless of sync groups. A rule includes later lamps; a fixed list does not
    change.
  </p>
  <div class="row">
    <button
      class="plain"
      disabled={isFull}
      onclick={() =>
        add({
          ...fixedSet(freshId('set'), freeName(), []),
          rule: ruleLike(editor.build, chosen) ?? { clauses: [forUse('warning')], pick: 'all' },
        })}>New set by rule{chosen.length > 0 ? ', from the selection' : ''}</button
    >
    <button
      class="plain"
      disabled={isFull || chosen.length === 0}
      title={isFull
        ? `At most ${MOST_SETS} sets`
        : chosen.length === 0
          ? 'Select lamps on the drawing first'
          : ''}
      onclick={() => add(fixedSet(freshId('set'), freeName(), chosen))}
      >New fixed list of the {modulesText(chosen.length)} selected</button
    >
  </div>
  <ul>
    {#each sets as set (set.id)}
      {@const members = membersOfSet(editor.build, set)}
      {@const outside = likeButOutside(editor.build, set)}
      {@const isOpen = opened === set.id}
      <li aria-label="Set {set.name}">
        <div class="row">
          <input
            aria-label="Name of set {set.name}"
            value={set.name}
            maxlength="80"
            onchange={(event) => rename(set, event.currentTarget.value)}
          />
          <button class="link" title="Select on the drawing" onclick={() => select(members)}
            >{modulesText(members.length)}</button
          >
          <button
            class="link"
            aria-expanded={isOpen}
            aria-label="{isOpen ? 'Close' : 'Edit'} {set.name}"
            onclick={() => (opened = isOpen ? null : set.id)}>{isOpen ? 'Close' : 'Edit'}</button
          >
          <button
            class="link"
            aria-label="Delete set {set.name}"
            onclick={() => editor.edit(`Delete set ${set.name}`, (b) => removeSet(b, set.id))}>✕</button
          >
        </div>
        <p class="quiet">
          {setText(editor.build, set)}.
          {#if outside.length > 0}
            <button class="link" onclick={() => select(outside)}
              >{modulesText(outside.length)} like these {outside.length === 1 ? 'is' : 'are'} outside</button
            >
          {/if}
        </p>
        {#if isOpen}
          {#if set.rule !== null}
            <SetRuleFields
              name={set.name}
              rule={set.rule}
              onset={(rule) => change(`Rule of ${set.name}`, { ...set, rule })}
            />
          {/if}
          <div class="row">
            <button class="link" disabled={chosen.length === 0} onclick={() => byHand(set, true)}
              >Add the selection</button
            >
            <button class="link" disabled={chosen.length === 0} onclick={() => byHand(set, false)}
              >Exclude the selection</button
            >
            {#if set.rule === null}
              {@const rule = ruleLike(editor.build, set.modules)}
              {#if rule !== null}
                <button
                  class="link"
                  onclick={() => change(`Rule for ${set.name}`, { ...set, rule, modules: [] })}
                  >Choose by rule</button
                >
              {/if}
            {:else}
              {#if set.modules.length + set.without.length > 0}
                <button
                  class="link"
                  onclick={() => change(`Rule of ${set.name}`, { ...set, modules: [], without: [] })}
                  >Clear exceptions</button
                >
              {/if}
              <button
                class="link"
                onclick={() => change(`Fix ${set.name}`, fixedSet(set.id, set.name, [...members]))}
                >Keep as a fixed list</button
              >
            {/if}
          </div>
        {/if}
      </li>
    {:else}
      <li class="quiet">No sets yet.</li>
    {/each}
  </ul>
</section>

<style>
  .sets {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    gap: 0.5rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  ul {
    list-style: none;
    padding: 0;
    margin: 0;
  }

  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 0.15rem;
    padding: 0.35rem 0;
    border-top: 1px solid var(--cds-ui-03);
    font-size: 12.5px;
  }

  li p {
    margin: 0;
    font-size: 12.5px;
  }

  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
  }

  .row input {
    flex: 1 1 10rem;
    min-width: 0;
  }
</style>
