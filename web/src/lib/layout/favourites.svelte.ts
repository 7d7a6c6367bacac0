import { z } from 'zod';
import { recall, remember } from '$lib/ui/remember';

const KEY = 'flarik-favourite-fixtures';

/** The fixtures this person likes to find first; kept in this browser. */
class Favourites {
  ids = $state.raw<ReadonlySet<string>>(new Set());

  /** Reads what was kept; in the browser only. */
  load(): void {
    this.ids = new Set(recall(KEY, z.array(z.string()), []));
  }

  toggle(id: string): void {
    const next = new Set(this.ids);
    if (!next.delete(id)) next.add(id);
    this.ids = next;
    remember(KEY, [...next]);
  }
}

export const favourites = new Favourites();
