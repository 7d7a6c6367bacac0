<script lang="ts">
  import { getEditor } from '$lib/editor/context';

  /** Says that an earlier revision is looked at, and leads back from it. */
  const editor = getEditor()();
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
</script>

{#if editor.past !== null}
  <div class="past" role="status">
    <p>
      <strong>Revision {editor.past.version}</strong> of {when.format(new Date(editor.past.savedAt))}. You
      look back at it; nothing can be changed here.
    </p>
    <button class="plain" onclick={() => editor.restorePast()}>Restore it</button>
    <button class="plain" onclick={() => editor.backToNow()}>Back to the build as it is</button>
  </div>
{/if}

<style>
  .past {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    padding: 0.25rem 0.75rem;
    background: color-mix(in srgb, var(--warn) 24%, var(--cds-ui-01));
    border-bottom: 1px solid var(--warn);
  }

  p {
    flex: 1;
  }
</style>
