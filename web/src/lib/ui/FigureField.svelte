<script lang="ts">
  /** A figure within a sentence, with decimals where it may have some: one beyond its bounds is not taken. */
  let {
    label,
    value,
    min,
    max,
    whole,
    onset,
  }: {
    label: string;
    value: number;
    min: number;
    max: number;
    whole: boolean;
    onset: (value: number) => void;
  } = $props();

  function take({ currentTarget }: Event & { currentTarget: HTMLInputElement }): void {
    const typed = currentTarget.valueAsNumber;
    const kept = Number.isFinite(typed) ? Math.min(Math.max(typed, min), max) : value;
    const taken = whole ? Math.round(kept) : kept;
    currentTarget.value = String(taken);
    if (taken !== value) onset(taken);
  }
</script>

<input
  type="number"
  aria-label={label}
  {min}
  {max}
  step={whole ? 1 : 'any'}
  {value}
  style:width="{Math.max(4.2, String(value).length * 0.62 + 2)}rem"
  onchange={take}
/>
