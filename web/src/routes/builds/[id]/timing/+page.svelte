<script lang="ts">
  import Inspector from '$lib/layout/Inspector.svelte';
  import Sheet from '$lib/sheet/Sheet.svelte';
  import Score from '$lib/timing/Score.svelte';
  import StageTable from '$lib/timing/StageTable.svelte';
</script>

<div class="step">
  <div class="timing">
    <StageTable />
    <Score />
  </div>
  <div class="beside">
    <Sheet editable={false} />
    <Inspector />
  </div>
</div>

<style>
  .step {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(360px, 36%);
    height: 100%;
  }

  .step > :global(*) {
    min-height: 0;
  }

  .beside {
    display: grid;
    grid-template-rows: minmax(0, 1fr) minmax(0, 46%);
  }

  .beside > :global(*) {
    min-height: 0;
  }

  .timing {
    min-width: 0;
    display: grid;
    grid-template-rows: minmax(0, 11fr) minmax(0, 10fr);
    border-right: 1px solid var(--cds-ui-03);
  }
</style>
