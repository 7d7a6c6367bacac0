<script lang="ts">
  import TickBoxes from './TickBoxes.svelte';

  /** A long choice of several, folded to what is chosen. */
  let {
    label,
    summary,
    items,
    chosen,
    atLeast,
    onset,
  }: {
    label: string;
    summary: string;
    items: readonly { readonly id: string; readonly name: string }[];
    chosen: readonly string[];
    atLeast: number;
    onset: (ids: string[]) => void;
  } = $props();

  const names = $derived(new Map(items.map(({ id, name }) => [id, name])));
</script>

<details>
  <summary>{summary}</summary>
  <TickBoxes
    {label}
    items={items.map(({ id }) => id)}
    {chosen}
    {atLeast}
    nameOf={(id: string) => names.get(id) ?? 'deleted item'}
    {onset}
  />
</details>

<style>
  summary {
    padding: 0 0.4rem;
    border: 1px solid var(--cds-ui-04);
    background: var(--cds-field-01);
    font-size: 13px;
    cursor: pointer;
  }

  details[open] {
    flex-basis: 100%;
  }
</style>
