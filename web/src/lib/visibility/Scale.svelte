<script lang="ts">
  import { powerText, shadeOf } from './shades';

  /** What shade stands for what figure. */
  let { decades, unit }: { decades: readonly [number, number]; unit: string } = $props();
  const steps = $derived(
    Array.from({ length: decades[1] - decades[0] + 1 }, (_, i) => ({
      power: decades[0] + i,
      colour: `rgb(${shadeOf(i / (decades[1] - decades[0])).join(' ')})`,
    })),
  );
</script>

<span class="scale">
  {#each steps as { power, colour } (power)}
    <span><i style:background={colour}></i>{powerText(power)}</span>
  {/each}
  {unit}
</span>

<style>
  .scale {
    display: flex;
    flex-wrap: wrap;
    gap: 0.6rem;
    align-items: center;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .scale span {
    display: flex;
    gap: 0.25rem;
    align-items: center;
  }

  i {
    width: 14px;
    height: 14px;
    border: 1px solid var(--sheet-line);
  }
</style>
