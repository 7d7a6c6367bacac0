import type { Outlook } from '@flarik/core/sight/outlook';
import { ROAD } from '@flarik/core/sight/surfaces';

type Tone = readonly [red: number, green: number, blue: number];
/** A dusk in which both what is lit and what is not can be told. */
const SKY_ABOVE: Tone = [24, 38, 66];
const SKY_BELOW: Tone = [92, 112, 140];
const GROUND: Tone = [110, 114, 118];
const BODY: Tone = [132, 142, 154];
/** Lit surfaces turn toward this. */
const GLOW: Tone = [255, 216, 102];
/** How dark the edge of a surface is drawn, against the surface. */
const EDGE = 0.45;

/** The driver’s view as a picture. @param lit - by surface: how strongly it is lit, 0 to 1 */
export function outlookPicture(
  { columns, rows, surfaces, cells, shades }: Outlook,
  lit: ReadonlyMap<string, number>,
): ImageData {
  const image = new ImageData(columns, rows);
  const tones = surfaces.map((surface) =>
    mixed(surface === ROAD ? GROUND : BODY, GLOW, 0.7 * (lit.get(surface) ?? 0)),
  );
  for (let row = 0; row < rows; row++) {
    const sky = mixed(SKY_ABOVE, SKY_BELOW, Math.min(1, (2.4 * row) / rows));
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      const cell = cells[i] ?? -1;
      const isEdge =
        (column + 1 < columns && cells[i + 1] !== cell) || (row + 1 < rows && cells[i + columns] !== cell);
      const by = ((shades[i] ?? 0) / 255) * (isEdge ? EDGE : 1);
      const [red, green, blue] = tones[cell] ?? sky;
      image.data.set([by * red, by * green, by * blue, 255], 4 * i);
    }
  }
  return image;
}

const mixed = (from: Tone, to: Tone, share: number): Tone => [
  from[0] + share * (to[0] - from[0]),
  from[1] + share * (to[1] - from[1]),
  from[2] + share * (to[2] - from[2]),
];
