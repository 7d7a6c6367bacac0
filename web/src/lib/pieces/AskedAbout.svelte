<script lang="ts">
  import { matchesWords } from '@flarik/core/words/matches';
  import { ComboBox } from 'carbon-components-svelte';

  /** One thing of many that a condition can ask about, found by typing any of its words. */
  let {
    label,
    items,
    value,
    onset,
  }: {
    label: string;
    items: readonly { readonly id: string; readonly text: string }[];
    value: string;
    onset: (id: string) => void;
  } = $props();
</script>

<div class="asked">
  <ComboBox
    size="sm"
    hideLabel
    labelText={label}
    items={[...items]}
    selectedId={value}
    shouldFilterItem={(item: { text: string }, typed: string) =>
      items.some(({ text }) => text === typed) || matchesWords(item.text, typed)}
    on:select={({ detail }) => {
      if (detail.selectedId !== value) onset(detail.selectedId);
    }}
  />
</div>

<style>
  .asked {
    /* Holds the hidden label, which would stretch the page. */
    position: relative;
    width: 13rem;
  }

  /* Something is always asked about. */
  .asked :global(.bx--list-box__selection) {
    display: none;
  }
</style>
