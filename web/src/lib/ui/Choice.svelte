<script lang="ts" generics="T extends string | number">
  /** A row of buttons of which one is down. */
  let {
    label,
    options,
    value,
    bare = false,
    small = false,
    views = false,
    onchoose,
  }: {
    label: string;
    options: readonly { readonly value: T; readonly text: string; readonly title?: string }[];
    value: T;
    /** Without its label on the screen. */
    bare?: boolean;
    /** Bare, lower, and in grey. */
    small?: boolean;
    /** Each button opens a view of the step. */
    views?: boolean;
    onchoose: (value: T) => void;
  } = $props();
</script>

<div class="choice" class:small class:bare role="group" aria-label={label} data-views={views || undefined}>
  {#if !small && !bare}<span class="label" aria-hidden="true">{label}</span>{/if}
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
    max-width: 8rem;
    overflow: hidden;
    text-overflow: ellipsis;
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

  @media (max-width: 1150px) {
    .bare button {
      padding: 0 0.35rem;
      font-size: 12px;
    }
  }

  /* In a narrow pane the choices go on in a second line, each with its own left edge. */
  .small .row {
    flex-wrap: wrap;
    row-gap: 2px;
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
