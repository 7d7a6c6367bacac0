<script lang="ts">
  /** A file from the user's disk, one at a time; the same file may be chosen again. A button of the caller's opens it. */
  let {
    label,
    accept,
    ontake,
  }: {
    label: string;
    /** Endings and types, with commas between them. */
    accept: string;
    ontake: (file: File) => void | Promise<void>;
  } = $props();

  let input: HTMLInputElement | undefined = $state();

  export function open(): void {
    input?.click();
  }

  async function take(): Promise<void> {
    const file = input?.files?.[0];
    if (input === undefined || file === undefined) return;
    try {
      await ontake(file);
    } finally {
      input.value = '';
    }
  }
</script>

<input
  bind:this={input}
  class="visually-hidden"
  type="file"
  {accept}
  aria-label={label}
  tabindex="-1"
  onchange={take}
/>
