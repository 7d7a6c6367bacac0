import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { Digest } from './digest';
import { log } from './log';

/** A check that takes longer is stopped, and its findings are said not to be counted. */
const LONGEST_MS = 45_000;
/** Saves that follow each other quicker than this are digested once, ms. */
const QUIET_MS = 4000;
/** A build that is worked on is not digested more often than this, ms: a digest may take seconds. */
const AGAIN_MS = 30_000;
const LEAST_WAIT_MS = 50;
/** Memory of the digesting thread, MB. */
const MOST_MB = 512;
/** So many digests are remembered by what they are of. */
const MOST_REMEMBERED = 60;

/** A version of a build that is to be digested. */
export interface Digested {
  readonly id: string;
  readonly version: number;
  /** Equal for builds that differ in nothing that a digest says: a copy, a restored revision, one that was named anew. */
  readonly document: string;
}

/** What is done with a digest; null when it took too long or failed. */
type Keep = (of: Digested, digest: Digest | null) => Promise<void>;

/** Digests builds in a thread beside the server: one at a time, and of each build the latest only. */
export class Digesting {
  /** By build, each with the time from which it may be taken. */
  readonly #waiting = new Map<string, { readonly of: Digested; readonly fromMs: number }>();
  /** By document; the one made last stands last. */
  readonly #remembered = new Map<string, Digest>();
  readonly #pool: Piscina | null;
  readonly #keep: Keep;
  readonly #longestMs: number;
  readonly #quietMs: number;
  readonly #againMs: number;
  /** By build: when it was digested last. Those of long ago are let go. */
  readonly #lastMs = new Map<string, number>();
  #working: Promise<void> | null = null;
  #ended = false;

  /**
   * @param options - `file` holds the thread's code, without which nothing is digested; `longestMs` ends one;
   * `quietMs` must pass after the last save of a build, `againMs` after its last digest
   */
  constructor(
    keep: Keep,
    { file = threadFile(), longestMs = LONGEST_MS, quietMs = QUIET_MS, againMs = AGAIN_MS } = {},
  ) {
    this.#keep = keep;
    this.#longestMs = longestMs;
    this.#quietMs = quietMs;
    this.#againMs = againMs;
    const there = existsSync(file);
    if (!there)
      log.warn(
        { file },
        'the list of builds shows no findings and no pictures: the digesting thread is not built',
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
    const again = (this.#lastMs.get(of.id) ?? -Infinity) + this.#againMs;
    this.#waiting.set(of.id, { of, fromMs: Math.max(performance.now() + this.#quietMs, again) });
    this.#working ??= this.#work(this.#pool).finally(() => (this.#working = null));
  }

  /** A build that is no more needs no digest. */
  drop(id: string): void {
    this.#waiting.delete(id);
    this.#lastMs.delete(id);
  }

  /** Resolves when all that was asked for is done. */
  async idle(): Promise<void> {
    while (this.#working !== null) await this.#working;
  }

  /** Stops at once, whatever is under way. */
  async end(): Promise<void> {
    this.#ended = true;
    this.#waiting.clear();
    await this.#pool?.destroy();
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
    const key = createHash('sha256').update(document).digest('base64');
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
      // What is asked for meanwhile may be due before it.
      await setTimeout(Math.min(leftMs, Math.max(this.#quietMs, LEAST_WAIT_MS)), undefined, { ref: false });
    }
  }
}

/** Where `npm run build` puts the thread's code: in a folder beside that of the server's, of which this becomes a part. */
function threadFile(): string {
  const file = 'threads/digest.js';
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, file)) && dirname(folder) !== folder) folder = dirname(folder);
  return join(folder, file);
}
