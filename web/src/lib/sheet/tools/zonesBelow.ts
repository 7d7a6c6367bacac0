import type { MountZone, View } from '@flarik/core/vehicle/types';
import { zoneOf } from '@flarik/core/vehicle/vehicle';
import type { Editor } from '$lib/editor/editor.svelte';
import { VIEWS } from '../arrangement';

/** A zone as a view draws it. */
export interface DrawnZone {
  readonly zone: MountZone;
  readonly view: View;
}

/** The zones below a point of the window, the uppermost first; lamps that lie on them are looked through. */
export const zonesBelow = ({ vehicle }: Editor, clientX: number, clientY: number): DrawnZone[] =>
  document.elementsFromPoint(clientX, clientY).flatMap((element) => {
    const id = element.getAttribute('data-zone');
    const view = VIEWS.find((v) => v === element.getAttribute('data-view'));
    return id === null || view === undefined ? [] : [{ zone: zoneOf(vehicle, id), view }];
  });
