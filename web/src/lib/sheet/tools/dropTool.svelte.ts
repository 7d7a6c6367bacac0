import { snapOnZone } from '@flarik/core/arrange/snap';
import type { Fixture } from '@flarik/core/fixture/types';
import { rollToFit } from '@flarik/core/resolve/place';
import type { MountZone, View } from '@flarik/core/vehicle/types';
import type { Editor } from '$lib/editor/editor.svelte';
import { placeAt } from '$lib/editor/placing';
import { zoneNow } from '../lampKeys';
import type { Paper } from '../paper.svelte';
import { stepOnZone, zonePictures } from '../pictures';
import { zonesBelow } from './zonesBelow';
import { snapWithinM } from './snapWithin';

/** Puts the fixture that is carried from the catalogue on a zone. */
export class DropTool {
  readonly #editor: Editor;
  readonly #paper: Paper;
  /** The zone below the pointer. */
  hovered = $state.raw<MountZone | null>(null);
  readonly carried: Fixture | null = $derived.by(() => {
    const { carry, lookup } = this.#editor;
    return carry === null ? null : lookup.fixture(carry.fixtureId);
  });

  constructor(editor: Editor, paper: Paper) {
    this.#editor = editor;
    this.#paper = paper;
  }

  /** Follows a fixture that is dragged in from the catalogue. */
  hover(clientX: number, clientY: number): void {
    this.hovered = zonesBelow(this.#editor, clientX, clientY)[0]?.zone ?? null;
  }

  /** Puts it where it was let go; nothing happens off a zone that bears it. */
  dropAt(clientX: number, clientY: number): void {
    const [below] = zonesBelow(this.#editor, clientX, clientY);
    if (below !== undefined) this.drop(below.view, below.zone, clientX, clientY);
  }

  drop(view: View, zone: MountZone, clientX: number, clientY: number): void {
    const editor = this.#editor;
    const { carried } = this;
    const p = this.#paper.onView(view, clientX, clientY);
    if (carried === null || p === null) return;
    const rollDeg = rollToFit(carried, zone);
    if (rollDeg === null) return;
    const open = editor.open;
    const picture = zonePictures(editor.vehicle, view, open).find((z) => z.zone.id === zone.id);
    if (picture === undefined) return;
    const { du, dv } = stepOnZone(view, zoneNow(editor, zone.id), [
      p[0] - picture.at[0],
      p[1] - picture.at[1],
    ]);
    const at = snapOnZone(
      editor.lookup,
      editor.build.placements.filter(({ status }) => status !== 'removed'),
      { fixtureId: carried.id, zoneId: zone.id },
      { uM: du, vM: dv },
      snapWithinM(this.#paper),
    );
    placeAt(editor, carried.id, zone, { uM: at.uM, vM: at.vM, rollDeg, pair: false });
  }
}
