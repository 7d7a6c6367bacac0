<script lang="ts">
  import { changeInSite, removeFromSite } from '@flarik/core/design/siteEdits';
  import type { EyePlace, WorkPlace } from '@flarik/core/design/site';
  import { FACINGS } from '@flarik/core/design/site';
  import { InputError } from '@flarik/core/words/errors';
  import { getEditor } from '$lib/editor/context';
  import FigureField from '$lib/ui/FigureField.svelte';
  import InlineChoice from '$lib/ui/InlineChoice.svelte';
  import WhereFields from './WhereFields.svelte';

  /** A work place or an eye of the build's own, as a sentence that is changed in place. */
  let { one }: { one: WorkPlace | EyePlace } = $props();
  const editor = getEditor()();
  const list = $derived('facing' in one ? 'workPlaces' : 'eyes');
  let refused = $state('');

  /** @param patch - of the same list, as the fields shown for it give it */
  function set(patch: Partial<Omit<WorkPlace, 'id'>> | Partial<Omit<EyePlace, 'id'>>): void {
    try {
      editor.edit(`Change ${one.name}`, (b) => changeInSite(b, list, one.id, patch));
      refused = '';
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      refused = error.message;
    }
  }
  const FACING = {
    up: 'up',
    front: 'ahead',
    rear: 'to the rear',
    left: 'to the left',
    right: 'to the right',
  };
</script>

<div class="sentence">
  <input
    type="text"
    aria-label="Name of the place"
    maxlength={80}
    value={one.name}
    onchange={({ currentTarget }) => set({ name: currentTarget.value })}
  />
  is
  <WhereFields xM={one.xM} yM={one.yM} zM={one.zM} onset={set} />,
  {#if 'facing' in one}
    faces
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
  {:else}
    looks
    <FigureField
      label="Looks, degrees clockwise from ahead"
      value={one.lookDeg}
      min={0}
      max={359.9}
      whole={false}
      onset={(lookDeg: number) => set({ lookDeg })}
    />° from ahead and
    <FigureField
      label="Looks up, degrees"
      value={one.upDeg}
      min={-90}
      max={90}
      whole={false}
      onset={(upDeg: number) => set({ upDeg })}
    />° up.
  {/if}
  <button
    class="plain"
    onclick={() => editor.edit(`Remove ${one.name}`, (b) => removeFromSite(b, list, one.id))}>Remove</button
  >
</div>
{#if refused !== ''}<p class="refused" role="alert">Not taken: {refused}.</p>{/if}

<style>
  .sentence {
    font-size: 13px;
    line-height: 2.1;
  }

  .sentence :global(input[type='number']) {
    width: 4.4rem;
  }

  input[type='text'] {
    width: 12rem;
  }

  .plain {
    padding: 0;
    border: 0;
    background: none;
    color: var(--cds-link-01);
    font: inherit;
    cursor: pointer;
  }

  .refused {
    color: var(--gap);
    font-size: 13px;
  }
</style>
