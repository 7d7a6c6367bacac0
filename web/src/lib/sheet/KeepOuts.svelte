<script lang="ts">
  import { moveSolid } from '@flarik/core/geometry/solid';
  import type { Vehicle, View } from '@flarik/core/vehicle/types';
  import { motionOf, type OpenParts } from '@flarik/core/vehicle/vehicle';
  import { outlineOf, project } from '@flarik/core/vehicle/picture/views';
  import { pathOf } from './pictures';

  /** Where no lamp may stand, as one view shows it. */
  let { vehicle, view, open }: { vehicle: Vehicle; view: View; open: OpenParts } = $props();

  const shapes = $derived(
    vehicle.keepOuts.map(({ id, name, kind, solid }) => {
      const there = moveSolid(solid, motionOf(vehicle, solid.partId, open));
      return {
        id,
        text: `${name}: ${kind}`,
        path: pathOf(outlineOf(there.vertices.map((v) => project(view, v)))),
      };
    }),
  );
</script>

{#each shapes as { id, text, path } (id)}
  <path d={path}><title>{text}</title></path>
{/each}

<style>
  path {
    fill: url(#keep-out-hatch);
    stroke: var(--gap);
    stroke-width: 1;
    stroke-dasharray: 5 3;
    vector-effect: non-scaling-stroke;
  }
</style>
