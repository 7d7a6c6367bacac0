<script lang="ts">
  import type { StageIndex } from '@flarik/core/design/timing';
  import type { Ambient } from '@flarik/core/words/ambient';
  import { getEditor } from '$lib/editor/context';
  import Choice from './Choice.svelte';
  import DoorPlan from './DoorPlan.svelte';
  import Playback from './Playback.svelte';

  const editor = getEditor()();

  const stages = $derived(
    editor.stages.map((value) => ({ value, text: editor.stageName(value), title: `Key ${value}` })),
  );
  const ambients: readonly { value: Ambient; text: string }[] = [
    { value: 'day', text: 'Day' },
    { value: 'night', text: 'Night' },
  ];
  const chooseStage = (stage: StageIndex) => editor.setState({ stage });
</script>

<section class="state" aria-label="State bar">
  <Choice label="Stage" options={stages} value={editor.state.stage} onchoose={chooseStage} />
  <DoorPlan />
  <Choice
    label="Ambient"
    options={ambients}
    value={editor.state.ambient}
    onchoose={(ambient: Ambient) => editor.setState({ ambient })}
  />
  <Playback />
</section>

<style>
  .state {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 1rem;
    padding: 0.25rem 0.75rem;
    min-height: 60px;
    background: var(--cds-ui-01);
    border-bottom: 1px solid var(--cds-ui-03);
  }

  @media (max-width: 1150px) {
    .state {
      gap: 0.4rem;
      padding: 0.25rem 0.4rem;
    }
  }
</style>
