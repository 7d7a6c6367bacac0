<script lang="ts">
  import { readOn, type On } from '@flarik/core/design/controls';
  import ChevronDown from 'carbon-icons-svelte/lib/ChevronDown.svelte';
  import { getEditor } from '$lib/editor/context';

  /** What is on besides the stage; opened, every function, to be looked at together with others. */
  const editor = getEditor()();
  const others = $derived(
    editor.named.filter(({ on }) => !editor.stages.some(({ id }) => id === readOn(on).id)),
  );
  const lit = $derived(others.filter(({ on }) => editor.state.on.includes(on)));
  const summary = $derived(
    lit.length === 0 ? '+' : lit.length === 1 ? `+ ${lit[0]?.name ?? ''}` : `+ ${lit.length} functions`,
  );
  let button = $state<HTMLButtonElement>();
  let shown = $state(false);
  /** Where the box hangs from, px from the left edge of the window. */
  let left = $state(0);

  function toggle(on: On): void {
    const now = editor.state.on;
    const { id } = readOn(on);
    editor.lookAtState({
      on: now.includes(on)
        ? now.filter((other) => other !== on)
        : [...now.filter((other) => readOn(other).id !== id), on],
    });
  }
</script>

<button
  bind:this={button}
  class="plain summary"
  class:some={lit.length > 0}
  popovertarget="functions-on"
  aria-expanded={shown}
  title="What else is on: {lit.map(({ name }) => name).join(', ') || 'nothing'}"
>
  <span>{summary}</span><ChevronDown size={16} />
</button>

<div
  id="functions-on"
  class="box"
  style:left="{left}px"
  popover
  role="group"
  aria-label="Functions that are on"
  onbeforetoggle={() => (left = button?.getBoundingClientRect().left ?? 0)}
  ontoggle={(event: ToggleEvent) => (shown = event.newState === 'open')}
>
  {#if editor.cockpit.following}
    <p class="quiet">As the controls stand. What is chosen here is looked at by itself.</p>
  {/if}
  {#each others as { on, name } (on)}
    <label>
      <input type="checkbox" checked={editor.state.on.includes(on)} onchange={() => toggle(on)} />
      {name}
    </label>
  {/each}
  <a href="/builds/{editor.build.id}/controls">Drive it by its controls</a>
</div>

<style>
  .summary {
    display: flex;
    align-items: center;
    gap: 0.3rem;
    height: 28px;
    max-width: 7.5rem;
    font-size: 13px;
    white-space: nowrap;
  }

  .summary span {
    overflow: hidden;
    text-overflow: ellipsis;
  }

  .summary.some {
    border-color: var(--on);
    font-weight: 600;
  }

  .box {
    position: fixed;
    inset: auto;
    top: 44px;
    margin: 0;
    padding: 0.75rem;
    max-width: 20rem;
    max-height: calc(100vh - 60px);
    overflow: auto;
    background: var(--cds-ui-01);
    color: var(--cds-text-01);
    border: 1px solid var(--cds-ui-04);
    box-shadow: 0 4px 14px rgb(0 0 0 / 40%);
  }

  .box:popover-open {
    display: grid;
    gap: 0.3rem;
  }

  label {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    font-size: 13px;
  }

  input {
    width: auto;
    height: auto;
  }
</style>
