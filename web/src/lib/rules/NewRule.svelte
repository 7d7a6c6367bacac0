<script lang="ts">
  import { RULE_KINDS } from '@flarik/core/rules/registry';
  import { Button, Select, SelectItem } from 'carbon-components-svelte';
  import Add from 'carbon-icons-svelte/lib/Add.svelte';

  let { onadd }: { onadd: (kind: string, title: string) => void } = $props();
  const kinds = RULE_KINDS.toSorted((a, b) => a.title.localeCompare(b.title));
  let chosen = $state(kinds[0]?.kind ?? '');
  const title = $derived(kinds.find((k) => k.kind === chosen)?.title ?? '');
</script>

<div>
  <Select size="sm" labelText="Kind of rule" bind:selected={chosen}>
    {#each kinds as { kind, title: text } (kind)}<SelectItem value={kind} {text} />{/each}
  </Select>
  <Button size="small" kind="tertiary" icon={Add} on:click={() => onadd(chosen, title)}>Add the rule</Button>
</div>

<style>
  div {
    display: grid;
    grid-template-columns: 18rem auto;
    justify-content: start;
    align-items: end;
    gap: 0.75rem;
  }
</style>
