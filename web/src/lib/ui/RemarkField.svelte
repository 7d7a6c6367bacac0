<script lang="ts">
  import { FreeText } from '@flarik/core/words/names';
  import { TextArea } from 'carbon-components-svelte';

  /** A remark over several lines, kept when it is left. */
  let {
    label,
    value,
    placeholder = '',
    onset,
  }: { label: string; value: string; placeholder?: string; onset: (text: string) => void } = $props();
  let refused = $state('');

  function keep(text: string): void {
    const remark = FreeText.safeParse(text);
    refused = remark.success ? '' : (remark.error.issues[0]?.message ?? '');
    if (remark.success && remark.data !== value) onset(remark.data);
  }
</script>

<TextArea
  rows={3}
  labelText={label}
  {placeholder}
  {value}
  invalid={refused !== ''}
  invalidText={refused}
  on:change={(event) => {
    if (event.target instanceof HTMLTextAreaElement) keep(event.target.value);
  }}
/>
