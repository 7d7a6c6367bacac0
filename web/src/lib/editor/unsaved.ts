import { readBuild, type Build } from '@flarik/core/build/schema';
import { z } from 'zod';

/** Work kept in this browser until the server has it. */
export interface Unsaved {
  readonly build: Build;
  readonly basedOn: number;
}

const Kept = z.strictObject({ build: z.unknown(), basedOn: z.int() });
const keyOf = (buildId: string): string => `flarik:unsaved:${buildId}`;

export const keepUnsaved = (unsaved: Unsaved): void =>
  localStorage.setItem(keyOf(unsaved.build.id), JSON.stringify(unsaved));

export const forgetUnsaved = (buildId: string): void => localStorage.removeItem(keyOf(buildId));

/** What an earlier session could not save; null when there is nothing, or nothing readable. */
export function findUnsaved(buildId: string): Unsaved | null {
  const text = localStorage.getItem(keyOf(buildId));
  if (text === null) return null;
  try {
    const kept = Kept.parse(JSON.parse(text));
    return { build: readBuild(kept.build), basedOn: kept.basedOn };
  } catch {
    return null;
  }
}
