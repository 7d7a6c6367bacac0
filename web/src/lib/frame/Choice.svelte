<script lang="ts" generics="T extends string | number">
  /** A row of buttons of which one is down. */
  let {
    label,
    options,
    value,
    small = false,
    onchoose,
  }: {
    label: string;
    options: readonly { readonly value: T; readonly text: string; readonly title?: string }[];
    value: T;
    /** Low, and without its label on the screen. */
    small?: boolean;
    onchoose: (value: T) => void;
  } = $props();
</script>

<div class="choice" class:small role="group" aria-label={label}>
  {#if !small}<span class="label" aria-hidden="true">{label}</span>{/if}
  <div class="row">
    {#each options as option (option.value)}
      <button
        class:on={option.value === value}
        aria-pressed={option.value === value}
        title={option.title}
        onclick={() => onchoose(option.value)}>{option.text}</button
      >
    {/each}
  </div>
</div>

<style>
  .label {
    display: block;
    font-size: 12px;
    color: var(--cds-text-02);
    line-height: 16px;
  }

  .row {
    display: flex;
  }

  button {
    padding: 0 0.6rem;
    height: 28px;
    border: 1px solid var(--cds-ui-04);
    border-left-width: 0;
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 13px;
    cursor: pointer;
    white-space: nowrap;
  }

  button:first-child {
    border-left-width: 1px;
  }

  button.on {
    background: var(--cds-interactive-01);
    border-color: var(--cds-interactive-01);
    color: #fff;
    font-weight: 600;
  }

  .small button {
    padding: 0 0.4rem;
    height: 24px;
    font-size: 12px;
  }

  .small button.on {
    background: var(--on);
    border-color: var(--on);
    color: var(--on-text);
  }
</style>
