<script lang="ts">
  import type { Vehicle, View } from '@flarik/core/vehicle/types';
  import { isOpen, motionOf, type OpenParts } from '@flarik/core/vehicle/vehicle';
  import { movePoint } from '@flarik/core/geometry/frame';
  import { project } from '@flarik/core/vehicle/picture/views';
  import { openPartPictures, pathOf } from './pictures';

  let {
    vehicle,
    view,
    open,
    factoryLamps = true,
  }: { vehicle: Vehicle; view: View; open: OpenParts; factoryLamps?: boolean } = $props();

  const shapes = $derived(
    vehicle.art.filter((shape) => {
      if (shape.view !== view) return false;
      const stands = isOpen(vehicle, shape.partId, open);
      return shape.kind === 'opening' ? stands : !stands;
    }),
  );
  const parts = $derived(openPartPictures(vehicle, view, open));
  const lamps = $derived(
    vehicle.factoryLamps.flatMap((lamp) => {
      const motion = motionOf(vehicle, lamp.partId, open);
      const points = lamp.outline.map((p) => project(view, movePoint(motion, p)));
      const area = points.reduce((sum, [a, b], i) => {
        const [a2, b2] = points[(i + 1) % points.length] ?? [a, b];
        return sum + a * b2 - a2 * b;
      }, 0);
      const near = lamp.outline.some(([x, y]) => {
        if (view === 'left') return y > 0.7;
        if (view === 'right') return y < -0.7;
        if (view === 'front') return x > 0.5 && lamp.aim[0] > -0.5 && lamp.aim[2] > -0.5;
        if (view === 'rear')
          return (x < -0.5 || lamp.aim[0] < -0.5) && lamp.aim[0] < 0.5 && lamp.aim[2] > -0.5;
        return lamp.aim[2] > -0.5;
      });
      return near && Math.abs(area) > 0.002 ? [{ ...lamp, path: pathOf(points) }] : [];
    }),
  );
</script>

<g class="picture" aria-hidden="true">
  {#each parts.filter((p) => !p.front) as part (part.id)}
    <path class={part.glass ? 'glass' : 'open'} d={part.path} />
  {/each}
  {#each shapes as shape, i (i)}
    <path class={shape.kind} d={shape.path} />
  {/each}
  {#if factoryLamps}
    {#each lamps as lamp (lamp.id)}
      <path class="factory {lamp.does.replace(' ', '-')}" d={lamp.path} />
    {/each}
  {/if}
  {#each parts.filter((p) => p.front) as part (part.id)}
    <path class={part.glass ? 'glass' : 'open'} d={part.path} />
  {/each}
</g>

<style>
  path {
    vector-effect: non-scaling-stroke;
    stroke-linejoin: round;
    fill: none;
  }

  .body {
    fill: var(--car-body);
    stroke: var(--car-edge);
    stroke-width: 1.4;
  }

  .shade {
    fill: var(--car-shade);
    stroke: var(--car-cut);
    stroke-width: 0.6;
  }

  .glass {
    fill: var(--car-glass);
    stroke: var(--car-glass-edge);
    stroke-width: 0.9;
  }

  .cut {
    stroke: var(--car-cut);
    stroke-width: 1;
  }

  .shine {
    stroke: var(--car-shine);
    stroke-width: 1;
  }

  .trim {
    fill: var(--car-trim);
  }

  .tyre {
    fill: var(--car-tyre);
    stroke: var(--car-edge);
    stroke-width: 0.5;
  }

  .rim {
    fill: var(--car-rim);
  }

  .opening {
    fill: var(--car-opening);
    stroke: var(--car-edge);
    stroke-width: 0.8;
  }

  .open {
    fill: var(--car-body);
    stroke: var(--accent);
    stroke-width: 1.2;
  }

  .factory {
    stroke: var(--car-cut);
    stroke-width: 0.8;
  }

  .head,
  .low-beam,
  .high-beam,
  .day,
  .fog,
  .cargo,
  .reverse,
  .plate {
    fill: #e3e9ef;
  }

  .turn {
    fill: #c98a2c;
  }

  .tail,
  .stop {
    fill: #8e2730;
  }
</style>
