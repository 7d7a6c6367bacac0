<script lang="ts">
  import type { DrawnRect } from '@flarik/core/vehicle/picture/drawn';
  import { Pane, PaneGroup } from 'paneforge';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';
  import Sheet from '$lib/sheet/Sheet.svelte';
  import { paneWidths } from '$lib/ui/remember';
  import SidePane from '$lib/ui/SidePane.svelte';
  import BodyPanel from '$lib/vehicle/BodyPanel.svelte';
  import { addDrawn, drawingName, type Drawing } from '$lib/vehicle/drawing';
  import OwnPanel from '$lib/vehicle/OwnPanel.svelte';
  import SurveyPanel from '$lib/vehicle/SurveyPanel.svelte';

  const editor = getEditor()();
  type Side = 'survey' | 'own';
  const SIDES: readonly { value: Side; text: string }[] = [
    { value: 'survey', text: 'Survey' },
    { value: 'own', text: 'Custom parts' },
  ];
  let side = $state<Side>('survey');
  let measured = $state<string | null>(null);
  let drawing = $state<Drawing | null>(null);
  let bothSides = $state(false);

  function drawn(rect: DrawnRect): void {
    const what = drawing;
    if (what === null) return;
    editor.edit(`Draw a ${drawingName[what]}`, (b) => addDrawn(b, editor.vehicle, what, rect, bothSides));
    drawing = null;
  }
</script>

<svelte:window
  onkeydown={(event: KeyboardEvent) => {
    if (event.key === 'Escape') drawing = null;
  }}
/>

<PaneGroup direction="horizontal" autoSaveId="flarik-vehicle" storage={paneWidths}>
  <SidePane name="Body" side="left" share={22} least={14}>
    <div class="panel"><BodyPanel onmeasure={(key: string | null) => (measured = key)} /></div>
  </SidePane>
  <Pane order={2} minSize={25}>
    <Sheet
      editable={false}
      show={{ zones: true, keepOuts: true, beams: false, offLook: true }}
      {measured}
      drawing={drawing !== null}
      ondrawn={drawn}
    />
  </Pane>
  <SidePane name="Vehicle data" side="right" share={26} least={16}>
    <div class="panel right">
      <Choice
        views
        label="Beside the sheet"
        small
        options={SIDES}
        value={side}
        onchoose={(s: Side) => (side = s)}
      />
      {#if side === 'survey'}<SurveyPanel />{:else}<OwnPanel bind:drawing bind:bothSides />{/if}
    </div>
  </SidePane>
</PaneGroup>

<style>
  .panel {
    padding: 0.6rem 0.75rem;
    overflow-y: auto;
  }

  .right {
    display: grid;
    gap: 0.6rem;
    align-content: start;
  }
</style>
