<script lang="ts">
  import { getEditor } from '$lib/editor/context';
  import Notice from './Notice.svelte';

  /** Says that an earlier revision is looked at, and leads back from it. */
  const editor = getEditor()();
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
</script>

{#if editor.past !== null}
  <Notice tone="warns" role="status">
    <p>
      <strong>Revision {editor.past.version}</strong> of {when.format(new Date(editor.past.savedAt))}. You
      look back at it; nothing can be changed here.
    </p>
    <button class="plain" onclick={() => editor.restorePast()}>Restore it</button>
    <button class="plain" onclick={() => editor.backToNow()}>Back to the build as it is</button>
  </Notice>
{/if}
