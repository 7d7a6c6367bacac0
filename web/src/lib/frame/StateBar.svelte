<script lang="ts">
  import type { StageIndex } from '@flarik/core/design/timing';
  import type { Ambient } from '@flarik/core/words/ambient';
  import { getEditor } from '$lib/editor/context';
  import Choice from './Choice.svelte';
  import MovingParts from './MovingParts.svelte';
  import Playback from './Playback.svelte';

  const editor = getEditor()();

  const stages = $derived(
    editor.stages.map((value) => ({
      value,
      text: editor.stageName(value),
      title: `${editor.stageName(value)} (key ${value})`,
    })),
  );
  const ambients: readonly { value: Ambient; text: string; title: string }[] = [
    { value: 'day', text: 'Day', title: 'By day (key D)' },
    { value: 'night', text: 'Night', title: 'By night (key D)' },
  ];
  const chooseStage = (stage: StageIndex) => editor.setState({ stage });
</script>

<section class="state" aria-label="State bar">
  <Choice label="Stage" bare options={stages} value={editor.state.stage} onchoose={chooseStage} />
  <MovingParts />
  <Choice
    label="Ambient"
    bare
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
    gap: 0.6rem;
    min-width: 0;
  }

  @media (max-width: 1150px) {
    .state {
      gap: 0.35rem;
    }
  }
</style>
