import type { Build } from '@flarik/core/design/schema';
import type * as Comlink from 'comlink';
import { DesignKeeper, type Holder } from './heldDesign';
import type { Started } from './spare';
import { WorkerLostError } from './supervision';

/** A worker that holds the open design. One that is lost is replaced, and asked again. */
export class DesignWorker<Api extends Holder> {
  readonly #start: () => Started<Api>;
  #started: Started<Api> | null = null;
  #keeper = new DesignKeeper();

  constructor(start: () => Started<Api>) {
    this.#start = start;
  }

  /**
   * Asks about a design: the worker gets the whole once, and then what changed.
   * @param run - asks; `heard` is to be called whenever the worker tells how far it is. Asked a second time when the worker is lost
   * @throws {WorkerLostError} it was lost twice
   */
  async ask<R>(build: Build, run: (api: Comlink.Remote<Api>, heard: () => void) => Promise<R>): Promise<R> {
    try {
      return await this.#once(build, run);
    } catch (error) {
      if (!(error instanceof WorkerLostError)) throw error;
      try {
        return await this.#once(build, run);
      } catch (again) {
        throw again instanceof WorkerLostError
          ? new WorkerLostError(`${again.message} It was started twice. Save, close other tabs and reload.`)
          : again;
      }
    }
  }

  async #once<R>(build: Build, run: (api: Comlink.Remote<Api>, heard: () => void) => Promise<R>): Promise<R> {
    const started = (this.#started ??= this.#start());
    try {
      this.#keeper.bring(started.api, build);
      return await run(started.api, started.heard);
    } catch (error) {
      // Others may have asked the same worker: the first that hears of its loss lets go of it.
      if (error instanceof WorkerLostError && this.#started === started) this.end();
      throw error;
    }
  }

  /** Ends the worker, whatever it does; the next question starts another. */
  end(): void {
    this.#started?.end();
    this.#started = null;
    this.#keeper = new DesignKeeper();
  }
}
