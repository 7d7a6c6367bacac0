<script lang="ts">
  import { goto } from '$app/navigation';
  import { activeFunctionNames } from '@flarik/core/design/controls';
  import { PROGRAM_COLUMNS, programRows } from '@flarik/core/controls/programRows';
  import { Pane, PaneGroup, PaneResizer } from 'paneforge';
  import Papa from 'papaparse';
  import StateMatrix from '$lib/controls/StateMatrix.svelte';
  import CabEditor from '$lib/controls/CabEditor.svelte';
  import CockpitInputs from '$lib/controls/CockpitInputs.svelte';
  import FunctionPanel from '$lib/controls/FunctionPanel.svelte';
  import InputsEditor from '$lib/controls/InputsEditor.svelte';
  import PriorityList from '$lib/controls/PriorityList.svelte';
  import PanelFace from '$lib/controls/PanelFace.svelte';
  import PanelsEditor from '$lib/controls/PanelsEditor.svelte';
  import VerificationView from '$lib/controls/VerificationView.svelte';
  import Recorder from '$lib/controls/Recorder.svelte';
  import SetsEditor from '$lib/controls/SetsEditor.svelte';
  import Templates from '$lib/controls/Templates.svelte';
  import { download } from '$lib/download';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';
  import Sheet from '$lib/sheet/Sheet.svelte';
  import { PatternDesk, setDesk } from '$lib/pieces/desk.svelte';
  import { paneWidths } from '$lib/ui/remember';
  import SidePane from '$lib/ui/SidePane.svelte';

  const editor = getEditor()();
  const { cockpit } = editor;
  const desk = new PatternDesk(editor, () => void goto(`/builds/${editor.build.id}/timing`));
  setDesk(() => desk);

  const PANELS = [
    { value: 'function', text: 'Function' },
    { value: 'templates', text: 'Templates' },
    { value: 'panels', text: 'Panels' },
    { value: 'inputs', text: 'Inputs' },
    { value: 'sets', text: 'Lamp sets' },
    { value: 'cab', text: 'Cab' },
  ] as const;
  type PanelName = (typeof PANELS)[number]['value'];
  const MIDDLES = [
    { value: 'ladder', text: 'Priority' },
    { value: 'atlas', text: 'State matrix' },
    { value: 'proof', text: 'Verification' },
  ] as const;
  type Middle = (typeof MIDDLES)[number]['value'];

  /** A build whose programme is its slide alone begins with what can be laid. */
  const { functions } = editor.build.controls;
  let panel = $state<PanelName>(functions.length <= editor.stages.length ? 'templates' : 'function');
  let middle = $state<Middle>('ladder');
  let chosen = $state<string | null>(null);
  const fn = $derived(editor.build.controls.functions.find((f) => f.id === chosen) ?? null);
  const loads = $derived(
    [...cockpit.loads].filter(([id, value]) =>
      editor.build.controls.loads.some((l) => l.id === id && l.values[0] !== value),
    ),
  );

  function choose(id: string): void {
    chosen = id;
    panel = 'function';
  }

  function exportTable(): void {
    const rows = { fields: [...PROGRAM_COLUMNS], data: programRows(editor.build) };
    download(`${editor.build.name}, program.csv`, `${Papa.unparse(rows, { newline: '\n' })}\n`, 'text/csv');
  }
</script>

<PaneGroup direction="horizontal" autoSaveId="flarik-controls" storage={paneWidths}>
  <SidePane name="Panels and vehicle" side="left" share={29} least={18}>
    <div class="drive">
      <p class="now" role="status">
        {#if cockpit.following}
          <strong>{activeFunctionNames(editor.build, cockpit.on)}</strong>
          {#each loads as [id, value] (id)}
            · {editor.build.controls.loads.find((l) => l.id === id)?.name}: {value}
          {/each}
        {:else}
          This state was selected directly.
          <button class="link" onclick={() => cockpit.follow()}>Follow the controls</button>
        {/if}
      </p>
      {#each editor.build.controls.panels as face (face.id)}
        <PanelFace panel={face} />
      {:else}
        <p class="quiet">No panels yet. Apply a template or add a panel under Panels.</p>
      {/each}
      <CockpitInputs />
      <Recorder />
    </div>
  </SidePane>
  <Pane order={2} minSize={24}>
    <PaneGroup direction="vertical" autoSaveId="flarik-controls-middle" storage={paneWidths}>
      <Pane defaultSize={42} collapsible collapsedSize={0} minSize={15}><Sheet editable={false} /></Pane>
      <PaneResizer class="divider" aria-label="Height of the sheet" />
      <Pane minSize={20}>
        <div class="column">
          <div class="tabs">
            <Choice
              views
              label="Priority, state matrix or verification"
              small
              options={MIDDLES}
              value={middle}
              onchoose={(v: Middle) => (middle = v)}
            />
            <button class="plain" onclick={exportTable}>Export program as CSV</button>
          </div>
          {#if middle === 'ladder'}<PriorityList {chosen} onchoose={choose} />
          {:else if middle === 'atlas'}<StateMatrix />
          {:else}<VerificationView />{/if}
        </div>
      </Pane>
    </PaneGroup>
  </Pane>
  <SidePane name="Program" side="right" share={30} least={18}>
    <div class="column">
      <div class="tabs folds">
        <Choice
          views
          label="Program"
          small
          options={PANELS}
          value={panel}
          onchoose={(v: PanelName) => (panel = v)}
        />
      </div>
      {#if panel === 'function'}
        {#if fn === null}
          <p class="quiet empty">Select a function in the priority list or apply a template.</p>
        {:else}
          {#key fn.id}<FunctionPanel id={fn.id} />{/key}
        {/if}
      {:else if panel === 'templates'}<Templates />
      {:else if panel === 'panels'}<PanelsEditor />
      {:else if panel === 'inputs'}<InputsEditor />
      {:else if panel === 'sets'}<SetsEditor />
      {:else}<CabEditor />{/if}
    </div>
  </SidePane>
</PaneGroup>

<style>
  .drive {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    gap: 0.6rem;
    height: 100%;
    padding: 0 0.75rem 0.5rem;
    overflow-y: auto;
  }

  /* What is on stays in sight, however far the panel is scrolled. */
  .now {
    position: sticky;
    z-index: 1;
    top: 0;
    padding: 0.2rem 1.5rem 0.2rem 0;
    background: var(--cds-ui-01);
    font-size: 13px;
  }

  .column {
    display: flex;
    flex-direction: column;
    height: 100%;
    min-height: 0;
  }

  .column > :global(*:last-child) {
    flex: 1;
    min-height: 0;
  }

  .tabs {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 0.5rem;
    padding: 0.25rem;
  }

  /* Room for what folds the pane. */
  .tabs.folds {
    padding-right: 1.75rem;
  }

  .empty {
    padding: 0.75rem;
  }
</style>
