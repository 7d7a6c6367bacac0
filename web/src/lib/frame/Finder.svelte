<script lang="ts">
  import { Modal } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { findables, matching, type Findable } from './finder';

  let { open = $bindable() }: { open: boolean } = $props();
  const editor = getEditor()();
  let typed = $state('');
  let chosen = $state(0);
  const found = $derived(open ? matching(findables(editor), typed) : []);

  function choose(item: Findable | undefined): void {
    if (item === undefined) return;
    open = false;
    typed = '';
    item.run();
  }

  function key(event: KeyboardEvent): void {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) chosen = (chosen + step + found.length) % Math.max(1, found.length);
    else if (event.key === 'Enter') choose(found[chosen]);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<Modal passiveModal bind:open size="sm" modalHeading="Find" selectorPrimaryFocus="#finder">
  <div class="finder">
    <input
      id="finder"
      role="combobox"
      aria-label="Find a command, lamp, zone or finding"
      aria-expanded="true"
      aria-controls="found"
      aria-activedescendant={found[chosen] === undefined ? undefined : `found-${chosen}`}
      placeholder="Find a command, lamp, zone or finding"
      autocomplete="off"
      bind:value={typed}
      oninput={() => (chosen = 0)}
      onkeydown={key}
    />
    <ul id="found" role="listbox" aria-label="Found">
      {#each found as item, i (item.id)}
        <li
          id="found-{i}"
          role="option"
          aria-selected={i === chosen}
          class:chosen={i === chosen}
          onpointerdown={() => choose(item)}
        >
          <span class="kind">{item.kind}</span>
          {item.text}
        </li>
      {/each}
    </ul>
    {#if found.length === 0}<p class="quiet">No matches.</p>{/if}
  </div>
</Modal>

<style>
  .finder {
    display: grid;
    gap: 0.5rem;
    min-height: 22rem;
    align-content: start;
  }

  input {
    height: 40px;
  }

  li {
    display: flex;
    gap: 0.75rem;
    padding: 0.3rem 0.75rem;
    cursor: pointer;
  }

  li.chosen,
  li:hover {
    background: var(--cds-ui-03);
  }

  .kind {
    flex: 0 0 5rem;
    color: var(--cds-text-02);
  }
</style>
