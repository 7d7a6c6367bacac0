<script lang="ts">
  import { Modal } from 'carbon-components-svelte';
  import { SHORTCUTS } from './shortcuts';

  let { open = $bindable() }: { open: boolean } = $props();
</script>

<Modal passiveModal bind:open modalHeading="Keys">
  <dl>
    {#each SHORTCUTS as { keys, does } (keys)}
      <dt><kbd>{keys}</kbd></dt>
      <dd>{does}</dd>
    {/each}
  </dl>
</Modal>

<style>
  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 0.4rem 1.25rem;
  }

  kbd {
    font-family: var(--mono);
  }
</style>
