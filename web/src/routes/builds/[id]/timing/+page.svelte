<script lang="ts">
  import { Pane, PaneGroup, PaneResizer } from 'paneforge';
  import Choice from '$lib/ui/Choice.svelte';
  import { getEditor } from '$lib/editor/context';
  import Inspector from '$lib/layout/Inspector.svelte';
  import Sheet from '$lib/sheet/Sheet.svelte';
  import { PatternDesk, setDesk } from '$lib/pieces/desk.svelte';
  import GroupTable from '$lib/timing/GroupTable.svelte';
  import PatternLibrary from '$lib/timing/PatternLibrary.svelte';
  import PatternPanel from '$lib/timing/PatternPanel.svelte';
  import Timeline from '$lib/timing/Timeline.svelte';
  import SceneView from '$lib/timing/SceneView.svelte';
  import StageComparison from '$lib/timing/StageComparison.svelte';
  import CueTable from '$lib/timing/CueTable.svelte';
  import { paneWidths } from '$lib/ui/remember';
  import SidePane from '$lib/ui/SidePane.svelte';

  const editor = getEditor()();
  const desk = new PatternDesk(editor, () => (panel = 'pattern'));
  setDesk(() => desk);

  const PANELS = [
    { value: 'functions', text: 'Functions' },
    { value: 'lamps', text: 'Lamp' },
    { value: 'pattern', text: 'Pattern' },
    { value: 'patterns', text: 'Library' },
    { value: 'groups', text: 'Clocks' },
    { value: 'compare', text: 'Compare stages' },
    { value: 'scene', text: 'Scene' },
  ] as const;
  type Panel = (typeof PANELS)[number]['value'];
  let panel = $state<Panel>('functions');

  /** Shares of the width for the panel beside the score: at first, and made wide. */
  const BESIDE = 38;
  const WIDE = 66;
  let tools: { widen: (to: number) => void; width: () => number } | undefined = $state();
  const toggleWidth = (): void => tools?.widen(tools.width() > BESIDE + 5 ? BESIDE : WIDE);

  // Lamps that are taken up here, not those that still were from another step, come into sight.
  const { selection: atFirst } = editor;
  $effect(() => {
    if (editor.selection !== atFirst && editor.selection.size > 0) panel = 'lamps';
  });
</script>

<PaneGroup direction="horizontal" autoSaveId="flarik-timing" storage={paneWidths}>
  <Pane order={1} minSize={20}><Timeline /></Pane>
  <SidePane bind:this={tools} name="Timing tools" side="right" share={BESIDE} least={20}>
    <PaneGroup direction="vertical" autoSaveId="flarik-timing-beside" storage={paneWidths}>
      <Pane defaultSize={34} collapsible collapsedSize={0} minSize={15}><Sheet editable={false} /></Pane>
      <PaneResizer class="divider" aria-label="Height of the sheet" />
      <Pane minSize={20}>
        <div class="panel">
          <div class="tabs">
            <Choice
              views
              label="Timing tools"
              small
              options={PANELS}
              value={panel}
              onchoose={(v: Panel) => (panel = v)}
            />
            <button class="plain" onclick={toggleWidth} aria-label="Wide or narrow" title="Wide or narrow"
              >⇔</button
            >
          </div>
          {#if panel === 'functions'}<CueTable />
          {:else if panel === 'lamps'}<Inspector />
          {:else if panel === 'pattern'}<PatternPanel />
          {:else if panel === 'patterns'}<PatternLibrary />
          {:else if panel === 'groups'}<GroupTable />
          {:else if panel === 'compare'}<StageComparison />
          {:else}<SceneView />{/if}
        </div>
      </Pane>
    </PaneGroup>
  </SidePane>
</PaneGroup>

<style>
  .panel {
    display: flex;
    flex-direction: column;
    height: 100%;
    min-height: 0;
  }

  .panel > :global(*:last-child) {
    flex: 1;
    min-height: 0;
  }

  .tabs {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.25rem;
    padding: 0.25rem;
  }

  .tabs button {
    flex: none;
    height: 24px;
  }
</style>
