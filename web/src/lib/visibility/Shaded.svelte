<script lang="ts">
  import { picture } from './shades';

  /** Values by cell as shades of light, stretched over the room there is. */
  let {
    values,
    columns,
    rows,
    decades,
    label,
  }: {
    values: ArrayLike<number>;
    columns: number;
    rows: number;
    decades: readonly [number, number];
    /** Null where what stands around it says what it is. */
    label: string | null;
  } = $props();
  let canvas = $state<HTMLCanvasElement>();

  $effect(() => {
    canvas?.getContext('2d')?.putImageData(picture(values, columns, rows, decades), 0, 0);
  });
</script>

<canvas bind:this={canvas} width={columns} height={rows} aria-label={label} aria-hidden={label === null}
></canvas>

<style>
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
</style>
