import type { MapQuantity } from '@flarik/core/coverage/map';
import type { RingOptions } from '@flarik/core/coverage/ring';
import type { Direction } from '@flarik/core/coverage/seen';
import type { Approach } from '@flarik/core/design/approach';
import * as Comlink from 'comlink';
import { LatestRun } from '$lib/editor/latestRun.svelte';
import { startSight } from '$lib/workers/sight';
import type { Looked } from '$lib/workers/sight.worker';

/** What eyes, ground and air get of the light of a build in a state: worked out in the background, the latest only. */
export class Sight {
  readonly #worker = startSight();
  /** How far what is being worked out has come, 0 to 1; null when nothing is, or it is not known. */
  progress = $state<number | null>(null);

  readonly map = new LatestRun(
    ({
      looked,
      options,
      quantity,
    }: {
      looked: Looked;
      options: Omit<RingOptions, 'elevationDeg'>;
      quantity: MapQuantity;
    }) => this.#told((tell) => this.#worker.api.map(looked, options, quantity, tell)),
  );
  readonly hidden = new LatestRun(({ looked, direction }: { looked: Looked; direction: Direction }) =>
    this.#worker.api.hidden(looked, direction),
  );
  readonly approaches = new LatestRun(({ looked, list }: { looked: Looked; list: readonly Approach[] }) =>
    this.#told((tell) => this.#worker.api.approaches(looked, list, tell)),
  );
  readonly approach = new LatestRun(async ({ looked, approach }: { looked: Looked; approach: Approach }) => ({
    approach,
    ...(await this.#worker.api.approach(looked, approach)),
  }));
  readonly ground = new LatestRun(({ looked, stepM }: { looked: Looked; stepM: number }) =>
    this.#told((tell) => this.#worker.api.ground(looked, stepM, tell)),
  );
  readonly eyes = new LatestRun(({ looked, opticalRangeM }: { looked: Looked; opticalRangeM: number }) =>
    this.#worker.api.eyes(looked, opticalRangeM),
  );

  /** Ends the worker, whatever it does. */
  end(): void {
    this.#worker.end();
  }

  async #told<R>(run: (tell: (share: number) => void) => Promise<R>): Promise<R> {
    this.progress = 0;
    const tell = Comlink.proxy((share: number) => {
      this.progress = share;
    });
    try {
      return await run(tell);
    } finally {
      this.progress = null;
    }
  }
}
