<script lang="ts">
  /** A figure within a sentence: kept between its bounds, and rounded where it must be whole. */
  let {
    label,
    value,
    min,
    max,
    step = 1,
    wide = false,
    onset,
  }: {
    label: string;
    value: number;
    min: number;
    max: number;
    step?: number;
    wide?: boolean;
    onset: (value: number) => void;
  } = $props();

  function take({ currentTarget }: Event & { currentTarget: HTMLInputElement }): void {
    const typed = currentTarget.valueAsNumber;
    const kept = Number.isFinite(typed) ? Math.round(Math.min(Math.max(typed, min), max)) : value;
    currentTarget.value = String(kept);
    if (kept !== value) onset(kept);
  }
</script>

<input type="number" class:wide aria-label={label} {min} {max} {step} {value} onchange={take} />

<style>
  input {
    width: 4.6rem;
  }

  input.wide {
    width: 6.5rem;
  }
</style>
