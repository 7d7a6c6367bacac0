import type { Placement } from '@flarik/core/design/placement';
import { changePlacement, removePlacements } from '@flarik/core/arrange/lamps';
import type { MountZone } from '@flarik/core/vehicle/types';
import { posedZone, zoneOf } from '@flarik/core/vehicle/vehicle';
import type { Point2 } from '@flarik/core/geometry/polygon';
import type { Editor } from '$lib/editor/editor.svelte';
import { nameOf } from '$lib/editor/names';
import { turned, TURN_DEG } from './directions';
import { stepOnZone, type LampPicture } from './pictures';

const NUDGE_M = 0.005;
const BIG_NUDGE_M = 0.025;

const ARROWS: Readonly<Record<string, Point2>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
const TURNS: Readonly<Record<string, number>> = { '[': -TURN_DEG, ']': TURN_DEG };

/** The lamps that move when this one is taken hold of: the chosen ones with it, but no partner twice. */
export function movedWith(editor: Editor, placement: Placement): Placement[] {
  if (!editor.selection.has(placement.id)) return [placement];
  const others = editor.selected.filter((p) => p.id !== placement.id && p.id !== placement.partnerId);
  return [placement, ...others.filter((p, i) => !others.slice(0, i).some((q) => q.partnerId === p.id))];
}

/** A lamp's zone as the state bar has it. */
export const zoneNow = ({ vehicle, state }: Editor, zoneId: string): MountZone =>
  posedZone(vehicle, zoneOf(vehicle, zoneId), new Set(state.open));

/** Adds a lamp to the selection, or takes it out. */
export function toggleSelected(editor: Editor, id: string): void {
  const rest = [...editor.selection].filter((other) => other !== id);
  editor.select(editor.selection.has(id) ? rest : [...rest, id]);
}

/** What the keys do on a lamp of the sheet. */
export function onLampKey(
  event: KeyboardEvent,
  editor: Editor,
  { placement, view }: LampPicture,
  editable: boolean,
): void {
  const arrow = ARROWS[event.key];
  const turn = TURNS[event.key];
  if (event.key === 'Enter') {
    if (event.shiftKey) toggleSelected(editor, placement.id);
    else editor.select([placement.id]);
  } else if (!editable) return;
  else if (event.key === 'Delete' || event.key === 'Backspace') {
    const ids = editor.selection.has(placement.id) ? editor.selection : new Set([placement.id]);
    editor.edit(`Delete ${nameOf(editor.build, [...ids])}`, (b) => removePlacements(b, ids));
  } else if (turn !== undefined) {
    editor.edit(
      `Turn ${placement.label}`,
      (b) => changePlacement(b, placement.id, { panDeg: turned(placement.panDeg, turn) }),
      `turn ${placement.id}`,
    );
  } else if (arrow !== undefined) nudge(editor, { placement, view }, arrow, event.shiftKey);
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function nudge(
  editor: Editor,
  { placement, view }: Pick<LampPicture, 'placement' | 'view'>,
  [a, b]: Point2,
  big: boolean,
): void {
  const size = big ? BIG_NUDGE_M : NUDGE_M;
  if (!editor.selection.has(placement.id)) editor.select([placement.id]);
  const lamps = movedWith(editor, placement);
  const round = (v: number) => Math.round(v / NUDGE_M) * NUDGE_M;
  const ids = lamps.map((p) => p.id);
  editor.edit(
    `Nudge ${nameOf(editor.build, ids)}`,
    (build) =>
      lamps.reduce((moved, p) => {
        const { du, dv } = stepOnZone(view, zoneNow(editor, p.zoneId), [a * size, b * size]);
        return changePlacement(moved, p.id, { uM: p.uM + round(du), vM: p.vM + round(dv) });
      }, build),
    `nudge ${ids.join(' ')}`,
  );
}
