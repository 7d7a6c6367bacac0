<script lang="ts">
  import { Modal } from 'carbon-components-svelte';

  let { open = $bindable() }: { open: boolean } = $props();

  const KEYS: readonly (readonly [string, string])[] = [
    ['0 1 2 3', 'Off and the three stages; seen by eye, 1 to 8 walk round'],
    ['D', 'Day or night'],
    ['H', 'Hatch, tailgate or rear doors: open, pinned, shut'],
    ['Space', 'Play the preview; Space or Esc stops it'],
    ['Tab', 'To the next lamp on the sheet'],
    ['Enter', 'Select the lamp; with Shift, besides the others'],
    ['Ctrl+A', 'Select all lamps'],
    ['Arrow keys', 'In the catalogue, to the next fixture; on a lamp, nudge it by 5 mm, with Shift 25 mm'],
    ['[ ]', 'Turn a lamp by 5° to its left or right'],
    ['On a line of the score', 'Enter adds a bar, Ctrl+C and Ctrl+V copy and paste the line'],
    [
      'On a bar of the score',
      'Arrow keys move it by 10 ms, with Shift its end, with Alt by 1 ms; S splits it',
    ],
    [', .', 'To the change of light before, to the next'],
    ['Delete', 'Delete the lamp or the selection'],
    ['Esc', 'Put the fixture back; drop the selection'],
    ['Ctrl+Z, Ctrl+Shift+Z', 'Undo, redo'],
    ['Ctrl+K', 'Find a command, lamp, zone or finding'],
    ['?', 'This list'],
  ];
</script>

<Modal passiveModal bind:open modalHeading="Keys">
  <dl>
    {#each KEYS as [key, what] (key)}
      <dt><kbd>{key}</kbd></dt>
      <dd>{what}</dd>
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
