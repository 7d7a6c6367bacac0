<script lang="ts">
  import { isRetrofit } from '@flarik/core/arrange/beforeRetrofit';
  import { onDestroy } from 'svelte';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';

  /** The vehicle as it was before the work or as it will be, where the two differ; whoever leaves is back at after. */
  const editor = getEditor()();
  const WHENS = [
    { value: 'before', text: 'Before' },
    { value: 'after', text: 'After' },
  ] as const;
  onDestroy(() => (editor.when = 'after'));
</script>

{#if isRetrofit(editor.build)}
  <Choice
    label="Before or after"
    small
    options={WHENS}
    value={editor.when}
    onchoose={(when: 'before' | 'after') => (editor.when = when)}
  />
{/if}
