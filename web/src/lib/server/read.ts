import { readBuild } from '@flarik/core/rules/document';
import { InputError, parseInput } from '@flarik/core/words/errors';
import { parseJson } from '@flarik/core/words/json';
import { z } from 'zod';
import { fileBuild, type Filed } from './filed';

/** What is to be read: JSON text, and where in it the build lies. */
export interface ReadJob {
  readonly text: string;
  /** How to call the text in an error. */
  readonly what: string;
  /** The build is the text itself, or lies in it as a member beside others. */
  readonly as: 'text' | 'member';
  /** The id to file it under; null for its own. */
  readonly id: string | null;
}

/** What came of it: the build as it is stored, or what is wrong and where. */
export type ReadResult =
  | { readonly kind: 'read'; readonly filed: Filed }
  | { readonly kind: 'refused'; readonly path: string; readonly reason: string };

const WithBuild = z.looseObject({ build: z.unknown() });

/** Reads a build that came from outside: tens of milliseconds of work, for a thread of its own. */
export default async function read({ text, what, as, id }: ReadJob): Promise<ReadResult> {
  try {
    const data = parseJson(text, what);
    const build = readBuild(as === 'text' ? data : parseInput(WithBuild, data).build);
    return { kind: 'read', filed: await fileBuild(id === null ? build : { ...build, id }) };
  } catch (error) {
    if (error instanceof InputError) return { kind: 'refused', path: error.path, reason: error.reason };
    throw error;
  }
}
