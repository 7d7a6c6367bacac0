import type { z } from 'zod';
import { InputError, parseInput } from '../words/errors.ts';
import type { Build } from './schema.ts';
import { EyePlace, MOST_OF_SITE, WorkPlace, type TrafficSide } from './site.ts';

/** What a list of the site holds, by the name it has in a build. */
interface OfSite {
  readonly workPlaces: WorkPlace;
  readonly eyes: EyePlace;
}
const SCHEMAS: { readonly [List in keyof OfSite]: z.ZodType<OfSite[List]> } = {
  workPlaces: WorkPlace,
  eyes: EyePlace,
};

export const setTraffic = (build: Build, traffic: TrafficSide): Build => ({ ...build, traffic });

/**
 * A build with one more of the site.
 * @throws {InputError} there are as many as there may be
 */
export function addToSite<List extends keyof OfSite>(build: Build, list: List, one: OfSite[List]): Build {
  if (build[list].length >= MOST_OF_SITE)
    throw new InputError(list, `a build has at most ${MOST_OF_SITE} of them`);
  return { ...build, [list]: [...build[list], one] };
}

/**
 * A build with one of the site changed.
 * @throws {InputError} what cannot be so
 */
export const changeInSite = <List extends keyof OfSite>(
  build: Build,
  list: List,
  id: string,
  patch: Partial<Omit<OfSite[List], 'id'>>,
): Build => ({
  ...build,
  [list]: build[list].map((one) => (one.id === id ? parseInput(SCHEMAS[list], { ...one, ...patch }) : one)),
});

export const removeFromSite = (build: Build, list: keyof OfSite, id: string): Build => ({
  ...build,
  [list]: build[list].filter((one) => one.id !== id),
});
