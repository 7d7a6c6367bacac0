<script lang="ts" generics="T extends string">
  /** One of several within a sentence. */
  let {
    label,
    options,
    value,
    onset,
  }: {
    label: string;
    options: readonly { readonly value: T; readonly text: string }[];
    value: T;
    onset: (value: T) => void;
  } = $props();
</script>

<select
  aria-label={label}
  {value}
  onchange={({ currentTarget }) => {
    const chosen = options[currentTarget.selectedIndex];
    if (chosen !== undefined) onset(chosen.value);
  }}
>
  {#each options as option (option.value)}<option value={option.value}>{option.text}</option>{/each}
</select>
