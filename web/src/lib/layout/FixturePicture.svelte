<script lang="ts">
  import type { Fixture } from '@flarik/core/fixture/types';

  /** The fixture as seen from in front, at the catalogue's scale. */
  let { fixture }: { fixture: Fixture } = $props();

  const tall = $derived(fixture.stands === 'along' ? fixture.sizeM.depth : fixture.sizeM.height);
  const lenses = $derived(
    fixture.modules
      .filter((m) => Math.abs(m.panDeg) < 90)
      .map((m) => ({
        id: m.id,
        width: m.lensM.width * Math.cos((m.panDeg * Math.PI) / 180),
        height: m.lensM.height,
        x: -m.at[1],
        y: fixture.stands === 'along' ? tall / 2 - m.at[2] : 0,
      })),
  );
  const pad = 0.012;
  const frameHeight = $derived(Math.max(tall, 0.05));
</script>

<svg
  viewBox="{-fixture.sizeM.width / 2 - pad} {-frameHeight / 2 - pad} {fixture.sizeM.width +
    2 * pad} {frameHeight + 2 * pad}"
  aria-hidden="true"
>
  <rect
    class="housing"
    x={-fixture.sizeM.width / 2}
    y={-tall / 2}
    width={fixture.sizeM.width}
    height={tall}
    rx={Math.min(0.012, tall / 4)}
  />
  {#each lenses as lens (lens.id)}
    <rect
      class="lens"
      x={lens.x - lens.width / 2}
      y={lens.y - lens.height / 2}
      width={lens.width}
      height={lens.height}
      rx="0.004"
    />
    <line class="rib" x1={lens.x} x2={lens.x} y1={lens.y - lens.height / 2} y2={lens.y + lens.height / 2} />
  {/each}
</svg>

<style>
  svg {
    width: 100%;
    height: 26px;
  }

  .housing {
    fill: var(--car-tyre);
    stroke: var(--car-edge);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }

  .lens {
    fill: var(--car-trim);
    stroke: var(--car-cut);
    stroke-width: 0.5;
    vector-effect: non-scaling-stroke;
  }

  .rib {
    stroke: var(--car-shade);
    stroke-width: 0.8;
    vector-effect: non-scaling-stroke;
  }
</style>
