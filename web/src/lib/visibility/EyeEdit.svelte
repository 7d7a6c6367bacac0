<script lang="ts">
  import { changeOwn } from '@flarik/core/design/ownEdits';
  import type { EyePlace } from '@flarik/core/design/site';
  import FigureField from '$lib/ui/FigureField.svelte';
  import OwnSentence from './OwnSentence.svelte';
  import WhereFields from './WhereFields.svelte';

  /** An eye of the build's own near the vehicle. */
  let { one }: { one: EyePlace } = $props();
  type Patch = Partial<Omit<EyePlace, 'id'>>;
</script>

<OwnSentence
  list="eyes"
  {one}
  label="Name of the viewpoint"
  change={(b, patch: Patch) => changeOwn(b, 'eyes', one.id, patch)}
>
  {#snippet says(set: (patch: Patch) => void)}
    is
    <WhereFields xM={one.xM} yM={one.yM} zM={one.zM} onset={set} />, looks
    <FigureField
      label="Direction, degrees clockwise from ahead"
      value={one.lookDeg}
      min={0}
      max={359.9}
      whole={false}
      onset={(lookDeg: number) => set({ lookDeg })}
    />° from ahead and
    <FigureField
      label="Elevation of view, °"
      value={one.upDeg}
      min={-90}
      max={90}
      whole={false}
      onset={(upDeg: number) => set({ upDeg })}
    />° up.
  {/snippet}
</OwnSentence>
