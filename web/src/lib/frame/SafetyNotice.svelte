<script lang="ts">
  import { Modal, RadioButton, RadioButtonGroup } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';

  let { open = $bindable() }: { open: boolean } = $props();
  const { preview } = getEditor()();
  let speed = $state('calm');

  function agree(): void {
    preview.noticeRead = true;
    preview.trueSpeed = speed === 'true';
    open = false;
    preview.play();
  }
</script>

<Modal
  bind:open
  modalHeading="Before lights flash on this screen"
  primaryButtonText="Play"
  secondaryButtonText="Do not play"
  on:submit={agree}
  on:click:button--secondary={() => (open = false)}
>
  <div class="text">
    <p>
      <strong>Flashing light can cause seizures in people with photosensitive epilepsy</strong>, some of whom
      do not know that they have it. The risk is greatest between 3 and 30 flashes a second, and with
      saturated red.
    </p>
    <p>
      The slow preview starts at most two flashes per second and has less contrast. At true speed the screen
      flashes as the vehicle does. Esc stops it immediately. Your choice applies until you close this page.
    </p>
    <RadioButtonGroup legendText="Speed" bind:selected={speed}>
      <RadioButton labelText="Slow" value="calm" />
      <RadioButton labelText="True speed: no one here is photosensitive" value="true" />
    </RadioButtonGroup>
  </div>
</Modal>

<style>
  .text {
    display: grid;
    gap: 1rem;
  }
</style>
