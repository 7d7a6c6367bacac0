<script lang="ts">
  import { changeOwn } from '@flarik/core/design/ownEdits';
  import { FACINGS, type WorkPlace } from '@flarik/core/design/site';
  import FigureField from '$lib/ui/FigureField.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import OwnSentence from './OwnSentence.svelte';
  import WhereFields from './WhereFields.svelte';

  /** A work place of the build's own. */
  let { one }: { one: WorkPlace } = $props();
  type Patch = Partial<Omit<WorkPlace, 'id'>>;
  const FACING = {
    up: 'up',
    front: 'ahead',
    rear: 'to the rear',
    left: 'to the left',
    right: 'to the right',
  };
</script>

<OwnSentence
  list="workPlaces"
  {one}
  label="Name of the work place"
  change={(b, patch: Patch) => changeOwn(b, 'workPlaces', one.id, patch)}
>
  {#snippet says(set: (patch: Patch) => void)}
    is
    <WhereFields xM={one.xM} yM={one.yM} zM={one.zM} onset={set} />, faces
    <InlineChoice
      label="Faces"
      options={FACINGS.map((value) => ({ value, text: FACING[value] }))}
      value={one.facing}
      onset={(facing: WorkPlace['facing']) => set({ facing })}
    />
    and is
    <FigureField
      label={one.facing === 'up' ? 'Along the vehicle, m' : 'Wide, m'}
      value={one.alongM}
      min={0}
      max={60}
      whole={false}
      onset={(alongM: number) => set({ alongM })}
    /> m {one.facing === 'up' ? 'long' : 'wide'} and
    <FigureField
      label={one.facing === 'up' ? 'Across the vehicle, m' : 'High, m'}
      value={one.acrossM}
      min={0}
      max={60}
      whole={false}
      onset={(acrossM: number) => set({ acrossM })}
    /> m {one.facing === 'up' ? 'wide' : 'high'}{one.alongM === 0 && one.acrossM === 0 ? ': a point' : ''}.
  {/snippet}
</OwnSentence>
