<script lang="ts">
  import { changeOwn } from '@flarik/core/design/ownEdits';
  import { FACINGS, type WorkPlace } from '@flarik/core/design/site';
  import { asRectangle, byCorners } from '@flarik/core/design/shapeEdits';
  import FigureField from '$lib/ui/FigureField.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import CornerFields from './CornerFields.svelte';
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
  label="Name of the work area"
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
    and is a
    <InlineChoice
      label="Outline of the work place"
      options={[
        { value: 'rectangle', text: 'rectangle' },
        { value: 'corners', text: 'figure with corners' },
      ]}
      value={one.shape.kind}
      onset={(kind: WorkPlace['shape']['kind']) =>
        set({ shape: kind === 'corners' ? byCorners(one.shape) : asRectangle(one.shape) })}
    />{#if one.shape.kind === 'rectangle'}
      {@const { alongM, acrossM } = one.shape},
      <FigureField
        label={one.facing === 'up' ? 'Along the vehicle, m' : 'Wide, m'}
        value={alongM}
        min={0}
        max={80}
        whole={false}
        onset={(m: number) => set({ shape: { kind: 'rectangle', alongM: m, acrossM } })}
      /> m {one.facing === 'up' ? 'long' : 'wide'} and
      <FigureField
        label={one.facing === 'up' ? 'Across the vehicle, m' : 'High, m'}
        value={acrossM}
        min={0}
        max={60}
        whole={false}
        onset={(m: number) => set({ shape: { kind: 'rectangle', alongM, acrossM: m } })}
      /> m {one.facing === 'up' ? 'wide' : 'high'}{alongM === 0 && acrossM === 0 ? ': a point' : ''}.
    {:else}; from its middle these are
      <CornerFields shape={one.shape} facing={one.facing} onset={(shape) => set({ shape })} />
    {/if}
  {/snippet}
</OwnSentence>
