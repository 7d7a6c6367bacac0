<script lang="ts">
  import { Pane, PaneGroup } from 'paneforge';
  import Catalogue from '$lib/layout/Catalogue.svelte';
  import Counts from '$lib/layout/Counts.svelte';
  import Inspector from '$lib/layout/Inspector.svelte';
  import Sheet from '$lib/sheet/Sheet.svelte';
  import { paneWidths } from '$lib/ui/remember';
  import SidePane from '$lib/ui/SidePane.svelte';

  type Drop = (clientX: number, clientY: number) => void;
  let drop: Drop = () => undefined;
</script>

<PaneGroup direction="horizontal" autoSaveId="flarik-layout" storage={paneWidths}>
  <SidePane name="Catalogue" side="left" share={18}>
    <Catalogue ondrop={(x: number, y: number) => drop(x, y)} />
  </SidePane>
  <Pane order={2} minSize={25}>
    <div class="middle">
      <Sheet ondropper={(ready: Drop) => (drop = ready)} />
      <Counts />
    </div>
  </Pane>
  <SidePane name="Inspector" side="right" share={22} least={15}>
    <Inspector />
  </SidePane>
</PaneGroup>

<style>
  .middle {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    height: 100%;
    min-width: 0;
  }

  .middle > :global(:first-child) {
    min-height: 0;
  }
</style>
