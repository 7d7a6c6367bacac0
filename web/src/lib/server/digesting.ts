import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { setTimeout } from 'node:timers/promises';
import { Piscina } from 'piscina';
import { z } from 'zod';
import { Digest } from './digest';
import { log } from './log';
import { threadFile } from './threadFile';

/** A check that takes longer is stopped, and its findings are said not to be counted. */
const LONGEST_MS = 45_000;
/** Saves that follow each other quicker than this are digested once, ms. */
const QUIET_MS = 4000;
/** What is saved no more for so long is digested though nobody looks at the list, ms. */
const ALONE_MS = 120_000;
/** A build that is worked on is not digested more often than this, ms: a digest may take seconds. */
const AGAIN_MS = 30_000;
/** What a digest says nothing of: as if all builds had the same. */
const NAMELESS = { id: '', name: '', notes: '' };
/** Memory of the digesting thread, MB. */
const MOST_MB = 512;
/** So many digests are remembered by what they are of. */
const MOST_REMEMBERED = 60;

/** A version of a build that is to be digested. */
export interface Digested {
  readonly id: string;
  readonly version: number;
  /** The build, as JSON text. */
  readonly document: string;
}

interface Waiting {
  readonly of: Digested;
  readonly askedMs: number;
  /** The time from which it may be taken, ms. */
  readonly fromMs: number;
}

/** What is done with a digest; null when it took too long or failed. */
type Keep = (of: Digested, digest: Digest | null) => Promise<void>;

/**
 * Digests builds in a thread beside the server: one at a time, and of each build the latest only. It takes
 * what somebody wants to see, and else what nobody has saved for a while.
 */
export class Digesting {
  /** By build. */
  readonly #waiting = new Map<string, Waiting>();
  /** By document; the one made last stands last. */
  readonly #remembered = new Map<string, Digest>();
  readonly #pool: Piscina | null;
  readonly #keep: Keep;
  readonly #longestMs: number;
  readonly #quietMs: number;
  readonly #aloneMs: number;
  readonly #againMs: number;
  /** By build: when it was digested last. Those of long ago are let go. */
  readonly #lastMs = new Map<string, number>();
  #working: Promise<void> | null = null;
  /** Ends the wait for the next that is due. */
  #waking = new AbortController();
  #ended = false;

  /**
   * @param options - `file` holds the thread's code, without which nothing is digested; `longestMs` ends one;
   * `quietMs` must pass after the last save of a build, `aloneMs` where nobody looks, `againMs` after its last digest
   */
  constructor(
    keep: Keep,
    {
      file = threadFile('digest'),
      longestMs = LONGEST_MS,
      quietMs = QUIET_MS,
      aloneMs = ALONE_MS,
      againMs = AGAIN_MS,
    } = {},
  ) {
    this.#keep = keep;
    this.#longestMs = longestMs;
    this.#quietMs = quietMs;
    this.#aloneMs = aloneMs;
    this.#againMs = againMs;
    const there = existsSync(file);
    if (!there)
      log.warn(
        { file },
        'the list of builds shows no findings and no previews: the digesting thread is not built',
      );
    this.#pool = there
      ? new Piscina({
          filename: file,
          minThreads: 0,
          maxThreads: 1,
          idleTimeout: 30_000,
          resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
        })
      : null;
  }

  /** Asks for a digest; one that waits for the same build is no longer wanted. */
  ask(of: Digested): void {
    if (this.#pool === null || this.#ended) return;
    this.#waiting.delete(of.id);
    const askedMs = performance.now();
    this.#waiting.set(of.id, { of, askedMs, fromMs: this.#due(of.id, askedMs + this.#aloneMs) });
    this.#wake();
    this.#working ??= this.#work(this.#pool).finally(() => (this.#working = null));
  }

  /** Somebody looks at the list of builds: what waits is digested as soon as it is quiet. */
  hurry(): void {
    for (const [id, { of, askedMs }] of this.#waiting)
      this.#waiting.set(id, { of, askedMs, fromMs: this.#due(id, askedMs + this.#quietMs) });
    this.#wake();
  }

  /** A build that is no more needs no digest. */
  drop(id: string): void {
    this.#waiting.delete(id);
    this.#lastMs.delete(id);
    this.#wake();
  }

  /** Resolves when all that was asked for is done. */
  async idle(): Promise<void> {
    while (this.#working !== null) await this.#working;
  }

  /** Stops at once, whatever is under way. */
  async end(): Promise<void> {
    this.#ended = true;
    this.#waiting.clear();
    this.#wake();
    await this.#pool?.destroy();
  }

  /** When a build may be digested that is not wanted before, ms. */
  #due(id: string, wantedMs: number): number {
    return Math.max(wantedMs, (this.#lastMs.get(id) ?? -Infinity) + this.#againMs);
  }

  #wake(): void {
    this.#waking.abort();
    this.#waking = new AbortController();
  }

  async #work(pool: Piscina): Promise<void> {
    for (;;) {
      const next = await this.#take();
      if (next === null) return;
      const digest = await this.#digest(pool, next);
      if (this.#ended) return;
      const now = performance.now();
      for (const [id, ms] of this.#lastMs) if (now - ms > this.#againMs) this.#lastMs.delete(id);
      this.#lastMs.set(next.id, now);
      await this.#keep(next, digest).catch((error: unknown) => {
        log.error({ err: error, build: next.id }, 'a digest could not be stored');
      });
    }
  }

  async #digest(pool: Piscina, { id, document }: Digested): Promise<Digest | null> {
    const key = createHash('sha256').update(nameless(document)).digest('base64');
    const known = this.#remembered.get(key);
    if (known !== undefined) return known;
    try {
      const signal = AbortSignal.timeout(this.#longestMs);
      const made = Digest.parse(await pool.run(document, { signal }));
      this.#remembered.set(key, made);
      const [oldest] = this.#remembered.keys();
      if (oldest !== undefined && this.#remembered.size > MOST_REMEMBERED) this.#remembered.delete(oldest);
      return made;
    } catch (error) {
      if (!this.#ended) log.error({ err: error, build: id }, 'a build could not be digested');
      return null;
    }
  }

  /** The one whose time comes first, when it has come; null when none waits. */
  async #take(): Promise<Digested | null> {
    for (;;) {
      const waiting = [...this.#waiting.values()];
      if (waiting.length === 0) return null;
      const first = waiting.reduce((a, b) => (b.fromMs < a.fromMs ? b : a));
      const leftMs = first.fromMs - performance.now();
      if (leftMs <= 0) {
        this.#waiting.delete(first.of.id);
        return first.of;
      }
      const { signal } = this.#waking;
      await setTimeout(leftMs, undefined, { ref: false, signal }).catch(() => undefined);
    }
  }
}

/** Equal for builds that differ in nothing that a digest says: a copy, a restored revision, one that was named anew. */
const nameless = (document: string): string =>
  JSON.stringify({ ...z.looseObject({}).parse(JSON.parse(document)), ...NAMELESS });
