<script lang="ts">
  import { textOf } from '$lib/ui/textOf';
  import FilePicker from '$lib/ui/FilePicker.svelte';
  import { freshId } from '$lib/editor/freshId';
  import { parseJson } from '@flarik/core/words/json';
  import { InputError } from '@flarik/core/words/errors';
  import { addOwn, changeOwn, removeOwn, withVehicle } from '@flarik/core/arrange/vehicleEdits';
  import { MountStyle } from '@flarik/core/fixture/types';
  import {
    EQUIPMENT_KINDS,
    OwnZone,
    Reflector,
    type Equipment,
    type OwnSolid,
  } from '@flarik/core/vehicle/spec';
  import { FIXINGS, KEEP_OUT_KINDS } from '@flarik/core/vehicle/types';
  import { readVehicle, writeVehicle } from '@flarik/core/vehicle/vehicleFile';
  import { Button } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { download } from '$lib/download';
  import { addDrawn, drawingName, type Drawing } from './drawing';
  import MeshPanel from './MeshPanel.svelte';
  import OwnFigures from './OwnFigures.svelte';
  import { tryEdit } from './tryEdit';

  /** Zones, solids and keep-outs of one's own: drawn on the sheet or typed, then adjusted by figures. */
  let { drawing = $bindable(), bothSides = $bindable() }: { drawing: Drawing | null; bothSides: boolean } =
    $props();
  const editor = getEditor()();
  const spec = $derived(editor.build.vehicle);
  const KINDS: readonly Drawing[] = ['zone', 'solid', 'keep-out'];
  let trouble = $state('');
  let picker: { open: () => void } | undefined = $state();

  function attempt(label: string, change: (build: typeof editor.build) => typeof editor.build): void {
    trouble = tryEdit(editor, label, change);
  }

  /** In the middle of the left side, for those who would rather type than draw. */
  function addTyped(what: Drawing): void {
    const { heightM } = editor.vehicle;
    const rect = { view: 'left', from: [-0.2, heightM * 0.4], to: [0.2, heightM * 0.4 + 0.15] } as const;
    attempt(`Add custom ${drawingName[what]}`, (b) => addDrawn(b, editor.vehicle, what, rect, bothSides));
  }

  function addProfile(): void {
    const { heightM, widthM } = editor.vehicle;
    const solid: OwnSolid = {
      kind: 'profile',
      id: freshId('own-'),
      name: `Custom profile ${spec.solids.length + 1}`,
      points: [
        [-0.4, heightM],
        [0.4, heightM],
        [0.2, heightM + 0.2],
        [-0.4, heightM + 0.2],
      ],
      fromY: -widthM / 3,
      toY: widthM / 3,
      transmission: 0,
    };
    attempt('Add custom profile', (b) => addOwn(b, 'solids', [solid]));
  }

  function addReflector(): void {
    const { heightM, widthM } = editor.vehicle;
    const reflector: Reflector = {
      id: freshId('own-'),
      name: `Reflective area ${spec.reflectors.length + 1}`,
      face: 'left',
      centre: [0, widthM / 2, heightM * 0.3],
      widthM: 1,
      heightM: 0.1,
      colour: 'white',
      cdPerLxM2: 250,
    };
    attempt('Add a reflective area', (b) => addOwn(b, 'reflectors', [reflector]));
  }

  function addEquipment(): void {
    const { heightM } = editor.vehicle;
    const equipment: Equipment = {
      id: freshId('own-'),
      name: `Equipment ${spec.equipment.length + 1}`,
      kind: 'other',
      from: [0.3, -0.15, heightM * 0.3],
      to: [0.6, 0.15, heightM * 0.4],
      loadA: 0,
      transmission: 0,
    };
    attempt('Add equipment', (b) => addOwn(b, 'equipment', [equipment]));
  }

  const drawsA = $derived(spec.equipment.reduce((sum, { loadA }) => sum + loadA, 0));

  async function takeFile(file: File): Promise<void> {
    trouble = '';
    try {
      const vehicle = readVehicle(parseJson(await textOf(file, 'vehicle file'), 'vehicle file'));
      editor.edit(`Take the vehicle of ${file.name}`, (b) => withVehicle(b, vehicle));
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      trouble = `${file.name}: ${error.message}`;
    }
  }

  const saveFile = (): void =>
    download(`${editor.vehicle.name}.vehicle.json`, JSON.stringify(writeVehicle(spec), null, 2));
</script>

<section aria-label="Custom parts">
  <h2>Custom parts</h2>
  <p class="quiet small">Draw a rectangle on a view, or add a part and enter its dimensions below.</p>
  <label class="both small"><input type="checkbox" bind:checked={bothSides} /> with its mirror image</label>
  {#each KINDS as what (what)}
    <div class="add">
      <span>{drawingName[what].charAt(0).toUpperCase() + drawingName[what].slice(1)}</span>
      <Button
        size="small"
        kind={drawing === what ? 'primary' : 'tertiary'}
        on:click={() => (drawing = drawing === what ? null : what)}
        >{drawing === what ? 'Drawing …' : 'Draw'}</Button
      >
      <Button size="small" kind="ghost" on:click={() => addTyped(what)}>Enter dimensions</Button>
    </div>
  {/each}
  <div class="add">
    <span>Side profile</span>
    <span></span>
    <Button size="small" kind="ghost" on:click={addProfile}>Enter dimensions</Button>
  </div>
  <div class="add">
    <span>Reflective area</span>
    <span></span>
    <Button size="small" kind="ghost" on:click={addReflector}>Enter dimensions</Button>
  </div>
  <div class="add">
    <span>Equipment</span>
    <span></span>
    <Button size="small" kind="ghost" on:click={addEquipment}>Enter dimensions</Button>
  </div>
  {#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}
  {#each spec.zones as zone (zone.id)}
    <OwnFigures
      item={zone}
      what="zone"
      choices={{
        face: OwnZone.shape.face.options,
        facing: OwnZone.shape.facing.options,
        mount: MountStyle.options,
      }}
      several={{ fixings: FIXINGS }}
      onchange={(patch: object) =>
        attempt(`Change ${zone.name}`, (b) => changeOwn(b, 'zones', zone.id, patch))}
      onremove={() => editor.edit(`Delete ${zone.name}`, (b) => removeOwn(b, 'zones', zone.id))}
    />
  {/each}
  {#each spec.solids as solid (solid.id)}
    <OwnFigures
      item={solid}
      what={solid.kind}
      choices={{}}
      onchange={(patch: object) =>
        attempt(`Change ${solid.name}`, (b) => changeOwn(b, 'solids', solid.id, patch))}
      onremove={() => editor.edit(`Delete ${solid.name}`, (b) => removeOwn(b, 'solids', solid.id))}
    />
  {/each}
  {#each spec.keepOuts as keepOut (keepOut.id)}
    <OwnFigures
      item={keepOut}
      what="keep-out"
      choices={{ kind: KEEP_OUT_KINDS }}
      onchange={(patch: object) =>
        attempt(`Change ${keepOut.name}`, (b) => changeOwn(b, 'keepOuts', keepOut.id, patch))}
      onremove={() => editor.edit(`Delete ${keepOut.name}`, (b) => removeOwn(b, 'keepOuts', keepOut.id))}
    />
  {/each}
  {#each spec.reflectors as reflector (reflector.id)}
    <OwnFigures
      item={reflector}
      what="reflective area"
      choices={{ face: Reflector.shape.face.options, colour: Reflector.shape.colour.options }}
      onchange={(patch: object) =>
        attempt(`Change ${reflector.name}`, (b) => changeOwn(b, 'reflectors', reflector.id, patch))}
      onremove={() =>
        editor.edit(`Delete ${reflector.name}`, (b) => removeOwn(b, 'reflectors', reflector.id))}
    />
  {/each}
  {#each spec.equipment as thing (thing.id)}
    <OwnFigures
      item={thing}
      what={thing.kind}
      choices={{ kind: EQUIPMENT_KINDS }}
      onchange={(patch: object) =>
        attempt(`Change ${thing.name}`, (b) => changeOwn(b, 'equipment', thing.id, patch))}
      onremove={() => editor.edit(`Delete ${thing.name}`, (b) => removeOwn(b, 'equipment', thing.id))}
    />
  {/each}
  {#if drawsA > 0}
    <p class="quiet small">
      Equipment draws {Math.round(drawsA * 10) / 10} A in total, in addition to all lamps.
    </p>
  {/if}
  <MeshPanel />
  <h2>Custom vehicle</h2>
  <p class="quiet small">Body, dimensions, options, survey and custom parts, for other builds.</p>
  <div class="files">
    <Button size="small" kind="ghost" on:click={saveFile}>Export</Button>
    <Button size="small" kind="ghost" on:click={() => picker?.open()}>Import</Button>
    <FilePicker bind:this={picker} label="Vehicle file" accept=".json,application/json" ontake={takeFile} />
  </div>
</section>

<style>
  section {
    display: grid;
    gap: 0.4rem;
  }

  .small {
    font-size: 12px;
  }

  .both {
    display: flex;
    gap: 0.4rem;
    align-items: center;
  }

  .add {
    display: grid;
    grid-template-columns: 1fr 5.5rem 5.5rem;
    align-items: center;
    gap: 0.25rem;
    font-size: 13px;
  }

  .add :global(.bx--btn) {
    min-width: 0;
    width: auto;
    padding: 0 0.5rem;
    white-space: nowrap;
  }

  .files {
    display: flex;
    gap: 0.5rem;
  }

  .trouble {
    color: var(--gap);
  }
</style>
