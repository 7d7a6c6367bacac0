import { z } from 'zod';

/** What this person last chose, kept in this browser; the fallback where nothing usable was kept, and on the server. */
export function recall<T>(key: string, schema: z.ZodType<T>, fallback: T): T {
  try {
    const kept = schema.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    return kept.success ? kept.data : fallback;
  } catch {
    return fallback;
  }
}

/** Keeps a choice in this browser; one that keeps nothing forgets it with the page. */
export function remember(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // The choice holds for this page all the same.
  }
}

/** The same for the widths of panels. */
export const paneWidths = {
  getItem: (key: string): string | null => recall(key, z.string().nullable(), null),
  setItem: remember,
};
