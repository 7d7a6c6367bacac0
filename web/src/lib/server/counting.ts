import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { z } from 'zod';
import type { FindingCounts } from './countFindings';
import { log } from './log';

/** A check that takes longer is stopped, and said not to be counted. */
const LONGEST_MS = 20_000;
/** Saves that follow each other quicker than this are counted once, ms. */
const QUIET_MS = 1500;
/** Memory of the counting thread, MB. */
const MOST_MB = 512;

const Counts = z.strictObject({ blocks: z.int(), warns: z.int(), advises: z.int(), notes: z.int() });

/** A version of a build whose findings are to be counted. */
export interface Counted {
  readonly id: string;
  readonly version: number;
  readonly document: string;
}

/** What is done with a count; null when it took too long or failed. */
type Keep = (of: Counted, counts: FindingCounts | null) => Promise<void>;

/** Counts findings in a thread beside the server: one at a time, and of each build the latest only. */
export class Counting {
  /** By build, in the order they were asked for; each with the time from which it may be taken. */
  readonly #waiting = new Map<string, { readonly of: Counted; readonly fromMs: number }>();
  readonly #pool: Piscina | null;
  readonly #keep: Keep;
  readonly #longestMs: number;
  readonly #quietMs: number;
  #working: Promise<void> | null = null;
  #ended = false;

  /**
   * @param options - `file` holds the thread's code, without which nothing is counted; `longestMs` ends a count;
   * `quietMs` must pass after the last save of a build
   */
  constructor(keep: Keep, { file = threadFile(), longestMs = LONGEST_MS, quietMs = QUIET_MS } = {}) {
    this.#keep = keep;
    this.#longestMs = longestMs;
    this.#quietMs = quietMs;
    const there = existsSync(file);
    if (!there) log.warn({ file }, 'findings are not counted for the list: the counting thread is not built');
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

  /** Asks for a count; one that waits for the same build is no longer wanted. */
  ask(of: Counted): void {
    if (this.#pool === null || this.#ended) return;
    this.#waiting.delete(of.id);
    this.#waiting.set(of.id, { of, fromMs: performance.now() + this.#quietMs });
    this.#working ??= this.#work(this.#pool).finally(() => (this.#working = null));
  }

  /** Resolves when all that was asked for is counted. */
  async idle(): Promise<void> {
    while (this.#working !== null) await this.#working;
  }

  /** Stops at once, whatever is being counted. */
  async end(): Promise<void> {
    this.#ended = true;
    this.#waiting.clear();
    await this.#pool?.destroy();
  }

  async #work(pool: Piscina): Promise<void> {
    for (;;) {
      const next = await this.#take();
      if (next === null) return;
      const counts = await pool
        .run(next.document, { signal: AbortSignal.timeout(this.#longestMs) })
        .then((result: unknown) => Counts.parse(result))
        .catch((error: unknown) => {
          if (!this.#ended) log.error({ err: error, build: next.id }, 'findings could not be counted');
          return null;
        });
      if (this.#ended) return;
      await this.#keep(next, counts).catch((error: unknown) => {
        log.error({ err: error, build: next.id }, 'a count could not be stored');
      });
    }
  }

  /** The one asked for first, when it has been quiet for long enough; null when none waits. */
  async #take(): Promise<Counted | null> {
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
  const file = 'threads/countFindings.js';
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, file)) && dirname(folder) !== folder) folder = dirname(folder);
  return join(folder, file);
}
