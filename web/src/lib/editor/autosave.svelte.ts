import type { Build } from '@flarik/core/design/schema';
import type { SavedBuild } from '$lib/api';
import { ApiError, currentOf, putBuild } from '$lib/client';
import { forgetUnsaved, keepUnsaved } from './unsaved';

/** A line of a revision says no more than this. */
const LONGEST_LINE = 200;

/** What changed, in one line: each kind of change once, the first ones first. */
export function changesText(labels: readonly string[]): string {
  const text = [...new Set(labels)].join('; ');
  return text.length <= LONGEST_LINE ? text : `${text.slice(0, LONGEST_LINE - 1)}…`;
}

const QUIET_MS = 500;
const RETRY_MS = 4000;

/** Whether what a save was told passes by itself: not reached, too many at once, or trouble over there. */
const passes = (status: number): boolean => status === 0 || status === 429 || status >= 500;

export type SaveStatus =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  /** Not saved; kept in this browser and tried again. */
  | { readonly kind: 'offline'; readonly why: string }
  /** Someone else saved first: both sides are kept until the user chooses. */
  | { readonly kind: 'conflict'; readonly theirs: SavedBuild }
  /** The server will not have it; kept in this browser. `gone`: it has no such build any more. */
  | { readonly kind: 'refused'; readonly why: string; readonly gone: boolean };

/** A save as it is sent. */
interface Save {
  readonly build: Build;
  readonly basedOn: number;
  /** Names it, so that the server does it once. */
  readonly saveId: string;
  readonly changed: string;
}

/** Saves by itself, a moment after the last change; what is not on the server is kept in this browser. */
export class Autosave {
  status = $state.raw<SaveStatus>({ kind: 'waiting' });
  version = $state(1);
  /** Whether this browser keeps what the server does not have; its storage may be full or denied. */
  kept = $state(true);
  /** The last state that is in no save yet. */
  #pending: Build | null = null;
  /** The changes that lead to it from the last save. */
  #labels: readonly string[] = [];
  /** A save that may have been done, though its answer did not come: it is sent again as it is until it is answered. */
  #unanswered: Save | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending = false;
  /** Keeping and forgetting, one after the other. */
  #shelf: Promise<void> = Promise.resolve();

  constructor(saved: { version: number; savedAt: string }) {
    this.version = saved.version;
    this.status = { kind: 'saved', at: saved.savedAt };
  }

  /** Takes note of a new state of the build. */
  changed(build: Build, label: string): void {
    this.#labels = [...this.#labels, label];
    this.#pending = build;
    const sent = this.#unanswered?.build ?? null;
    this.#keep(() => keepUnsaved(build, this.version, sent));
    if (this.status.kind === 'conflict') return;
    this.status = { kind: 'waiting' };
    this.#later(QUIET_MS);
  }

  /** After a conflict: puts our build over theirs, which stays as a revision. */
  overwrite(theirs: SavedBuild, mine: Build): void {
    this.version = theirs.version;
    this.status = { kind: 'waiting' };
    this.changed(mine, 'Overwrite the saved version');
  }

  /** After a conflict: takes theirs as the ground to work on. */
  accept(theirs: SavedBuild): void {
    this.#pending = null;
    this.#unanswered = null;
    this.#labels = [];
    this.version = theirs.version;
    this.status = { kind: 'saved', at: theirs.savedAt };
    this.#keep(() => forgetUnsaved(theirs.build.id));
  }

  /** Sends now what is waiting. */
  async flush(): Promise<void> {
    clearTimeout(this.#timer);
    if (this.#sending || this.status.kind === 'conflict') return;
    const save = this.#unanswered ?? this.#next();
    if (save === null) return;
    this.#unanswered = save;
    this.#sending = true;
    this.status = { kind: 'saving' };
    try {
      const { build, basedOn, saveId, changed } = save;
      const { version, savedAt } = await putBuild(build, basedOn, saveId, changed);
      this.#unanswered = null;
      this.version = version;
      if (this.#pending === null) {
        this.#keep(() => forgetUnsaved(build.id));
        this.status = { kind: 'saved', at: savedAt };
      } else {
        this.#later(0);
      }
    } catch (error) {
      this.#failed(error, save);
    } finally {
      this.#sending = false;
    }
  }

  /** Makes a save of what is in none yet. */
  #next(): Save | null {
    const build = this.#pending;
    if (build === null) return null;
    const changed = changesText(this.#labels);
    this.#pending = null;
    this.#labels = [];
    return { build, basedOn: this.version, saveId: crypto.randomUUID(), changed };
  }

  /** Whether closing the page now would lose work. */
  get wouldLose(): boolean {
    return !this.kept && (this.#pending ?? this.#unanswered) !== null;
  }

  stop(): void {
    clearTimeout(this.#timer);
  }

  #failed(error: unknown, save: Save): void {
    const theirs = currentOf(error);
    const why = error instanceof Error ? error.message : String(error);
    const passing = error instanceof ApiError && passes(error.status);
    if (!passing) {
      // It was not done: its changes are in no save again.
      this.#unanswered = null;
      this.#pending ??= save.build;
      this.#labels = [save.changed, ...this.#labels];
    }
    if (theirs !== null) this.status = { kind: 'conflict', theirs };
    else if (passing) {
      this.status = { kind: 'offline', why };
      this.#later(RETRY_MS);
    } else {
      const gone = error instanceof ApiError && error.status === 404;
      this.status = { kind: 'refused', why, gone };
    }
  }

  /** A save is sent whatever becomes of this. */
  #keep(work: () => Promise<void>): void {
    this.#shelf = this.#shelf.then(work).then(
      () => {
        this.kept = true;
      },
      () => {
        this.kept = false;
      },
    );
  }

  #later(ms: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.flush(), ms);
  }
}
