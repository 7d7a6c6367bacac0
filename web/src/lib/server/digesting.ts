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
  /** By build, in the order they were asked for; each with the time from which it may be taken. */
  readonly #waiting = new Map<string, { readonly of: Digested; readonly fromMs: number }>();
  /** By document; the one made last stands last. */
  readonly #remembered = new Map<string, Digest>();
  readonly #pool: Piscina | null;
  readonly #keep: Keep;
  readonly #longestMs: number;
  readonly #quietMs: number;
  #working: Promise<void> | null = null;
  #ended = false;

  /**
   * @param options - `file` holds the thread's code, without which nothing is digested; `longestMs` ends one;
   * `quietMs` must pass after the last save of a build
   */
  constructor(keep: Keep, { file = threadFile(), longestMs = LONGEST_MS, quietMs = QUIET_MS } = {}) {
    this.#keep = keep;
    this.#longestMs = longestMs;
    this.#quietMs = quietMs;
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
    this.#waiting.set(of.id, { of, fromMs: performance.now() + this.#quietMs });
    this.#working ??= this.#work(this.#pool).finally(() => (this.#working = null));
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

  /** The one asked for first, when it has been quiet for long enough; null when none waits. */
  async #take(): Promise<Digested | null> {
    for (;;) {
      const [first] = this.#waiting.values();
      if (first === undefined) return null;
      const leftMs = first.fromMs - performance.now();
      if (leftMs <= 0) {
        this.#waiting.delete(first.of.id);
        return first.of;
      }
      await setTimeout(leftMs, undefined, { ref: false });
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
