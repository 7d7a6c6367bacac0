<script lang="ts">
  import { getEditor } from '$lib/editor/context';
  import Notice from './Notice.svelte';

  /** Why the last edit was not made. */
  const editor = getEditor()();
</script>

{#if editor.refusal !== null}
  <Notice tone="warns" role="alert">
    <p>{editor.refusal} Nothing was changed.</p>
    <button class="plain" onclick={() => (editor.refusal = null)}>Close</button>
  </Notice>
{/if}
