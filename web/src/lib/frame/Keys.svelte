<script lang="ts">
  import { Button, Modal } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { SHORTCUTS } from './shortcuts';
  import { startTour } from './tour';
  import { WORDS } from './words';

  /** The keys, the words, and the way to the tour. */
  let { open = $bindable() }: { open: boolean } = $props();
  const editor = getEditor()();
</script>

<Modal passiveModal bind:open size="lg" hasScrollingContent modalHeading="Keys and terms">
  <Button
    size="small"
    kind="tertiary"
    on:click={() => {
      open = false;
      void startTour(editor);
    }}>Take the tour</Button
  >
  <div class="both">
    <section aria-labelledby="keys-heading">
      <h2 id="keys-heading">Keys</h2>
      <dl>
        {#each SHORTCUTS as { keys, does } (keys)}
          <dt><kbd>{keys}</kbd></dt>
          <dd>{does}</dd>
        {/each}
      </dl>
    </section>
    <section aria-labelledby="words-heading">
      <h2 id="words-heading">Terms</h2>
      <dl>
        {#each WORDS as { word, means } (word)}
          <dt>{word}</dt>
          <dd>{means}</dd>
        {/each}
      </dl>
    </section>
  </div>
</Modal>

<style>
  .both {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 2rem;
    margin-top: 1rem;
  }

  h2 {
    margin-bottom: 0.5rem;
  }

  dl {
    display: grid;
    grid-template-columns: minmax(6rem, max-content) 1fr;
    gap: 0.4rem 1rem;
    align-items: baseline;
  }

  dt {
    font-size: 13px;
    font-weight: 600;
    max-width: 12rem;
  }

  dd {
    font-size: 13px;
  }

  kbd {
    font-family: var(--mono);
    font-weight: 400;
  }
</style>
