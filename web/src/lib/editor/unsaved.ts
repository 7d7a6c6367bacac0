import { readBuild } from '@flarik/core/rules/document';
import type { Build } from '@flarik/core/design/schema';
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

/**
 * What an earlier session could not save; null when there is nothing, or nothing readable. What is on the server
 * after all, because only the answer was lost, is forgotten.
 */
export function findUnsaved(onServer: Build): Unsaved | null {
  const text = localStorage.getItem(keyOf(onServer.id));
  if (text === null) return null;
  try {
    const kept = Kept.parse(JSON.parse(text));
    const build = readBuild(kept.build);
    if (JSON.stringify(build) !== JSON.stringify(onServer)) return { build, basedOn: kept.basedOn };
  } catch {
    // Unreadable: there is nothing to offer.
  }
  forgetUnsaved(onServer.id);
  return null;
}
