import type { MountZone, View } from '@flarik/core/vehicle/types';
import { zoneOf } from '@flarik/core/vehicle/vehicle';
import type { Editor } from '$lib/editor/editor.svelte';
import { VIEWS } from '../arrangement';

/** A zone as a view draws it. */
export interface DrawnZone {
  readonly zone: MountZone;
  readonly view: View;
}

/** The zones below a point of the window, the uppermost first. Lamps are looked through, a panel over the sheet is not. */
export function zonesBelow({ vehicle }: Editor, clientX: number, clientY: number): DrawnZone[] {
  const elements = document.elementsFromPoint(clientX, clientY);
  const covers = elements.findIndex((element) => element.closest('svg') === null);
  return elements.slice(0, covers < 0 ? undefined : covers).flatMap((element) => {
    const id = element.getAttribute('data-zone');
    const view = VIEWS.find((v) => v === element.getAttribute('data-view'));
    return id === null || view === undefined ? [] : [{ zone: zoneOf(vehicle, id), view }];
  });
}
