import { changePlacement } from '@flarik/core/arrange/lamps';
import { exchanged, exchangeMisfit } from '@flarik/core/arrange/exchange';
import type { Placement } from '@flarik/core/design/placement';
import { snapOnZone, type Guide } from '@flarik/core/arrange/snap';
import type { Build } from '@flarik/core/design/schema';
import type { Point2 } from '@flarik/core/geometry/polygon';
import type { View } from '@flarik/core/vehicle/types';
import type { Editor } from '$lib/editor/editor.svelte';
import { nameOf } from '$lib/editor/names';
import { trackDrag } from '$lib/editor/trackDrag';
import { movedWith, toggleSelected, zoneNow } from '../lampKeys';
import type { Paper } from '../paper.svelte';
import { stepOnZone, zonePictures, type LampPicture } from '../pictures';
import { zonesBelow, type DrawnZone } from './zonesBelow';
import { snapWithinM } from './snapWithin';

/** Chooses lamps and moves them on their zones, drawn to what they line up with. */
export class MoveTool {
  readonly #editor: Editor;
  readonly #paper: Paper;
  /** The lamp being dragged, where, and what it was drawn to. */
  moving = $state.raw<{
    id: string;
    view: View;
    guides: readonly Guide[];
    /** The zone that it would go to if it were let go now. */
    onto: string | null;
  } | null>(null);

  constructor(editor: Editor, paper: Paper) {
    this.#editor = editor;
    this.#paper = paper;
  }

  /** @param editable - else it only chooses */
  press(event: PointerEvent, picture: LampPicture, editable: boolean): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    const editor = this.#editor;
    const { id } = picture.placement;
    if (event.shiftKey) return toggleSelected(editor, id);
    if (!editor.selection.has(id)) editor.select([id]);
    editor.clearShown();
    if (editable) this.#drag(event, picture);
    else editor.select([id]);
  }

  /** The zone below the pointer that takes a lamp, when that is off its own; null when there is none. */
  #otherZone({ id, fixtureId, zoneId }: Placement, x: number, y: number): DrawnZone | null {
    const editor = this.#editor;
    const below = zonesBelow(editor, x, y);
    if (below.some(({ zone }) => zone.id === zoneId)) return null;
    const fits = ({ zone }: DrawnZone): boolean =>
      exchangeMisfit(editor.build, id, { fixtureId, zoneId: zone.id }) === null;
    return below.find(fits) ?? null;
  }

  /** The edit that puts a lamp on another zone where it was let go; null where that zone is not drawn. */
  #onto(
    placement: Placement,
    { view, zone }: DrawnZone,
    x: number,
    y: number,
  ): ((build: Build) => Build) | null {
    const editor = this.#editor;
    const p = this.#paper.onView(view, x, y);
    const picture = zonePictures(editor.vehicle, view, editor.open).find((z) => z.zone.id === zone.id);
    const to = { fixtureId: placement.fixtureId, zoneId: zone.id };
    if (p === null || picture === undefined) return null;
    const { du, dv } = stepOnZone(view, zoneNow(editor, zone.id), [
      p[0] - picture.at[0],
      p[1] - picture.at[1],
    ]);
    return (build) => exchanged(build, placement.id, { ...to, at: { uM: du, vM: dv } });
  }

  #drag(event: PointerEvent, { placement, view }: LampPicture): void {
    const editor = this.#editor;
    const from = this.#paper.onView(view, event.clientX, event.clientY);
    const lamps = movedWith(editor, placement);
    const change = (x: number, y: number) => {
      const to = this.#paper.onView(view, x, y);
      const step: Point2 = from === null || to === null ? [0, 0] : [to[0] - from[0], to[1] - from[1]];
      const { du, dv } = stepOnZone(view, zoneNow(editor, placement.zoneId), step);
      const others = editor.build.placements.filter(
        (p) => !lamps.some((q) => q.id === p.id) && p.id !== placement.partnerId && p.status !== 'removed',
      );
      const at = snapOnZone(
        editor.lookup,
        others,
        placement,
        { uM: placement.uM + du, vM: placement.vM + dv },
        snapWithinM(this.#paper),
      );
      const onto = lamps.length === 1 ? this.#otherZone(placement, x, y) : null;
      this.moving = { id: placement.id, view, guides: at.guides, onto: onto?.zone.name ?? null };
      return (build: Build): Build =>
        lamps.slice(1).reduce(
          (b, p) => {
            const move = stepOnZone(view, zoneNow(editor, p.zoneId), step);
            return changePlacement(b, p.id, { uM: p.uM + move.du, vM: p.vM + move.dv });
          },
          changePlacement(build, placement.id, { uM: at.uM, vM: at.vM }),
        );
    };
    const ids = lamps.map((p) => p.id);
    const what = nameOf(editor.build, ids);
    trackDrag(event, {
      move: (x, y) => editor.drag(change(x, y)),
      drop: (x, y) => {
        const to = lamps.length === 1 ? this.#otherZone(placement, x, y) : null;
        const edit = to === null ? null : this.#onto(placement, to, x, y);
        if (to === null || edit === null) editor.edit(`Move ${what}`, change(x, y));
        else {
          editor.cancelDrag();
          editor.edit(`Move ${what} to ${to.zone.name}`, edit);
        }
        this.moving = null;
      },
      click: () => editor.select([placement.id]),
      cancel: () => {
        editor.cancelDrag();
        this.moving = null;
      },
    });
  }
}
