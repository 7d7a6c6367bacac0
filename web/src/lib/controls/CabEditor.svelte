<script lang="ts">
  import { controlsFailure, withControls } from '@flarik/core/design/controlEdits';
  import type { Controls } from '@flarik/core/design/controls';
  import type { CabPlace } from '@flarik/core/design/panel';
  import { Name } from '@flarik/core/words/names';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import OldPanel from './OldPanel.svelte';

  /** Panel spaces in the cab as it was measured, and the panel that operators are used to. */
  const editor = getEditor()();
  const { cabPlaces, panels } = $derived(editor.build.controls);
  let trouble = $state('');

  function change(what: string, patch: Partial<Controls>): void {
    const reason = controlsFailure(withControls(editor.build, patch), editor.build);
    trouble = reason === null ? '' : `Nothing was changed: ${reason}.`;
    if (reason === null) editor.edit(what, (b) => withControls(b, patch));
  }
  const put = (room: CabPlace, patch: Partial<CabPlace>): void =>
    change(`Room ${room.name}`, {
      cabPlaces: cabPlaces.map((r) => (r.id === room.id ? { ...r, ...patch } : r)),
    });
  const SIZES = [
    ['widthMm', 'Wide'],
    ['heightMm', 'High'],
    ['depthMm', 'Deep'],
  ] as const;
  const LIMITS = [
    ['reached', 'reached belted'],
    ['replaceable', 'panel can be removed'],
    ['airbag', 'an airbag needs it'],
  ] as const;
  const USUAL = ['Centre console', 'Dash, centre', 'Overhead', 'Right of the wheel'];
</script>

<section class="cab" aria-label="Cab">
  {#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}
  <h2>Panel spaces</h2>
  {#each cabPlaces as room (room.id)}
    <fieldset>
      <legend>{room.name}</legend>
      <div class="name">
        <input
          aria-label="Name of the space {room.name}"
          value={room.name}
          maxlength="80"
          onchange={(event) => {
            const name = Name.safeParse(event.currentTarget.value.trim());
            if (name.success) put(room, { name: name.data });
          }}
        />
        <button
          class="link"
          aria-label="Delete the space {room.name}"
          onclick={() =>
            change(`Delete room ${room.name}`, {
              cabPlaces: cabPlaces.filter((r) => r.id !== room.id),
              panels: panels.map((p) => (p.cabPlaceId === room.id ? { ...p, cabPlaceId: null } : p)),
            })}>✕</button
        >
      </div>
      <div class="three">
        {#each SIZES as [size, label] (size)}
          <TypedNumber
            {label}
            unit="mm"
            value={room[size]}
            min={0}
            max={2000}
            onset={(mm: number) => put(room, { [size]: mm })}
          />
        {/each}
      </div>
      {#each LIMITS as [limit, label] (limit)}
        <label class="tick"
          ><input
            type="checkbox"
            checked={room[limit]}
            onchange={(event) => put(room, { [limit]: event.currentTarget.checked })}
          />
          {label}</label
        >
      {/each}
      <p class="quiet small">
        {panels
          .filter((p) => p.cabPlaceId === room.id)
          .map((p) => p.name)
          .join(', ') || 'No panel uses it. Select it under Panels.'}
      </p>
    </fieldset>
  {:else}
    <p class="quiet">
      Measure each space for a panel: width, height, depth, and whether the belted driver reaches it. Panels
      that do not fit are findings.
    </p>
  {/each}
  <button
    class="plain"
    onclick={() =>
      change('Add panel space', {
        cabPlaces: [
          ...cabPlaces,
          {
            id: freshId('room'),
            name: USUAL[cabPlaces.length] ?? `Room ${cabPlaces.length + 1}`,
            widthMm: 0,
            heightMm: 0,
            depthMm: 0,
            airbag: false,
            reached: true,
            replaceable: true,
          },
        ],
      })}>Add a space</button
  >
  <OldPanel onset={(what: string, oldPanel: Controls['oldPanel']) => change(what, { oldPanel })} />
</section>

<style>
  .cab {
    display: grid;
    align-content: start;
    gap: 0.5rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  fieldset {
    display: grid;
    gap: 0.35rem;
    min-width: 0;
    border: 1px solid var(--cds-ui-04);
    padding: 0.5rem;
  }

  legend,
  h2 {
    font-size: 13px;
    font-weight: 600;
  }

  .name {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0.4rem;
  }

  .three {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.4rem;
  }

  .tick {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    font-size: 12.5px;
  }

  .small {
    font-size: 12px;
  }

  .trouble {
    color: var(--gap);
    font-size: 12.5px;
  }
</style>
