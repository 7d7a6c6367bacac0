<script lang="ts">
  import Catalogue from '$lib/layout/Catalogue.svelte';
  import Counts from '$lib/layout/Counts.svelte';
  import Inspector from '$lib/layout/Inspector.svelte';
  import Sheet from '$lib/sheet/Sheet.svelte';

  type Drop = (clientX: number, clientY: number) => void;
  let drop: Drop = () => undefined;
</script>

<div class="step">
  <Catalogue ondrop={(x: number, y: number) => drop(x, y)} />
  <div class="middle">
    <Sheet ondropper={(ready: Drop) => (drop = ready)} />
    <Counts />
  </div>
  <Inspector />
</div>

<style>
  .step {
    display: grid;
    grid-template-columns: 208px minmax(0, 1fr) 256px;
    height: 100%;
  }

  .step > :global(*) {
    min-height: 0;
  }

  .middle {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    min-width: 0;
  }

  .middle > :global(:first-child) {
    min-height: 0;
  }
</style>
