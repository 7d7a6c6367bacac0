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
  import { OUTLOOK_DEG, type Outlook } from '@flarik/core/sight/outlook';
  import { ROAD } from '@flarik/core/sight/surfaces';
  import { border } from './shades';

  /** What stands before the driver, straight ahead in the middle, with what is seen there of the own lamps. */
  let { outlook, marks }: { outlook: Outlook; marks: readonly Mark[] } = $props();
  const { columns, rows, cells, surfaces } = $derived(outlook);
  const cellAt = (column: number, row: number): number => cells[row * columns + column] ?? -1;

  /** Runs of cells along each row as one shape. */
  const runsOf = (test: (cell: number) => boolean): string => {
    const path: string[] = [];
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        if (!test(cellAt(column, row))) continue;
        const from = column;
        while (column + 1 < columns && test(cellAt(column + 1, row))) column++;
        path.push(`M${from} ${rows - 1 - row}h${column - from + 1}v1h${from - column - 1}z`);
      }
    return path.join('');
  };
  const road = $derived(surfaces.indexOf(ROAD));
  const ground = $derived(runsOf((cell) => cell === road));
  const body = $derived(runsOf((cell) => cell >= 0 && cell !== road));
  const edges = $derived(border(columns, rows, cellAt));

  /** Degrees to cells; null where the picture does not reach. */
  function placed({ bearingDeg, elevationDeg }: Mark): { readonly x: number; readonly y: number } | null {
    const aside = bearingDeg > 180 ? bearingDeg - 360 : bearingDeg;
    const { aside: most, down, up } = OUTLOOK_DEG;
    return Math.abs(aside) > most || elevationDeg < -down || elevationDeg > up
      ? null
      : { x: aside + most + 0.5, y: rows - 0.5 - (elevationDeg + down) };
  }
  const shown = $derived(
    marks.flatMap((mark) => {
      const at = placed(mark);
      return at === null ? [] : [{ ...mark, ...at }];
    }),
  );
</script>

<figure>
  <svg
    viewBox="0 0 {columns} {rows}"
    role="img"
    aria-label="Driver’s view, straight ahead in the middle, 90° to either side; the tables list the values"
  >
    <rect class="sky" width={columns} height={rows} />
    <path class="ground" d={ground} />
    <path class="body" d={body} />
    <path class="edges" d={edges} />
    <path class="ahead" d="M{columns / 2} {rows - OUTLOOK_DEG.down - 3}v5m-2.5 -2.5h5" />
    {#each shown as { what, x, y, text }, i (i)}
      <g class={what}>
        <title>{text}</title>
        {#if what === 'lit'}<rect x={x - 1.2} y={y - 1.2} width="2.4" height="2.4" />{:else}<circle
            cx={x}
            cy={y}
            r={what === 'shown' ? 1.6 : 1.2}
          />{/if}
        <text x={x + (x > columns * 0.8 ? -2 : 2)} y={y + 1} text-anchor={x > columns * 0.8 ? 'end' : 'start'}
          >{text}</text
        >
      </g>
    {/each}
  </svg>
  <figcaption class="quiet">
    ● lamp in direct view · ○ reflection in glass or a mirror · ■ lit surface brightest; left to right 90° to
    either side
  </figcaption>
</figure>

<style>
  figure {
    margin: 0;
    font-size: 12px;
  }

  svg {
    width: 100%;
    max-height: 235px;
  }

  .sky {
    fill: #10182b;
  }

  .ground {
    fill: #23282e;
  }

  .body {
    fill: #4b535c;
  }

  .edges {
    fill: none;
    stroke: #0b0f14;
    stroke-width: 0.5;
  }

  .ahead {
    fill: none;
    stroke: #ffffff;
    stroke-width: 0.4;
  }

  text {
    fill: #ffffff;
    stroke: #10182b;
    stroke-width: 0.6;
    paint-order: stroke;
    font-size: 2.9px;
  }

  .straight circle,
  .lit rect {
    fill: #ffd866;
  }

  .shown circle {
    fill: none;
    stroke: #ffd866;
    stroke-width: 0.7;
  }
</style>
