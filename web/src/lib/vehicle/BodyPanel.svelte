<script lang="ts">
  import { rangesOf } from '@flarik/core/vehicle/options/options';
  import {
    changeBodyType,
    changeDimensions,
    toggleOption,
    withVehicle,
  } from '@flarik/core/arrange/vehicleEdits';
  import { BODY_TYPES, findBodyType } from '@flarik/core/vehicle/bodies/bodyTypes';
  import { DIMENSIONS, dimensionsFault, type DimensionKey } from '@flarik/core/vehicle/body/dimension';
  import { findOption } from '@flarik/core/vehicle/options/options';
  import { VehicleSpec } from '@flarik/core/vehicle/spec';
  import { Checkbox, Modal, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';

  /** The body: its type, what the tape measure says, and what is fitted to it. */
  let { onmeasure }: { onmeasure: (key: string | null) => void } = $props();
  const editor = getEditor()();
  const spec = $derived(editor.build.vehicle);
  const body = $derived(findBodyType(spec.bodyType));

  const isKey = (key: string): key is DimensionKey => key in DIMENSIONS;
  const measures = $derived(
    body === undefined
      ? []
      : Object.entries(rangesOf(body, editor.build.vehicle.options)).flatMap(([key, [min, max]]) => {
          if (!isKey(key)) return [];
          const degrees = key.endsWith('Deg');
          const per = degrees ? 1 : 1000;
          const value = spec.dimensions[key] ?? min;
          return [{ key, ...DIMENSIONS[key], unit: degrees ? '°' : 'mm', per, value, min, max }];
        }),
  );
  const options = $derived(body?.options.flatMap((id) => findOption(id) ?? []) ?? []);

  /** A change that would take lamps off, waiting for a yes. */
  let waiting = $state.raw<{ text: string; make: () => void } | null>(null);

  function make(label: string, change: (build: typeof editor.build) => typeof editor.build): void {
    const before = editor.build.placements.length;
    const lost = before - change(editor.build).placements.length;
    const go = () => editor.edit(label, change);
    if (lost === 0) go();
    else
      waiting = {
        text: `${lost === 1 ? 'One lamp is' : `${lost} lamps are`} on a zone that this change removes, and will be removed. Undo restores ${lost === 1 ? 'it' : 'them'}.`,
        make: go,
      };
  }

  function rename(text: string): void {
    const name = VehicleSpec.shape.name.safeParse(text.trim());
    if (name.success && name.data !== spec.name)
      editor.edit('Rename the vehicle', (b) => withVehicle(b, { ...b.vehicle, name: name.data }));
  }

  const fault = (key: string, value: number): string =>
    body === undefined ? '' : (dimensionsFault(body, { ...spec.dimensions, [key]: value }) ?? '');
</script>

<section aria-label="Body">
  <h2>Body</h2>
  <Select
    size="sm"
    labelText="Body type"
    helperText={body?.what ?? ''}
    selected={spec.bodyType}
    on:update={(event) => {
      const id = String(event.detail);
      if (id !== spec.bodyType)
        make(`Make it a ${findBodyType(id)?.name ?? 'other body'}`, (b) => changeBodyType(b, id));
    }}
  >
    {#each BODY_TYPES as type (type.id)}<SelectItem value={type.id} text={type.name} />{/each}
  </Select>
  <TextInput
    size="sm"
    labelText="Vehicle name"
    placeholder={body?.name ?? ''}
    value={spec.name}
    on:change={(event) => rename(String(event.detail ?? ''))}
  />
  <h2>Dimensions</h2>
  <p class="quiet small">The drawing shows where to measure.</p>
  <div class="numbers">
    {#each measures as m (m.key)}
      <span title="{m.name}: {m.measured}">
        <TypedNumber
          label={m.name}
          unit={m.unit}
          value={m.value * m.per}
          min={m.min * m.per}
          max={m.max * m.per}
          refuse={(v: number) => fault(m.key, v / m.per)}
          onreach={(entered: boolean) => onmeasure(entered ? m.key : null)}
          onset={(v: number) =>
            editor.edit(`${m.name} of the vehicle`, (b) => changeDimensions(b, { [m.key]: v / m.per }))}
        />
      </span>
    {/each}
  </div>
  <h2>Options</h2>
  <div class="options">
    {#each options as option (option.id)}
      <Checkbox
        labelText={option.name}
        checked={spec.options.includes(option.id)}
        on:check={(event) => {
          if (event.detail !== spec.options.includes(option.id))
            make(`${event.detail ? 'Fit' : 'Remove'}: ${option.name.toLowerCase()}`, (b) =>
              toggleOption(b, option.id),
            );
        }}
      />
    {/each}
  </div>
</section>

<Modal
  open={waiting !== null}
  size="xs"
  modalHeading="Remove lamps?"
  primaryButtonText="Continue"
  secondaryButtonText="Cancel"
  on:submit={() => {
    waiting?.make();
    waiting = null;
  }}
  on:click:button--secondary={() => (waiting = null)}
  on:close={() => (waiting = null)}
>
  <p>{waiting?.text ?? ''}</p>
</Modal>

<style>
  section {
    display: grid;
    gap: 0.6rem;
  }

  .small {
    font-size: 12px;
  }

  .numbers {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
  }
</style>
