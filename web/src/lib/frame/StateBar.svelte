<script lang="ts">
  import type { ActiveFunction } from '@flarik/core/design/controls';
  import type { Ambient } from '@flarik/core/words/ambient';
  import { getEditor } from '$lib/editor/context';
  import Choice from '$lib/ui/Choice.svelte';
  import FunctionsOn from './FunctionsOn.svelte';
  import MovingParts from './MovingParts.svelte';
  import Playback from './Playback.svelte';

  const editor = getEditor()();

  const stages = $derived(
    editor.stages.map(({ id, name, mode }) => ({
      value: id,
      text: name,
      title: `${name} only (key ${mode ?? ''})`,
    })),
  );
  const ambients: readonly { value: Ambient; text: string; title: string }[] = [
    { value: 'day', text: 'Day', title: 'By day (key D)' },
    { value: 'night', text: 'Night', title: 'By night (key D)' },
  ];
</script>

<section class="state" aria-label="State bar">
  {#if stages.length > 0}
    <Choice
      label="Stage"
      bare
      options={stages}
      value={editor.stageOn ?? ''}
      onchoose={(on: ActiveFunction) => editor.lookAtFunction(on)}
    />
  {/if}
  {#if editor.build.controls.functions.length > editor.stages.length}
    <FunctionsOn />
  {/if}
  <MovingParts />
  <Choice
    label="Ambient"
    bare
    options={ambients}
    value={editor.state.ambient}
    onchoose={(ambient: Ambient) => editor.setAmbient(ambient)}
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

  @media (max-width: 1000px) {
    .state {
      flex-wrap: wrap;
    }
  }
</style>
