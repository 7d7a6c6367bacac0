import { labelFrom } from '../design/functions.ts';
import { putPanel } from '../design/controlEdits.ts';
import { columnsOf, MOST_COLUMNS, MOST_ROWS, placesOf, type Control, type Panel } from '../design/panel.ts';
import { inputsOf } from '../design/inputs.ts';
import type { Build } from '../design/schema.ts';

/** An id like this one that no control, panel, input or function has. */
export function freeId(build: Build, stem: string): string {
  const { panels, functions } = build.controls;
  const taken = new Set([
    ...panels.map((p) => p.id),
    ...panels.flatMap((p) => p.controls.map((c) => c.id)),
    ...inputsOf(build).map((i) => i.id),
    ...functions.map((f) => f.id),
  ]);
  for (let n = 1; ; n++) {
    const id = n === 1 ? stem : `${stem}-${n}`;
    if (!taken.has(id)) return id;
  }
}

/** The first free place on a panel, row by row; null when it is full. */
export function freePlace(
  { controls }: Panel,
  page = 1,
): { readonly page: number; readonly column: number; readonly row: number } | null {
  return freeWidth({ controls }, 1, page);
}

/** The first place on a panel with so many free columns beside each other; null where there is none. */
function freeWidth(
  { controls }: Pick<Panel, 'controls'>,
  width: number,
  page = 1,
): { readonly page: number; readonly column: number; readonly row: number } | null {
  const taken = new Set(controls.flatMap(placesOf));
  const columns = Math.min(MOST_COLUMNS, Math.max(4, ...controls.map((c) => c.column)));
  for (let row = 1; row <= MOST_ROWS; row++)
    for (let column = 1; column + width - 1 <= columns; column++)
      if (Array.from({ length: width }).every((_, i) => !taken.has(`${page}/${row}/${column + i}`)))
        return { page, column, row };
  return null;
}

/** A button by its usual values. */
export const button = (
  id: string,
  label: string,
  at: { readonly page: number; readonly column: number; readonly row: number },
  functionId: string | null,
): Control => ({
  kind: 'button',
  id,
  label: labelFrom(label),
  ...at,
  twinOf: null,
  backlit: true,
  holdMs: 800,
  lamp: functionId === null ? null : { functionId, colour: 'green' },
});

/**
 * A key for a function: a spare place of the first panel that has one, else a new button.
 * @returns the build, and the id of the control
 */
export function bindKey(
  build: Build,
  stem: string,
  label: string,
  functionId: string,
): { readonly build: Build; readonly controlId: string } {
  const { panels } = build.controls;
  const id = freeId(build, `key-${stem}`);
  for (const panel of panels) {
    const spare = panel.controls.find((c) => c.kind === 'spare');
    if (spare === undefined) continue;
    const { page, column, row } = spare;
    const key = button(id, label, { page, column, row }, functionId);
    const controls = panel.controls.map((c) => (c.id === spare.id ? key : c));
    return { build: putPanel(build, { ...panel, controls }), controlId: id };
  }
  const panel = panels.find((p) => freePlace(p) !== null) ?? newPanel(freeId(build, 'panel'), 'Switch panel');
  const at = freePlace(panel) ?? { page: 1, column: 1, row: 1 };
  const controls = [...panel.controls, button(id, label, at, functionId)];
  return { build: putPanel(build, { ...panel, controls }), controlId: id };
}

/** A switch that stays where it is put, at a free place of the first panel that has one, else of a new one. */
export function bindSwitch(build: Build, id: string, label: string, values: string[]): Build {
  const control = (panel: Panel): Control | null => {
    const at = freeWidth(panel, values.length);
    return at === null
      ? null
      : { kind: 'rocker', id, label, ...at, twinOf: null, backlit: true, values, springs: false };
  };
  for (const panel of build.controls.panels) {
    const fits = control(panel);
    if (fits !== null) return putPanel(build, { ...panel, controls: [...panel.controls, fits] });
  }
  const panel = newPanel(freeId(build, 'panel'), 'Switch panel');
  const fits = control(panel);
  return fits === null ? build : putPanel(build, { ...panel, controls: [fits] });
}

export const newPanel = (id: string, name: string): Panel => ({
  id,
  name,
  place: 'console',
  touch: false,
  cabPlaceId: null,
  widthMm: 180,
  heightMm: 80,
  depthMm: 45,
  controls: [],
});

/**
 * A control at another place of its panel; with a control of its own width that stands there it changes places.
 * @returns null where it does not fit: off the panel, or over others
 */
export function moveOnPanel(
  panel: Panel,
  controlId: string,
  to: { readonly page: number; readonly column: number; readonly row: number },
): Panel | null {
  const moved = panel.controls.find(({ id }) => id === controlId);
  if (moved === undefined) return null;
  const { page, column, row } = moved;
  const there = { ...moved, ...to };
  const wide = columnsOf(moved).length;
  if (to.column < 1 || to.row < 1 || to.row > MOST_ROWS || columnsOf(there).length < wide) return null;
  const wanted = new Set(placesOf(there));
  const met = panel.controls.filter((c) => c !== moved && placesOf(c).some((place) => wanted.has(place)));
  const [other] = met;
  const swaps =
    other !== undefined &&
    met.length === 1 &&
    columnsOf(other).length === wide &&
    placesOf(other).every((place) => wanted.has(place));
  if (other !== undefined && !swaps) return null;
  const controls = panel.controls.map((c): Control => {
    if (c === moved) return there;
    return c === other ? { ...c, page, column, row } : c;
  });
  return { ...panel, controls };
}
