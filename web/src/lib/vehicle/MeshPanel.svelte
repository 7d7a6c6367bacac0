<script lang="ts">
  import { formatNumber } from '@flarik/core/words/quantity';
  import FilePicker from '$lib/ui/FilePicker.svelte';
  import { InputError } from '@flarik/core/words/errors';
  import { MAX_TRIANGLES } from '@flarik/core/geometry/mesh';
  import { withVehicle } from '@flarik/core/arrange/vehicleEdits';
  import { Name } from '@flarik/core/words/names';
  import { Button, InlineLoading } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { placeMesh, UNITS, type Placing, type Unit } from '@flarik/core/vehicle/placeMesh';
  import { readMesh } from '$lib/workers/mesh';
  import type { RawTriangles } from '$lib/workers/meshLoaders';

  /** A body read from a mesh file: it hides light as the real body does. */
  const editor = getEditor()();
  const { mesh } = $derived(editor.build.vehicle);
  let raw = $state.raw<{ name: string; triangles: RawTriangles } | null>(null);
  let unit = $state<Unit>('mm');
  let up = $state<Placing['up']>('z');
  let front = $state<Placing['front']>('+x');
  let replaces = $state(true);
  let by = $state.raw<[number, number, number]>([0, 0, 0]);
  /** The file being read, and what stops it. */
  let reading = $state.raw<{ readonly name: string; readonly stop: AbortController } | null>(null);
  let trouble = $state('');
  let picker: { open: () => void } | undefined = $state();
  const UNIT_NAMES: readonly Unit[] = ['mm', 'cm', 'inch', 'm'];
  const FRONTS: readonly Placing['front'][] = ['+x', '-x', '+y', '-y', '+z', '-z'];
  const AXES = ['forward', 'left', 'up'] as const;

  const placed = $derived.by(() => {
    if (raw === null) return null;
    try {
      const spec = placeMesh(raw.triangles, raw.name, { unit, up, front, byM: by }, replaces);
      return { spec, size: sizeOf(spec.verticesM), why: '' };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { spec: null, size: '', why: error.message };
    }
  });

  function sizeOf(vertices: readonly number[]): string {
    return [0, 1, 2]
      .map((k) => {
        const along = vertices.filter((_, i) => i % 3 === k);
        const least = along.reduce((a, b) => Math.min(a, b));
        const most = along.reduce((a, b) => Math.max(a, b));
        return Math.round((most - least) * 1000);
      })
      .join(' × ');
  }

  async function take(file: File): Promise<void> {
    trouble = '';
    raw = null;
    const stop = new AbortController();
    reading = { name: file.name, stop };
    try {
      const triangles = await readMesh(file, stop.signal);
      raw = { name: Name.safeParse(file.name).data ?? 'Imported body', triangles };
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    } finally {
      reading = null;
    }
  }

  function put(): void {
    const spec = placed?.spec ?? null;
    if (spec === null) return;
    editor.edit(`Add mesh ${spec.name}`, (b) => withVehicle(b, { ...b.vehicle, mesh: spec }));
    raw = null;
  }
</script>

<h2>Body from a mesh file</h2>
<p class="quiet small">
  OBJ, STL or glTF of at most {formatNumber(MAX_TRIANGLES)} triangles. It blocks light instead of the drawn body
  or in addition to it. Zones and moving parts stay.
</p>
{#if mesh !== null}
  <p class="small">
    {mesh.name}: {formatNumber(mesh.triangles.length / 3)} triangles, {sizeOf(mesh.verticesM)} mm,
    {mesh.replacesBody ? 'replaces the body' : 'added to the body'}
  </p>
{/if}
<div class="row">
  {#if reading === null}
    <Button size="small" kind="tertiary" on:click={() => picker?.open()}>Choose a file</Button>
  {:else}
    <InlineLoading description="Reading {reading.name} …" />
    <Button size="small" kind="ghost" on:click={() => reading?.stop.abort()}>Stop</Button>
  {/if}
  {#if mesh !== null}
    <Button
      size="small"
      kind="danger-ghost"
      on:click={() => editor.edit(`Remove ${mesh.name}`, (b) => withVehicle(b, { ...b.vehicle, mesh: null }))}
      >Remove</Button
    >
  {/if}
  <FilePicker bind:this={picker} label="Mesh file" accept=".obj,.stl,.gltf,.glb" ontake={take} />
</div>
{#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}
{#if raw !== null && placed !== null}
  <div class="placing" role="group" aria-label="Mesh position">
    <label
      >Unit of the file
      <select bind:value={unit}
        >{#each UNIT_NAMES as u (u)}<option value={u}>{u} ({UNITS[u]} m)</option>{/each}</select
      ></label
    >
    <label
      >Up in the file
      <select bind:value={up}><option value="z">z</option><option value="y">y</option></select></label
    >
    <label
      >Front in the file
      <select bind:value={front}
        >{#each FRONTS as f (f)}<option value={f}>{f}</option>{/each}</select
      ></label
    >
    <label class="flag"><input type="checkbox" bind:checked={replaces} /> in place of the body</label>
    {#each AXES as axis, i (axis)}
      <TypedNumber
        label="Move {axis}"
        unit="mm"
        value={(by[i] ?? 0) * 1000}
        min={-10_000}
        max={10_000}
        onset={(v: number) => {
          const [x, y, z] = by;
          by = [i === 0 ? v / 1000 : x, i === 1 ? v / 1000 : y, i === 2 ? v / 1000 : z];
        }}
      />
    {/each}
    {#if placed.spec === null}
      <p class="trouble whole" role="alert">{placed.why}</p>
    {:else}
      <p class="whole small">
        Length × width × height: {placed.size} mm; {formatNumber(placed.spec.triangles.length / 3)} triangles. The
        vehicle has {Math.round(editor.vehicle.lengthM * 1000)} × {Math.round(editor.vehicle.widthM * 1000)} × {Math.round(
          editor.vehicle.heightM * 1000,
        )}.
      </p>
    {/if}
    <Button size="small" disabled={placed.spec === null} on:click={put}>Add to the vehicle</Button>
  </div>
{/if}

<style>
  .small {
    font-size: 12px;
  }

  .row {
    display: flex;
    gap: 0.25rem;
  }

  .trouble {
    color: var(--gap);
    font-size: 13px;
  }

  .placing {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    gap: 0.4rem;
    padding: 0.4rem;
    border: 1px solid var(--zone-fit);
  }

  .placing :global(.bx--label) {
    white-space: nowrap;
  }
  label {
    display: grid;
    gap: 4px;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .flag {
    display: flex;
    grid-column: 1 / -1;
    gap: 0.4rem;
    align-items: center;
  }

  .whole {
    grid-column: 1 / -1;
  }

  select {
    height: 30px;
  }
</style>
