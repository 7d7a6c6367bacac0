<script lang="ts">
  import type { VehicleSpec } from '@flarik/core/vehicle/spec';
  import type { Vehicle, View } from '@flarik/core/vehicle/types';
  import { outlineOf, project } from '@flarik/core/vehicle/picture/views';
  import type { Point2 } from '@flarik/core/geometry/polygon';
  import { pathOf } from './pictures';

  /** The user's own solids and imported body, which no drawing of the body type knows. */
  let { vehicle, spec, view }: { vehicle: Vehicle; spec: VehicleSpec; view: View } = $props();
  /** A mesh of more triangles than this is drawn by its outline alone. */
  const MOST_DRAWN = 4000;

  const solids = $derived.by(() => {
    const own = new Set([...spec.solids, ...spec.equipment].map((s) => s.id));
    return vehicle.solids
      .filter((s) => own.has(s.id))
      .map((s) => ({
        id: s.id,
        glass: s.transmission > 0,
        path: pathOf(outlineOf(s.vertices.map((v) => project(view, v)))),
      }));
  });
  const mesh = $derived.by(() => {
    if (spec.mesh === null) return null;
    const { verticesM, triangles } = spec.mesh;
    const corner = (i: number): Point2 =>
      project(view, [verticesM[3 * i] ?? 0, verticesM[3 * i + 1] ?? 0, verticesM[3 * i + 2] ?? 0]);
    const count = triangles.length / 3;
    if (count > MOST_DRAWN)
      return pathOf(outlineOf(Array.from({ length: verticesM.length / 3 }, (_, i) => corner(i))));
    return Array.from({ length: count }, (_, t) =>
      pathOf([0, 1, 2].map((k) => corner(triangles[3 * t + k] ?? 0))),
    ).join('');
  });
</script>

{#if mesh !== null}<path class="mesh" d={mesh} />{/if}
{#each solids as { id, glass, path } (id)}
  <path class:glass d={path} />
{/each}

<style>
  path {
    fill: var(--car-shade);
    stroke: var(--car-edge);
    stroke-width: 1.2;
    vector-effect: non-scaling-stroke;
  }

  .glass {
    fill: var(--car-glass);
  }

  .mesh {
    fill: color-mix(in srgb, var(--accent) 8%, transparent);
    stroke: color-mix(in srgb, var(--accent) 45%, transparent);
    stroke-width: 0.6;
    pointer-events: none;
  }
</style>
