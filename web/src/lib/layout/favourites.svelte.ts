import { z } from 'zod';

const KEY = 'flarik-favourite-fixtures';

/** The fixtures this person likes to find first; kept in this browser. */
class Favourites {
  ids = $state.raw<ReadonlySet<string>>(new Set());

  /** Reads what was kept; in the browser only. */
  load(): void {
    try {
      const kept = z.array(z.string()).safeParse(JSON.parse(localStorage.getItem(KEY) ?? '[]'));
      this.ids = new Set(kept.success ? kept.data : []);
    } catch {
      this.ids = new Set();
    }
  }

  toggle(id: string): void {
    const next = new Set(this.ids);
    if (!next.delete(id)) next.add(id);
    this.ids = next;
    try {
      localStorage.setItem(KEY, JSON.stringify([...next]));
    } catch {
      // A browser that keeps nothing forgets them with the page.
    }
  }
}

export const favourites = new Favourites();
