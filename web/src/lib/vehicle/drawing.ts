import { addOwn } from '@flarik/core/arrange/vehicleEdits';
import type { Build } from '@flarik/core/design/schema';
import {
  drawnKeepOut,
  drawnSolid,
  drawnZone,
  mirroredBox,
  mirroredZone,
  type DrawnRect,
} from '@flarik/core/vehicle/picture/drawn';
import type { Vehicle } from '@flarik/core/vehicle/types';
import { freshId } from '$lib/editor/freshId';

/** What of one's own is drawn on the sheet. */
export type Drawing = 'zone' | 'solid' | 'keep-out';

export const drawingName: Readonly<Record<Drawing, string>> = {
  zone: 'zone',
  solid: 'box',
  'keep-out': 'keep-out',
};

const freshPartId = (): string => freshId('own-');

/** Adds what was drawn, with its mirror image when wanted. */
export function addDrawn(
  build: Build,
  vehicle: Vehicle,
  what: Drawing,
  rect: DrawnRect,
  bothSides: boolean,
): Build {
  const lists = { zone: 'zones', solid: 'solids', 'keep-out': 'keepOuts' } as const;
  const number = build.vehicle[lists[what]].length + 1;
  const stem = `Custom ${drawingName[what]} ${number}`;
  const y = sideOf(rect);
  const name = bothSides ? `${stem} ${y < 0 ? 'right' : 'left'}` : stem;
  const twinName = `${stem} ${y < 0 ? 'left' : 'right'}`;
  switch (what) {
    case 'zone': {
      const zone = drawnZone(vehicle, rect, freshPartId(), name);
      return addOwn(
        build,
        'zones',
        bothSides ? [zone, mirroredZone(vehicle, zone, freshPartId(), twinName)] : [zone],
      );
    }
    case 'solid': {
      const solid = drawnSolid(vehicle, rect, freshPartId(), name);
      const twin = solid.kind === 'box' ? [mirroredBox(solid, freshPartId(), twinName)] : [];
      return addOwn(build, 'solids', bothSides ? [solid, ...twin] : [solid]);
    }
    case 'keep-out': {
      const keepOut = drawnKeepOut(vehicle, rect, freshPartId(), name);
      return addOwn(
        build,
        'keepOuts',
        bothSides ? [keepOut, mirroredBox(keepOut, freshPartId(), twinName)] : [keepOut],
      );
    }
  }
}

/** On which side of the centre plane a rectangle was drawn: above 0 on the left. */
function sideOf({ view, from, to }: DrawnRect): number {
  switch (view) {
    case 'left':
      return 1;
    case 'right':
      return -1;
    case 'front':
      return from[0] + to[0];
    case 'rear':
      return -(from[0] + to[0]);
    case 'plan':
      return from[1] + to[1];
  }
}
