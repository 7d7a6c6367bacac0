import type { Colour } from '../words/colour.ts';
import type { Face } from '../words/face.ts';
import type { Service } from '../words/service.ts';

/** Colours that vehicles of a service usually warn in, the first one first; law and packs come before them. */
const USUAL: Readonly<Record<Service, readonly Colour[]>> = {
  police: ['red', 'blue', 'white', 'amber'],
  fire: ['red', 'white', 'amber'],
  ems: ['red', 'white', 'amber'],
  rescue: ['red', 'white', 'amber'],
  tow: ['amber', 'white'],
  'road-work': ['amber', 'white'],
  utility: ['amber', 'white'],
  security: ['amber', 'white'],
  escort: ['amber', 'white'],
  airfield: ['amber', 'white'],
  other: ['amber', 'white'],
};

/** Whether warning light of a colour may be shown to a face. */
export type MayShow = (face: Face, colour: Colour) => boolean;

/**
 * The colours that a lamp begins with: those usual for the service that it offers and may show to where it looks, as many as
 * it has slots; where none is, what it may show of the others; where it may show nothing, its first.
 */
export function firstColours(
  service: Service,
  {
    offered,
    slots,
    faces,
    mayShow,
  }: {
    readonly offered: readonly Colour[];
    readonly slots: number;
    readonly faces: readonly Face[];
    readonly mayShow: MayShow;
  },
): Colour[] {
  const may = (colour: Colour): boolean => faces.every((face) => mayShow(face, colour));
  const usual = USUAL[service].filter((colour) => offered.includes(colour) && may(colour));
  const others = offered.filter(may);
  return (usual.length > 0 ? usual : others.length > 0 ? others.slice(0, 1) : offered.slice(0, 1)).slice(
    0,
    slots,
  );
}
