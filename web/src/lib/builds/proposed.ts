/** A rule pack as the shelf lists it. */
export interface ShelvedPack {
  readonly id: string;
  readonly name: string;
  readonly rules: number;
}

const names = (pack: ShelvedPack, places: readonly string[]): boolean =>
  places.some((place) => {
    // "Dunmarrow, over the causeway" is in Dunmarrow.
    const [short = ''] = place.split(',');
    return short !== '' && pack.name.toLowerCase().includes(short.toLowerCase());
  });

/**
 * The packs to check a vehicle by that drives in some places: those that name one of them, and those that name none of
 * the places anybody here drives in. Blank forms check nothing and are not proposed.
 */
export const proposedPacks = (
  packs: readonly ShelvedPack[],
  drivesIn: readonly string[],
  known: readonly string[],
): ShelvedPack[] =>
  packs.filter((pack) => pack.rules > 0 && (names(pack, drivesIn) || !names(pack, [...known, ...drivesIn])));
