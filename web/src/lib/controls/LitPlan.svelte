<script lang="ts">
  import type { State } from '@flarik/core/state/state';
  import { litIn } from './lit';
  import { getEditor } from '$lib/editor/context';
  import { glowKey, glows } from '$lib/sheet/glow';
  import { lampPictures } from '$lib/sheet/pictures';
  import ViewPicture from '$lib/sheet/ViewPicture.svelte';

  /** The vehicle from above, front up, with what is lit in a state; small. */
  let { shown, width, height, label }: { shown: State; width: number; height: number; label: string } =
    $props();
  const editor = getEditor()();
  const open = $derived(new Set(shown.open));
  const lit = $derived(glows(editor.build, litIn(editor.build, shown), null));
  const lamps = $derived(
    editor.build.placements
      .filter((p) => p.status !== 'removed')
      .flatMap((p) => lampPictures(editor.lookup, p, open).filter((l) => l.view === 'plan')),
  );
  const half = $derived({ x: editor.vehicle.widthM / 2 + 0.5, y: editor.vehicle.lengthM / 2 + 0.4 });
</script>

<svg {width} {height} viewBox="{-half.x} {-half.y} {2 * half.x} {2 * half.y}" role="img" aria-label={label}>
  <g transform="rotate(-90) scale(1,-1)">
    <ViewPicture vehicle={editor.vehicle} view="plan" {open} />
    {#each lamps as lamp (lamp.placement.id)}
      {#each lamp.lenses as lens (lens.moduleId)}
        {@const glow = lit.get(glowKey(lamp.placement.id, lens.moduleId))}
        {@const burns = glow?.driven === true}
        <path
          class="lens"
          class:lit={burns}
          style:--lamp="var(--lamp-{glow?.colour ?? 'white'})"
          d={lens.path}
        />
      {/each}
    {/each}
  </g>
</svg>

<style>
  svg {
    display: block;
  }

  .lens {
    fill: var(--car-shade);
    stroke: var(--car-edge);
    stroke-width: 0.5;
    vector-effect: non-scaling-stroke;
  }

  .lens.lit {
    fill: var(--lamp);
    stroke: var(--lamp);
    stroke-width: 3;
  }
</style>
