import { readBuildText } from '@flarik/core/rules/document';
import type { Build } from '@flarik/core/design/schema';
import type { SavedBuild } from '$lib/api';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { z } from 'zod';

/** Work kept in this browser until the server has it, by build and by tab: two tabs never keep over each other. */
export interface Kept {
  readonly buildId: string;
  readonly tabId: string;
  readonly name: string;
  /** When it was kept, as ISO 8601. */
  readonly at: string;
  /** The version on the server that it was drawn on. */
  readonly basedOn: number;
  /** The build document. */
  readonly text: string;
  /** The document of a save before it whose answer had not come: it may be on the server as the next version. */
  readonly sent?: string;
}

/** Kept work that can be read. */
export interface Unsaved {
  readonly kept: Kept;
  readonly build: Build;
}

interface Shelf extends DBSchema {
  unsaved: { key: [string, string]; value: Kept };
}

const TAB_ID: string = crypto.randomUUID();
const lockOf = (tabId: string): string => `flarik-tab-${tabId}`;

let opened: Promise<IDBPDatabase<Shelf>> | null = null;

/** @throws {Error} this browser keeps nothing for us */
function shelf(): Promise<IDBPDatabase<Shelf>> {
  opened ??= openDB<Shelf>('flarik', 1, {
    upgrade: (db) => void db.createObjectStore('unsaved', { keyPath: ['buildId', 'tabId'] }),
  }).then(
    async (db) => {
      // What cannot be taken over stays where it is, and is tried again with the next page.
      await takeOverOlder(db).catch(() => undefined);
      // Held while the tab lives, so that other tabs know whose work is still at hand.
      void navigator.locks.request(lockOf(TAB_ID), () => new Promise(() => undefined));
      return db;
    },
    (error: unknown) => {
      opened = null;
      throw error;
    },
  );
  return opened;
}

/** Earlier versions kept one piece of work for each build, under this and the build's id. */
const OLDER = 'flarik:unsaved:';
const Older = z.object({
  build: z.looseObject({ id: z.string(), name: z.string() }),
  basedOn: z.int(),
});

/** Takes over what earlier versions kept, once; what cannot be read is left where it is. */
async function takeOverOlder(db: IDBPDatabase<Shelf>): Promise<void> {
  for (const key of Object.keys(localStorage).filter((name) => name.startsWith(OLDER))) {
    const older = Older.safeParse(jsonOrNull(localStorage.getItem(key) ?? ''));
    if (!older.success) continue;
    const { build, basedOn } = older.data;
    await db.put('unsaved', {
      buildId: build.id,
      tabId: 'earlier version',
      name: build.name,
      at: new Date().toISOString(),
      basedOn,
      text: JSON.stringify(build),
    });
    localStorage.removeItem(key);
  }
}

function jsonOrNull(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/**
 * Keeps the work of this tab on a build, in place of what it kept before.
 * @param sent - a save before it that is not answered
 * @throws {Error} the browser's storage is full or denied
 */
export async function keepUnsaved(build: Build, basedOn: number, sent: Build | null): Promise<void> {
  const { id: buildId, name } = build;
  const at = new Date().toISOString();
  const db = await shelf();
  const kept: Kept = { buildId, tabId: TAB_ID, name, at, basedOn, text: JSON.stringify(build) };
  await db.put('unsaved', sent === null ? kept : { ...kept, sent: JSON.stringify(sent) });
}

/** Forgets kept work; that of this tab when no other is named. */
export async function forgetUnsaved(buildId: string, tabId = TAB_ID): Promise<void> {
  await (await shelf()).delete('unsaved', [buildId, tabId]);
}

/** What tabs that are gone have left, the newest first; none where this browser keeps nothing. */
export async function listUnsaved(): Promise<Kept[]> {
  try {
    const all = await (await shelf()).getAll('unsaved');
    const { held = [] } = await navigator.locks.query();
    const alive = new Set(held.map((lock) => lock.name));
    return all.filter(({ tabId }) => !alive.has(lockOf(tabId))).toSorted((a, b) => b.at.localeCompare(a.at));
  } catch {
    return [];
  }
}

/**
 * What earlier tabs could not save of a build, the newest first. What is on the server after all, because only the
 * answer was lost, is forgotten, and what was done on top of it is based on it; what cannot be read stays on the list
 * of the start page.
 */
export async function findUnsaved(onServer: SavedBuild): Promise<Unsaved[]> {
  const there = JSON.stringify(onServer.build);
  const found: Unsaved[] = [];
  for (const kept of await listUnsaved()) {
    if (kept.buildId !== onServer.build.id) continue;
    const build = readOrNull(kept.text);
    if (build === null) continue;
    if (JSON.stringify(build) === there) await forgetUnsaved(kept.buildId, kept.tabId);
    else if (kept.sent === there) found.push({ kept: { ...kept, basedOn: onServer.version }, build });
    else found.push({ kept, build });
  }
  return found;
}

function readOrNull(text: string): Build | null {
  try {
    return readBuildText(text);
  } catch {
    return null;
  }
}
