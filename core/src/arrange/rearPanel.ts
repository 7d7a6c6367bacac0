import { putPanel } from '../design/controlEdits.ts';
import type { Control, Panel } from '../design/panel.ts';
import type { Build } from '../design/schema.ts';
import { freeId } from './panelEdits.ts';

/** More keys than this are no panel for a rear desk. */
const MOST = 24;

/** A panel at the rear with twins of the switches and keys there are, in their order. */
export function layRearPanel(build: Build): Build {
  const wanted = build.controls.panels
    .flatMap((p) => p.controls)
    .filter((c) => c.twinOf === null && c.kind !== 'spare' && c.kind !== 'horn ring')
    .slice(0, MOST);
  const id = freeId(build, 'rear-panel');
  const empty: Panel = {
    id,
    name: 'Rear panel',
    place: 'rear desk',
    touch: false,
    cabPlaceId: null,
    widthMm: 160,
    heightMm: 60,
    depthMm: 40,
    controls: [],
  };
  // A row for each switch, then the keys, four in a row.
  const switches = wanted.filter((c) => 'values' in c);
  const keys = wanted.filter((c) => !('values' in c));
  const placed = [
    ...switches.map((c, i) => ({ c, column: 1, row: 1 + i })),
    ...keys.map((c, i) => ({ c, column: 1 + (i % 4), row: 1 + switches.length + Math.floor(i / 4) })),
  ];
  const controls = placed.map(({ c, column, row }): Control => ({
    ...c,
    id: freeId(build, `rear-${c.id}`),
    page: 1,
    column,
    row,
    twinOf: c.id,
  }));
  return controls.length === 0 ? build : putPanel(build, { ...empty, controls });
}
