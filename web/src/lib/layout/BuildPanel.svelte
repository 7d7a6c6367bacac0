<script lang="ts">
  import { changeBuild, changeDimensions } from '@flarik/core/build/edits';
  import { Service, serviceName } from '@flarik/core/build/service';
  import { fixtureOf } from '@flarik/core/fixture/catalogue/catalogue';
  import { Name } from '@flarik/core/names';
  import { MidSuvDimensions, midSuvDimensionTexts } from '@flarik/core/vehicle/midSuv/points';
  import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from './TypedNumber.svelte';

  /** What is shown when no lamp is selected: the build's sums, its name, and the vehicle's tape measure. */
  const editor = getEditor()();
  const { placements } = $derived(editor.build);
  const sums = $derived([
    { name: 'Heads', value: placements.length },
    { name: 'Modules', value: placements.reduce((n, p) => n + p.modules.length, 0) },
    {
      name: 'Channels',
      value: placements.reduce((n, p) => n + p.modules.reduce((c, m) => c + m.colours.length, 0), 0),
    },
    {
      name: 'Fixtures cost',
      value: Math.round(placements.reduce((n, p) => n + fixtureOf(p.fixtureId).priceMinor, 0) / 100),
    },
  ]);
  const dimensions = $derived(
    MidSuvDimensions.keyof().options.map((key) => {
      const { minValue, maxValue } = MidSuvDimensions.shape[key];
      const inDegrees = key.endsWith('Deg');
      return {
        key,
        ...midSuvDimensionTexts[key],
        unit: inDegrees ? '°' : 'mm',
        per: inDegrees ? 1 : 1000,
        value: editor.build.vehicle.dimensions[key],
        min: minValue ?? 0,
        max: maxValue ?? Infinity,
      };
    }),
  );

  function rename(text: string): void {
    const name = Name.safeParse(text.trim());
    if (name.success) editor.edit('Rename the build', (b) => changeBuild(b, { name: name.data }));
  }
</script>

<h2>Nothing selected</h2>
<p class="quiet">
  {placements.length === 0
    ? 'Start with the catalogue on the left: drag a fixture onto the vehicle, or choose it and a zone.'
    : 'Choose a lamp on the sheet to move, aim, colour and group it. Hold Shift to choose more.'}
</p>
<dl>
  {#each sums as sum (sum.name)}
    <dt>{sum.name}</dt>
    <dd class="figure">{sum.value.toLocaleString()}</dd>
  {/each}
</dl>
<TextInput
  size="sm"
  labelText="Name of the build"
  value={editor.build.name}
  on:change={(event) => rename(String(event.detail ?? ''))}
/>
<Select
  size="sm"
  labelText="Service"
  selected={editor.build.service}
  on:update={(event) => {
    const service = Service.safeParse(event.detail);
    if (service.success && service.data !== editor.build.service)
      editor.edit('Change the service', (b) => changeBuild(b, { service: service.data }));
  }}
>
  {#each Service.options as option (option)}<SelectItem value={option} text={serviceName[option]} />{/each}
</Select>
<h2>{editor.vehicle.name}, by the tape measure</h2>
<div class="numbers">
  {#each dimensions as d (d.key)}
    <span title="{d.name}: {d.measured}">
      <TypedNumber
        label={d.name}
        unit={d.unit}
        value={d.value * d.per}
        min={d.min * d.per}
        max={d.max * d.per}
        onset={(v: number) =>
          editor.edit(`${d.name} of the vehicle`, (b) => changeDimensions(b, { [d.key]: v / d.per }))}
      />
    </span>
  {/each}
</div>

<style>
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0.15rem;
  }

  dd {
    text-align: right;
  }

  .numbers {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
  }

  .numbers :global(.bx--text-input) {
    padding: 0 0.5rem;
  }
</style>
