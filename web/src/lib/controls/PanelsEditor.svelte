<script lang="ts">
  import { freeId, freePlace, newPanel } from '@flarik/core/arrange/panelEdits';
  import { controlsFailure, putPanel, removePanel } from '@flarik/core/design/controlEdits';
  import { LONGEST_LABEL } from '@flarik/core/design/functions';
  import { controlName, MOST_PAGES, PANEL_PLACES, type Control, type Panel } from '@flarik/core/design/panel';
  import { COLOURS } from '@flarik/core/words/colour';
  import { Name } from '@flarik/core/words/names';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { getEditor } from '$lib/editor/context';

  /** The panels: where each stands, how large it is, and every control on it. */
  const editor = getEditor()();
  const { panels, functions } = $derived(editor.build.controls);
  let trouble = $state('');
  const KINDS = ['button', 'slide', 'rotary', 'rocker', 'horn ring', 'pull', 'spare'] as const;

  function put(panel: Panel, what: string): void {
    const reason = controlsFailure(putPanel(editor.build, panel), editor.build);
    trouble = reason === null ? '' : `Nothing was changed: ${reason}.`;
    if (reason === null) editor.edit(`${what} ${panel.name}`, (b) => putPanel(b, panel));
  }

  const change = (panel: Panel, control: Control): void =>
    put({ ...panel, controls: panel.controls.map((c) => (c.id === control.id ? control : c)) }, 'Control of');

  function add(panel: Panel, kind: string): void {
    const at = freePlace(panel);
    const found = KINDS.find((k) => k === kind);
    if (at === null || found === undefined) return;
    const common = {
      id: freeId(editor.build, found === 'button' ? 'key' : found.replaceAll(' ', '-')),
      label: '',
      ...at,
      twinOf: null,
      backlit: true,
    };
    put({ ...panel, controls: [...panel.controls, made(found, common)] }, 'New control on');
  }

  type Common = Pick<Control, 'id' | 'label' | 'page' | 'column' | 'row' | 'twinOf' | 'backlit'>;
  function made(kind: (typeof KINDS)[number], common: Common): Control {
    switch (kind) {
      case 'button':
        return { kind, ...common, lamp: null, holdMs: 800 };
      case 'slide':
      case 'rotary':
      case 'pull':
        return { kind, ...common, values: ['off', '1', '2'] };
      case 'rocker':
        return { kind, ...common, values: ['off', 'on'], springs: false };
      case 'horn ring':
      case 'spare':
        return { kind, ...common };
    }
  }

  const others = (panel: Panel, control: Control): Control[] =>
    panels
      .filter((p) => p.id !== panel.id)
      .flatMap((p) => p.controls.filter((c) => c.kind === control.kind && c.twinOf === null));

  function removeWhole(panel: Panel): void {
    const reason = controlsFailure(removePanel(editor.build, panel.id), editor.build);
    trouble = reason === null ? '' : `${panel.name} stays: ${reason}.`;
    if (reason === null) editor.edit(`Delete ${panel.name}`, (b) => removePanel(b, panel.id));
  }
</script>

<section class="panels" aria-label="Panels">
  {#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}
  {#each panels as panel (panel.id)}
    <fieldset>
      <legend>{panel.name}</legend>
      <div class="pair">
        <label
          >Name <input
            value={panel.name}
            maxlength="80"
            onchange={(event) => {
              const name = Name.safeParse(event.currentTarget.value.trim());
              if (name.success) put({ ...panel, name: name.data }, 'Rename');
            }}
          /></label
        >
        <label
          >Location
          <select
            value={panel.place}
            onchange={(event) => {
              const place = PANEL_PLACES.find((p) => p === event.currentTarget.value);
              if (place !== undefined) put({ ...panel, place }, 'Place of');
            }}
            >{#each PANEL_PLACES as place (place)}<option value={place}>{place}</option>{/each}</select
          ></label
        >
      </div>
      <div class="three">
        <TypedNumber
          label="Wide"
          unit="mm"
          value={panel.widthMm}
          min={0}
          max={2000}
          onset={(widthMm: number) => put({ ...panel, widthMm }, 'Size of')}
        />
        <TypedNumber
          label="High"
          unit="mm"
          value={panel.heightMm}
          min={0}
          max={2000}
          onset={(heightMm: number) => put({ ...panel, heightMm }, 'Size of')}
        />
        <TypedNumber
          label="Deep"
          unit="mm"
          value={panel.depthMm}
          min={0}
          max={2000}
          onset={(depthMm: number) => put({ ...panel, depthMm }, 'Size of')}
        />
      </div>
      <label
        >Space in the cab
        <select
          value={panel.cabPlaceId ?? ''}
          onchange={(event) => put({ ...panel, cabPlaceId: event.currentTarget.value || null }, 'Room of')}
        >
          <option value="">not assigned</option>
          {#each editor.build.controls.cabPlaces as room (room.id)}<option value={room.id}>{room.name}</option
            >{/each}
        </select></label
      >
      <label class="tick"
        ><input
          type="checkbox"
          checked={panel.touch}
          onchange={(event) => put({ ...panel, touch: event.currentTarget.checked }, 'Kind of')}
        />
        a touch screen</label
      >
      <div class="control heads" aria-hidden="true">
        <span></span><span>label</span><span>page</span>
      </div>
      {#each panel.controls as control (control.id)}
        <div class="control" role="group" aria-label="{control.kind} {controlName(control)}">
          <span class="kind">{control.kind}</span>
          <input
            aria-label="Label"
            placeholder="label"
            value={control.label}
            maxlength={LONGEST_LABEL}
            onchange={(event) => change(panel, { ...control, label: event.currentTarget.value.trim() })}
          />
          <input
            type="number"
            min="1"
            max={MOST_PAGES}
            aria-label="page"
            value={control.page}
            onchange={(event) => change(panel, { ...control, page: event.currentTarget.valueAsNumber || 1 })}
          />
          <button
            class="link"
            aria-label="Delete {controlName(control)}"
            onclick={() =>
              put({ ...panel, controls: panel.controls.filter((c) => c.id !== control.id) }, 'Control off')}
            >✕</button
          >
          {#if 'values' in control}
            <input
              class="wide"
              aria-label="Positions, separated by commas"
              value={control.values.join(', ')}
              onchange={(event) => {
                const values = event.currentTarget.value.split(',').flatMap((v) => v.trim() || []);
                if (values.length >= 2 && values.length <= 8) change(panel, { ...control, values });
                else trouble = 'A switch has two to eight positions.';
              }}
            />
          {/if}
          {#if control.kind === 'rocker'}
            <label class="tick wide"
              ><input
                type="checkbox"
                checked={control.springs}
                onchange={(event) => change(panel, { ...control, springs: event.currentTarget.checked })}
              /> springs back</label
            >
          {/if}
          {#if control.kind === 'button'}
            <select
              class="wide"
              aria-label="Indicator shows"
              value={control.lamp?.functionId ?? ''}
              onchange={(event) => {
                const functionId = event.currentTarget.value;
                change(panel, {
                  ...control,
                  lamp: functionId === '' ? null : { functionId, colour: control.lamp?.colour ?? 'green' },
                });
              }}
            >
              <option value="">no indicator</option>
              {#each functions as fn (fn.id)}<option value={fn.id}>lamp: {fn.name}</option>{/each}
            </select>
            {#if control.lamp !== null}
              {@const { functionId } = control.lamp}
              <select
                aria-label="Indicator colour"
                value={control.lamp.colour}
                onchange={(event) => {
                  const colour = COLOURS.find((c) => c === event.currentTarget.value);
                  if (colour !== undefined) change(panel, { ...control, lamp: { functionId, colour } });
                }}
                >{#each COLOURS as colour (colour)}<option value={colour}>{colour}</option>{/each}</select
              >
            {/if}
          {/if}
          {#if control.kind !== 'spare' && (others(panel, control).length > 0 || control.twinOf !== null)}
            <select
              class="wide"
              aria-label="Twin of"
              value={control.twinOf ?? ''}
              onchange={(event) => change(panel, { ...control, twinOf: event.currentTarget.value || null })}
            >
              <option value="">no twin</option>
              {#each others(panel, control) as other (other.id)}
                <option value={other.id}>twin of {controlName(other)}</option>
              {/each}
            </select>
          {/if}
        </div>
      {/each}
      <div class="add">
        <select
          aria-label="Add a control to {panel.name}"
          value=""
          onchange={(event) => {
            add(panel, event.currentTarget.value);
            event.currentTarget.value = '';
          }}
        >
          <option value="">add a control …</option>
          {#each KINDS as kind (kind)}<option value={kind}>{kind}</option>{/each}
        </select>
        <button class="link" onclick={() => removeWhole(panel)}>delete the panel</button>
      </div>
    </fieldset>
  {:else}
    <p class="quiet">No panels yet. Apply a template or add an empty panel.</p>
  {/each}
  <button
    class="plain"
    onclick={() => put(newPanel(freeId(editor.build, 'panel'), `Panel ${panels.length + 1}`), 'New')}
    >Add a panel</button
  >
</section>

<style>
  .panels {
    display: grid;
    align-content: start;
    justify-items: stretch;
    gap: 0.6rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
  }

  fieldset {
    display: grid;
    gap: 0.35rem;
    border: 1px solid var(--cds-ui-04);
    padding: 0.5rem;
    min-width: 0;
  }

  legend {
    font-size: 13px;
    font-weight: 600;
  }

  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.4rem;
  }

  .three {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.4rem;
  }

  label {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  label.tick {
    display: flex;
    gap: 0.4rem;
    align-items: center;
  }

  label.tick input {
    width: auto;
    height: auto;
  }

  .control {
    display: grid;
    grid-template-columns: 3.6rem minmax(4rem, 1fr) 3.2rem 1.2rem;
    gap: 0.25rem;
    align-items: center;
    border-top: 1px solid var(--cds-ui-03);
    padding-top: 0.25rem;
    font-size: 12px;
  }

  .kind {
    color: var(--cds-text-02);
  }

  .wide,
  .wide + select {
    grid-column: 2 / span 3;
  }

  .heads {
    color: var(--cds-text-02);
    border: 0;
  }

  .add {
    display: flex;
    justify-content: space-between;
  }

  .trouble {
    color: var(--gap);
    font-size: 12.5px;
  }
</style>
