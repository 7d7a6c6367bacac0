<script lang="ts" generics="T extends string">
  /** A choice of several out of a few; no fewer than `atLeast` stay chosen. */
  let {
    label,
    items,
    chosen,
    atLeast = 1,
    nameOf = (item: T): string => item,
    onset,
  }: {
    label: string;
    items: readonly T[];
    chosen: readonly T[];
    atLeast?: number;
    nameOf?: (item: T) => string;
    onset: (items: T[]) => void;
  } = $props();

  function toggle(item: T): void {
    if (!chosen.includes(item)) onset([...chosen, item]);
    else if (chosen.length > atLeast) onset(chosen.filter((i) => i !== item));
    else onset([...chosen]);
  }
</script>

<span class="boxes" role="group" aria-label={label}>
  {#each items as item (item)}
    <label class:on={chosen.includes(item)}>
      <input type="checkbox" checked={chosen.includes(item)} onchange={() => toggle(item)} />
      {nameOf(item)}
    </label>
  {/each}
</span>

<style>
  .boxes {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.3rem;
  }

  label {
    display: inline-flex;
    gap: 0.25rem;
    align-items: center;
    padding: 0 0.4rem;
    border: 1px solid var(--cds-ui-04);
    font-size: 12px;
    line-height: 22px;
    color: var(--cds-text-02);
  }

  label.on {
    color: var(--cds-text-01);
    background: var(--cds-ui-03);
  }
</style>
