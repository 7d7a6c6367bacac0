<script lang="ts" module>
  /** Something the driver sees of the own lamps, and where. */
  export interface Mark {
    readonly what: 'straight' | 'shown' | 'lit';
    readonly bearingDeg: number;
    readonly elevationDeg: number;
    readonly text: string;
  }
</script>

<script lang="ts">
  import { onOutlook, type Outlook } from '@flarik/core/sight/outlook';
  import { apart } from './apart';
  import { outlookPicture } from './outlookPicture';

  /** What the driver sees straight ahead and to both sides, with what is seen there of the vehicle’s own lamps. */
  let {
    outlook,
    marks,
    lit,
  }: {
    outlook: Outlook;
    marks: readonly Mark[];
    /** How strongly surfaces are lit, 0 to 1. */
    lit: ReadonlyMap<string, number>;
  } = $props();
  let canvas = $state<HTMLCanvasElement>();

  $effect(() => {
    canvas?.getContext('2d')?.putImageData(outlookPicture(outlook, lit), 0, 0);
  });

  /** The overlay’s own size; names are as large as other small text where the picture is as wide as usual. */
  const WIDE = 720;
  const high = $derived((WIDE * outlook.rows) / outlook.columns);
  const LINE = 15;
  const shown = $derived.by(() => {
    const placed = marks.flatMap((mark) => {
      const at = onOutlook(mark.bearingDeg, mark.elevationDeg);
      return at === null ? [] : [{ ...mark, x: at.x * WIDE, y: at.y * high, left: at.x > 0.7 }];
    });
    const lines = apart(
      placed.map(({ x, y, left, text }) => ({ x, y, left, wide: text.length * 6.2 + 12 })),
      LINE,
      high,
    );
    return placed.map((mark, i) => ({ ...mark, textY: lines[i] ?? mark.y }));
  });
</script>

<figure>
  <div class="picture" style:aspect-ratio="{outlook.columns} / {outlook.rows}">
    <canvas bind:this={canvas} width={outlook.columns} height={outlook.rows} aria-hidden="true"></canvas>
    <svg
      viewBox="0 0 {WIDE} {high}"
      role="img"
      aria-label="Driver’s view, straight ahead in the middle, 90° to either side; the tables list the values"
    >
      {#each shown as { what, x, y, left, text, textY }, i (i)}
        <g class={what}>
          <title>{text}</title>
          {#if Math.abs(textY - y) > 2}<path class="leader" d="M{x} {y}L{x + (left ? -8 : 8)} {textY}" />{/if}
          {#if what === 'lit'}<rect x={x - 4.5} y={y - 4.5} width="9" height="9" />{:else}<circle
              cx={x}
              cy={y}
              r="5"
            />{/if}
          <text x={x + (left ? -10 : 10)} y={textY + 4} text-anchor={left ? 'end' : 'start'}>{text}</text>
        </g>
      {/each}
    </svg>
  </div>
  <figcaption class="quiet">
    ● lamp in direct view · ○ reflection in glass or a mirror · ■ lit surface; from 90° left to 90° right
  </figcaption>
</figure>

<style>
  figure {
    margin: 0;
    font-size: 12px;
  }

  .picture {
    position: relative;
    max-width: 760px;
  }

  canvas,
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }

  text {
    fill: #ffffff;
    stroke: #0b1018;
    stroke-width: 3;
    paint-order: stroke;
    font-size: 12px;
  }

  .straight circle,
  .lit rect {
    fill: #ffd866;
    stroke: #0b1018;
  }

  .shown circle {
    fill: none;
    stroke: #ffd866;
    stroke-width: 2.5;
  }

  .leader {
    stroke: #ffd866;
  }
</style>
