import { InputError, parseInput } from '../words/errors.ts';
import { Approach, MOST_APPROACHES } from './approach.ts';
import type { Build } from './schema.ts';

/**
 * A build with an approach of its own besides, like another.
 * @throws {InputError} it has as many as it may have
 */
export function addApproach(build: Build, like: Approach, id: string): Build {
  if (build.approaches.length >= MOST_APPROACHES)
    throw new InputError('approaches', `a build has at most ${MOST_APPROACHES} approaches of its own`);
  return { ...build, approaches: [...build.approaches, { ...like, id }] };
}

/**
 * A build with an approach of its own changed.
 * @throws {InputError} what cannot be so
 */
export const changeApproach = (build: Build, id: string, patch: Partial<Omit<Approach, 'id'>>): Build => ({
  ...build,
  approaches: build.approaches.map((one) =>
    one.id === id ? parseInput(Approach, { ...one, ...patch }) : one,
  ),
});

export const removeApproach = (build: Build, id: string): Build => ({
  ...build,
  approaches: build.approaches.filter((one) => one.id !== id),
});
