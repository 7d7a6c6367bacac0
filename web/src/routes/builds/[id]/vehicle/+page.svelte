<script lang="ts">
  import type { DrawnRect } from '@flarik/core/vehicle/picture/drawn';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/frame/Choice.svelte';
  import Sheet from '$lib/sheet/Sheet.svelte';
  import BodyPanel from '$lib/vehicle/BodyPanel.svelte';
  import { addDrawn, drawingName, type Drawing } from '$lib/vehicle/drawing';
  import OwnPanel from '$lib/vehicle/OwnPanel.svelte';
  import SurveyPanel from '$lib/vehicle/SurveyPanel.svelte';

  const editor = getEditor()();
  type Side = 'survey' | 'own';
  const SIDES: readonly { value: Side; text: string }[] = [
    { value: 'survey', text: 'Survey' },
    { value: 'own', text: 'Your own parts' },
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

<div class="step">
  <div class="panel"><BodyPanel onmeasure={(key: string | null) => (measured = key)} /></div>
  <Sheet
    editable={false}
    show={{ zones: true, keepOuts: true, beams: false, offLook: true }}
    {measured}
    drawing={drawing !== null}
    ondrawn={drawn}
  />
  <div class="panel right">
    <Choice label="Beside the sheet" small options={SIDES} value={side} onchoose={(s: Side) => (side = s)} />
    {#if side === 'survey'}<SurveyPanel />{:else}<OwnPanel bind:drawing bind:bothSides />{/if}
  </div>
</div>

<style>
  .step {
    display: grid;
    grid-template-columns: 256px minmax(0, 1fr) 300px;
    height: 100%;
  }

  .step > :global(*) {
    min-height: 0;
  }

  .panel {
    padding: 0.6rem 0.75rem;
    overflow-y: auto;
    background: var(--cds-ui-01);
    border-right: 1px solid var(--cds-ui-03);
  }

  .right {
    display: grid;
    gap: 0.6rem;
    align-content: start;
    border-right: 0;
    border-left: 1px solid var(--cds-ui-03);
  }
</style>
