import { freeSpot } from '@flarik/core/arrange/freeSpot';
import { assignDefaults } from '@flarik/core/arrange/assignDefaults';
import { addPartner, addPlacement } from '@flarik/core/arrange/lamps';
import { permittedColours } from '@flarik/core/rules/permittedColours';
import type { MountZone } from '@flarik/core/vehicle/types';
import type { Editor } from './editor.svelte';
import { freshId } from '$lib/editor/freshId';

/**
 * Places a fixture, alone or with its mirrored partner, on the free spot nearest to the one wanted; where there is none, on that.
 * It joins the lamps of its place and is selected.
 */
export function placeAt(
  editor: Editor,
  fixtureId: string,
  zone: MountZone,
  { uM, vM, rollDeg = 0, pair }: { uM: number; vM: number; rollDeg?: number; pair: boolean },
): void {
  const id = freshId();
  const partnerId = freshId();
  const { name } = editor.lookup.fixture(fixtureId);
  editor.edit(pair ? `Place a pair of ${name}` : `Place ${name}`, (build) => {
    const wanted = { id, fixtureId, zoneId: zone.id, uM, vM, rollDeg };
    const placed = addPlacement(build, { ...wanted, ...freeSpot(build, wanted, pair) });
    const mayShow = permittedColours(build);
    return pair
      ? assignDefaults(addPartner(placed, id, partnerId), [id, partnerId], editor.state.on, mayShow)
      : assignDefaults(placed, [id], editor.state.on, mayShow);
  });
  editor.carry = null;
  editor.select(pair ? [id, partnerId] : [id]);
}

/** Where a new pair goes on a zone across the centreline, so that the two do not meet in the middle, m. */
export const pairOffset = (zone: MountZone): number => {
  if (zone.mirrorId !== zone.id) return 0;
  const toTheLeft = zone.u[1] > 0 ? 1 : -1;
  return (toTheLeft * zone.widthM) / 4;
};
