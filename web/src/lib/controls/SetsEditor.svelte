<script lang="ts">
  import { putSet, removeSet } from '@flarik/core/design/controlEdits';
  import type { ModuleSet } from '@flarik/core/design/controls';
  import { Name } from '@flarik/core/words/names';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';

  /** Named lists of modules that functions speak to; a module may be in any number of them. */
  const editor = getEditor()();
  const { sets } = $derived(editor.build.controls);
  const chosen = $derived(
    editor.selected.flatMap((p) =>
      p.modules
        .filter((m) => editor.moduleId === null || m.id === editor.moduleId)
        .map((m) => ({ placementId: p.id, moduleId: m.id })),
    ),
  );
  const select = (set: ModuleSet): void => editor.select([...new Set(set.modules.map((m) => m.placementId))]);

  function rename(set: ModuleSet, text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success) editor.edit(`Rename ${set.name}`, (b) => putSet(b, { ...set, name: name.data }));
  }
</script>

<section class="sets" aria-label="Sets of lamps">
  <p class="quiet">
    A set lets a function speak to lamps of several groups: scene left borrows the bar’s white. Select lamps
    on the sheet above, then make a set of them.
  </p>
  <button
    class="plain"
    disabled={chosen.length === 0}
    onclick={() =>
      editor.edit('New set', (b) =>
        putSet(b, { id: freshId('set'), name: `Set ${b.controls.sets.length + 1}`, modules: chosen }),
      )}>Make a set of the {chosen.length} modules selected</button
  >
  <ul>
    {#each sets as set (set.id)}
      <li>
        <input
          aria-label="Name of set {set.name}"
          value={set.name}
          maxlength="80"
          onchange={(event) => rename(set, event.currentTarget.value)}
        />
        <button class="link" onclick={() => select(set)}>{set.modules.length} modules</button>
        <button
          class="link"
          disabled={chosen.length === 0}
          onclick={() => editor.edit(`Modules of ${set.name}`, (b) => putSet(b, { ...set, modules: chosen }))}
          >take the selection</button
        >
        <button
          class="link"
          aria-label="Delete set {set.name}"
          onclick={() => editor.edit(`Delete set ${set.name}`, (b) => removeSet(b, set.id))}>✕</button
        >
      </li>
    {:else}
      <li class="quiet">No sets yet.</li>
    {/each}
  </ul>
</section>

<style>
  .sets {
    display: grid;
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
    grid-template-columns: 1fr auto auto auto;
    gap: 0.5rem;
    align-items: center;
    padding: 0.15rem 0;
    font-size: 12.5px;
  }
</style>
