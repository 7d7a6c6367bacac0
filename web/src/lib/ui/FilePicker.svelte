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

  async function take(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    // What is done with the file may leave the page, and this picker with it.
    const field = event.currentTarget;
    const file = field.files?.[0];
    if (file === undefined) return;
    try {
      await ontake(file);
    } finally {
      field.value = '';
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
