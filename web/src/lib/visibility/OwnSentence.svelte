<script lang="ts" generics="Patch">
  import type { Build } from '@flarik/core/design/schema';
  import { removeOwn } from '@flarik/core/design/ownEdits';
  import { InputError } from '@flarik/core/words/errors';
  import type { Snippet } from 'svelte';
  import { getEditor } from '$lib/editor/context';

  /** One of the build's own, as a sentence that is changed in place: its name first, then what `says` shows. */
  let {
    list,
    one,
    label,
    change,
    says,
  }: {
    list: Parameters<typeof removeOwn>[1];
    one: { readonly id: string; readonly name: string };
    /** What its name is the name of. */
    label: string;
    change: (build: Build, patch: Patch | { readonly name: string }) => Build;
    /** The rest of the sentence, which changes it by this. */
    says: Snippet<[(patch: Patch) => void]>;
  } = $props();
  const editor = getEditor()();
  let refused = $state('');

  function set(patch: Patch | { readonly name: string }): void {
    try {
      editor.edit(`Change ${one.name}`, (b) => change(b, patch));
      refused = '';
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      refused = error.message;
    }
  }
</script>

<div class="sentence">
  <input
    type="text"
    aria-label={label}
    maxlength={80}
    value={one.name}
    onchange={({ currentTarget }) => set({ name: currentTarget.value })}
  />
  {@render says(set)}
  <button class="link" onclick={() => editor.edit(`Remove ${one.name}`, (b) => removeOwn(b, list, one.id))}
    >Remove</button
  >
</div>
{#if refused !== ''}<p class="refused" role="alert">Not accepted: {refused}.</p>{/if}

<style>
  .sentence {
    font-size: 13px;
    line-height: 2.1;
  }

  .sentence :global(input[type='number']) {
    width: 4.4rem;
  }

  input[type='text'] {
    width: 12rem;
  }

  .refused {
    color: var(--gap);
    font-size: 13px;
  }
</style>
