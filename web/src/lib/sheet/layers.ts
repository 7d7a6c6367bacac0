/** What is drawn on the sheet besides the vehicle and its lamps. */
export const LAYERS = [
  { id: 'zones', name: 'Zones' },
  { id: 'factory', name: 'Factory' },
  { id: 'keepOuts', name: 'Keep-outs' },
  { id: 'letters', name: 'Letters' },
  { id: 'names', name: 'Names' },
  { id: 'sizes', name: 'Sizes' },
  { id: 'beams', name: 'Beams' },
  { id: 'offLook', name: 'Off-look' },
] as const;
export type LayerId = (typeof LAYERS)[number]['id'];
export type Layers = Record<LayerId, boolean>;

export const firstLayers = (): Layers => ({
  zones: false,
  factory: true,
  keepOuts: false,
  letters: true,
  names: false,
  sizes: false,
  beams: true,
  offLook: false,
});
