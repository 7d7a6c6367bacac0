import type { z } from 'zod';
import { InputError, parseInput } from '../words/errors.ts';
import { Approach } from './approach.ts';
import type { Build } from './schema.ts';
import { EyePlace, Finish, MOST_OWN, WorkPlace, type TrafficSide } from './site.ts';

/** What a build holds of its own besides what is usual, by the name its list has. */
interface Own {
  readonly approaches: Approach;
  readonly workPlaces: WorkPlace;
  readonly eyes: EyePlace;
}
const SCHEMAS: { readonly [List in keyof Own]: z.ZodType<Own[List]> } = {
  approaches: Approach,
  workPlaces: WorkPlace,
  eyes: EyePlace,
};
const NAMES: Readonly<Record<keyof Own, string>> = {
  approaches: 'approaches',
  workPlaces: 'work places',
  eyes: 'eyes',
};

export const setTraffic = (build: Build, traffic: TrafficSide): Build => ({ ...build, traffic });

/**
 * A build in which a surface throws back so much of its light.
 * @param percent - null as is usual
 * @throws {InputError} what cannot be so
 */
export function setFinish(build: Build, surface: string, percent: number | null): Build {
  const others = build.finishes.filter((one) => one.surface !== surface);
  if (percent === null) return { ...build, finishes: others };
  if (others.length >= MOST_OWN)
    throw new InputError('finishes', `a build has at most ${MOST_OWN} finishes of its own`);
  return { ...build, finishes: [...others, parseInput(Finish, { surface, percent })] };
}

/**
 * A build with one more of its own.
 * @throws {InputError} it has as many as it may have
 */
export function addOwn<List extends keyof Own>(build: Build, list: List, one: Own[List]): Build {
  if (build[list].length >= MOST_OWN)
    throw new InputError(list, `a build has at most ${MOST_OWN} ${NAMES[list]} of its own`);
  return { ...build, [list]: [...build[list], one] };
}

/**
 * A build with one of its own changed.
 * @throws {InputError} what cannot be so
 */
export const changeOwn = <List extends keyof Own>(
  build: Build,
  list: List,
  id: string,
  patch: Partial<Omit<Own[List], 'id'>>,
): Build => ({
  ...build,
  [list]: build[list].map((one) => (one.id === id ? parseInput(SCHEMAS[list], { ...one, ...patch }) : one)),
});

export const removeOwn = (build: Build, list: keyof Own, id: string): Build => ({
  ...build,
  [list]: build[list].filter((one) => one.id !== id),
});
