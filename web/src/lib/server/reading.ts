import { InputError } from '@flarik/core/words/errors';
import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import type { Filed } from './filed';
import { log } from './log';
import read, { type ReadResult, type ReadJob } from './read';
import { threadFile } from './threadFile';

/** Nobody waits longer for what they sent to be read, the wait for their turn included, ms. */
const LONGEST_MS = 20_000;
/** Memory of a reading thread, MB. */
const MOST_MB = 512;

/** What was sent was not read in time: it may be at fault itself, or have waited behind what was. */
export class ReadingBusyError extends Error {
  constructor(what: string, waitedMs: number, cause: unknown) {
    super(
      `The server did not get to read the ${what} within ${waitedMs / 1000} s. Nothing was changed; try again in a moment.`,
      { cause },
    );
    this.name = 'ReadingBusyError';
  }
}

/** Reads builds in threads beside the server, so that who only asks does not wait for who saves. */
export class Reading {
  readonly #pool: Piscina<ReadJob, ReadResult> | null;
  readonly #longestMs: number;

  /** @param options - `file` holds the threads' code, without which the server reads by itself; `longestMs` ends one; `keepWarm`: one stands ready while nothing is asked */
  constructor({ file = threadFile('read'), longestMs = LONGEST_MS, keepWarm = true } = {}) {
    this.#longestMs = longestMs;
    const there = existsSync(file);
    if (!there)
      log.warn({ file }, 'the reading thread is not built: the server reads builds on its main thread');
    this.#pool = there
      ? new Piscina({
          filename: file,
          minThreads: keepWarm ? 1 : 0,
          maxThreads: Math.max(1, availableParallelism() - 1),
          idleTimeout: 30_000,
          resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
        })
      : null;
  }

  /**
   * Reads a build from outside.
   * @throws {InputError} what is wrong and where
   * @throws {ReadingBusyError} it was not read in time
   */
  async read(unread: ReadJob): Promise<Filed> {
    const done = await this.#run(unread);
    switch (done.kind) {
      case 'read':
        // A thread hands over bytes, not a buffer.
        return { ...done.filed, packed: Buffer.from(done.filed.packed) };
      case 'refused':
        throw new InputError(done.path, done.reason);
    }
  }

  /** Stops at once, whatever is under way. */
  end = async (): Promise<void> => this.#pool?.destroy();

  async #run(unread: ReadJob): Promise<ReadResult> {
    if (this.#pool === null) return read(unread);
    const signal = AbortSignal.timeout(this.#longestMs);
    try {
      return await this.#pool.run(unread, { signal });
    } catch (error) {
      throw signal.aborted ? new ReadingBusyError(unread.what, this.#longestMs, error) : error;
    }
  }
}
