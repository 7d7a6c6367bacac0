<script lang="ts">
  import { vehicleOf } from '@flarik/core/vehicle/vehicle';
  import { defaultSpec } from '@flarik/core/vehicle/spec';
  import ViewPicture from '$lib/sheet/ViewPicture.svelte';
  import type { BuildPicture } from '$lib/api';

  /** A vehicle's left side, with the lamps of its build when they are known. */
  let {
    picture,
    bodyType,
    width,
    height,
  }: { picture: BuildPicture | null; bodyType: string; width: number; height: number } = $props();

  const SHUT: ReadonlySet<string> = new Set();
  /** Room around the vehicle, m. */
  const ROOM_M = 0.25;
  const vehicle = $derived(vehicleOf(picture?.vehicle ?? defaultSpec(bodyType)));
  const box = $derived({
    x: -vehicle.lengthM / 2 - ROOM_M,
    y: -vehicle.heightM - 2 * ROOM_M,
    width: vehicle.lengthM + 2 * ROOM_M,
    height: vehicle.heightM + 2.4 * ROOM_M,
  });
</script>

<svg {width} {height} viewBox="{box.x} {box.y} {box.width} {box.height}" aria-hidden="true">
  <line class="ground" x1={box.x} x2={box.x + box.width} y1="0" y2="0" />
  <g transform="scale(1,-1)">
    <ViewPicture {vehicle} view="left" open={SHUT} />
    {#each picture?.lenses ?? [] as lens, i (i)}
      <path class="lens" style:--lamp="var(--lamp-{lens.colour})" d={lens.path} />
    {/each}
  </g>
</svg>

<style>
  svg {
    display: block;
  }

  .ground {
    stroke: var(--cds-ui-04);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }

  .lens {
    fill: var(--lamp);
    stroke: var(--lamp);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
</style>
