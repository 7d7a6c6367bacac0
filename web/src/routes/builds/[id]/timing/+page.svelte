<script lang="ts">
  import Choice from '$lib/frame/Choice.svelte';
  import { getEditor } from '$lib/editor/context';
  import Inspector from '$lib/layout/Inspector.svelte';
  import Sheet from '$lib/sheet/Sheet.svelte';
  import { PatternDesk, setDesk } from '$lib/timing/desk.svelte';
  import GroupTable from '$lib/timing/GroupTable.svelte';
  import PatternLibrary from '$lib/timing/PatternLibrary.svelte';
  import PatternPanel from '$lib/timing/PatternPanel.svelte';
  import Score from '$lib/timing/Score.svelte';
  import SceneView from '$lib/timing/SceneView.svelte';
  import SideBySide from '$lib/timing/SideBySide.svelte';
  import StageTable from '$lib/timing/StageTable.svelte';

  const editor = getEditor()();
  const desk = new PatternDesk(editor);
  setDesk(() => desk);

  const ABOVE = [
    { value: 'stages', text: 'Stages' },
    { value: 'groups', text: 'Clocks' },
    { value: 'patterns', text: 'Patterns' },
    { value: 'compare', text: 'Side by side' },
    { value: 'scene', text: 'Scene' },
  ] as const;
  type Above = (typeof ABOVE)[number]['value'];
  let above = $state<Above>('stages');

  const BESIDE = [
    { value: 'lamps', text: 'Lamps' },
    { value: 'pattern', text: 'Pattern' },
  ] as const;
  type Beside = (typeof BESIDE)[number]['value'];
  let beside = $state<Beside>('lamps');

  // What was last taken up is what the panel shows: a pattern, or lamps.
  $effect(() => {
    if (desk.place !== null) beside = 'pattern';
  });
  $effect(() => {
    if (editor.selection.size > 0) beside = 'lamps';
  });
</script>

<div class="step">
  <div class="timing" class:tall={above !== 'stages'}>
    <div class="upper">
      <Choice
        label="Above the score"
        small
        options={ABOVE}
        value={above}
        onchoose={(v: Above) => (above = v)}
      />
      {#if above === 'stages'}<StageTable />
      {:else if above === 'groups'}<GroupTable />
      {:else if above === 'patterns'}<PatternLibrary />
      {:else if above === 'compare'}<SideBySide />
      {:else}<SceneView />{/if}
    </div>
    <Score />
  </div>
  <div class="beside">
    <Sheet editable={false} />
    <div class="panel">
      <Choice
        label="Beside the score"
        small
        options={BESIDE}
        value={beside}
        onchoose={(v: Beside) => (beside = v)}
      />
      {#if beside === 'pattern'}<PatternPanel />{:else}<Inspector />{/if}
    </div>
  </div>
</div>

<style>
  .step {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(340px, 32%);
    height: 100%;
  }

  .step > :global(*) {
    min-height: 0;
  }

  .beside {
    display: grid;
    grid-template-rows: minmax(0, 9fr) minmax(0, 11fr);
  }

  .beside > :global(*) {
    min-height: 0;
  }

  .panel,
  .upper {
    display: flex;
    flex-direction: column;
    min-height: 0;
  }

  .panel > :global(*:last-child),
  .upper > :global(*:last-child) {
    flex: 1;
    min-height: 0;
  }

  .upper {
    padding: 0.25rem 0 0 0.25rem;
  }

  .timing {
    min-width: 0;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(0, 9fr) minmax(0, 11fr);
    border-right: 1px solid var(--cds-ui-03);
  }

  .tall {
    grid-template-rows: minmax(0, 13fr) minmax(0, 9fr);
  }
</style>
