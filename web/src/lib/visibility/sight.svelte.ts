import type { MapQuantity } from '@flarik/core/coverage/map';
import type { RingOptions } from '@flarik/core/coverage/ring';
import type { Direction } from '@flarik/core/coverage/seen';
import { deltaOf } from '@flarik/core/design/delta';
import type { Build } from '@flarik/core/design/schema';
import type { State } from '@flarik/core/state/state';
import type { Approach } from '@flarik/core/design/approach';
import * as Comlink from 'comlink';
import { LatestRun } from '$lib/editor/latestRun.svelte';
import { startSight } from '$lib/workers/sight';

/** A build in a state, as every question about it begins. */
export interface Looked {
  readonly build: Build;
  readonly state: State;
}

/** What eyes, ground and air get of the light of a build in a state: worked out in the background, the latest only. */
export class Sight {
  readonly #worker = startSight();
  /** The design as the worker has it. */
  #sent: Build | null = null;
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
    }) => this.#told((tell) => this.#with(looked.build).map(looked.state, options, quantity, tell)),
  );
  readonly maps = new LatestRun(
    async ({
      build,
      states,
      options,
      quantity,
    }: {
      build: Build;
      states: readonly State[];
      options: Omit<RingOptions, 'elevationDeg'>;
      quantity: MapQuantity;
    }) => {
      const maps = await this.#told((tell) => this.#with(build).maps(states, options, quantity, tell));
      return states.flatMap((state, i) => {
        const map = maps[i];
        return map === undefined ? [] : [{ state, map }];
      });
    },
  );
  readonly hidden = new LatestRun(({ looked, direction }: { looked: Looked; direction: Direction }) =>
    this.#with(looked.build).hidden(looked.state, direction),
  );
  readonly approaches = new LatestRun(({ looked, list }: { looked: Looked; list: readonly Approach[] }) =>
    this.#told((tell) => this.#with(looked.build).approaches(looked.state, list, tell)),
  );
  readonly approach = new LatestRun(async ({ looked, approach }: { looked: Looked; approach: Approach }) => ({
    approach,
    ...(await this.#with(looked.build).approach(looked.state, approach)),
  }));
  readonly ground = new LatestRun(({ looked, stepM }: { looked: Looked; stepM: number }) =>
    this.#told((tell) => this.#with(looked.build).ground(looked.state, stepM, tell)),
  );
  readonly eyes = new LatestRun(({ looked, opticalRangeM }: { looked: Looked; opticalRangeM: number }) =>
    this.#with(looked.build).eyes(looked.state, opticalRangeM),
  );

  /** The worker with this design: it gets the whole once, and then what changed. */
  #with(build: Build): ReturnType<typeof startSight>['api'] {
    const { api } = this.#worker;
    if (this.#sent === null) void api.take(build);
    else if (this.#sent !== build) void api.edit(deltaOf(this.#sent, build));
    this.#sent = build;
    return api;
  }

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
