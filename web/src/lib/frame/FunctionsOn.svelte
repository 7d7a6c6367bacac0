<script lang="ts">
  import { readOn } from '@flarik/core/design/controls';
  import { getEditor } from '$lib/editor/context';
  import HangingBox from '$lib/ui/HangingBox.svelte';

  /** What is on besides the stage; opened, every function, to be looked at together with others. */
  const editor = getEditor()();
  const others = $derived(
    editor.named.filter(({ on }) => !editor.stages.some(({ id }) => id === readOn(on).id)),
  );
  const lit = $derived(others.filter(({ on }) => editor.state.on.includes(on)));
  const summary = $derived(
    lit.length === 0 ? '+' : lit.length === 1 ? `+ ${lit[0]?.name ?? ''}` : `+ ${lit.length}`,
  );
</script>

<HangingBox
  id="functions-on"
  label="Functions that are on"
  title="Other active functions: {lit.map(({ name }) => name).join(', ') || 'none'}"
  {summary}
  tone={lit.length > 0 ? 'on' : 'plain'}
>
  <div class="inside">
    {#if editor.cockpit.following}
      <p class="quiet">Follows the controls. Selecting a function here overrides them.</p>
    {/if}
    {#each others as { on, name } (on)}
      <label>
        <input type="checkbox" checked={editor.state.on.includes(on)} onchange={() => editor.toggleOn(on)} />
        {name}
      </label>
    {/each}
    <a href="/builds/{editor.build.id}/controls">Follow the controls</a>
  </div>
</HangingBox>

<style>
  .inside {
    display: grid;
    gap: 0.3rem;
    max-width: 20rem;
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
