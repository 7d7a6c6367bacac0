import type { MapQuantity } from '@flarik/core/coverage/map';
import type { SceneMember } from '@flarik/core/coverage/scene';
import type { RingOptions } from '@flarik/core/coverage/ring';
import type { Direction } from '@flarik/core/coverage/seen';
import type { Build } from '@flarik/core/design/schema';
import type { State } from '@flarik/core/state/state';
import type { Approach } from '@flarik/core/design/approach';
import type { Junction } from '@flarik/core/sight/junction';
import type { WorkPlane } from '@flarik/core/sight/workPlace';
import type { Ambient } from '@flarik/core/words/ambient';
import * as Comlink from 'comlink';
import { LatestRun } from './latestRun.svelte';
import { DesignWorker } from '$lib/workers/designWorker';
import { startSight } from '$lib/workers/sight';

/** A build in a state, as every question about it begins. */
export interface Looked {
  readonly build: Build;
  readonly state: State;
}

/** A state of a little map, by the name it has there. */
export interface LittleState {
  readonly title: string;
  readonly state: State;
}

type Api = ReturnType<typeof startSight>['api'];

/** What eyes, ground and air get of the light of a build in a state: worked out in the background, the latest only. */
export class Sight {
  readonly #worker = new DesignWorker(startSight);
  /** Who waits for an answer, to be told when it is given up. */
  readonly #waiting = new Set<(reason: Error) => void>();
  /** Whoever waits stopped it. */
  stopped = $state(false);
  /** Counts how often it was begun anew, for those who ask. */
  round = $state(0);
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
    }) => this.#ask(looked.build, (api, tell) => api.map(looked.state, options, quantity, tell)),
  );
  readonly maps = new LatestRun(
    async ({
      build,
      states,
      options,
      quantity,
    }: {
      build: Build;
      states: readonly LittleState[];
      options: Omit<RingOptions, 'elevationDeg'>;
      quantity: MapQuantity;
    }) => {
      const asked = states.map(({ state }) => state);
      const maps = await this.#ask(build, (api, tell) => api.maps(asked, options, quantity, tell));
      return states.flatMap((little, i) => {
        const map = maps[i];
        return map === undefined ? [] : [{ ...little, map }];
      });
    },
  );
  readonly hidden = new LatestRun(({ looked, direction }: { looked: Looked; direction: Direction }) =>
    this.#ask(looked.build, (api) => api.hidden(looked.state, direction)),
  );
  readonly approaches = new LatestRun(({ looked, list }: { looked: Looked; list: readonly Approach[] }) =>
    this.#ask(looked.build, (api, tell) => api.approaches(looked.state, list, tell)),
  );
  readonly approach = new LatestRun(async ({ looked, approach }: { looked: Looked; approach: Approach }) => ({
    approach,
    ...(await this.#ask(looked.build, (api, tell) => api.approach(looked.state, approach, tell))),
  }));
  readonly wouldGain = new LatestRun(
    async ({ looked, approach }: { looked: Looked; approach: Approach }) => ({
      looked,
      approach,
      more: await this.#ask(looked.build, (api, tell) => api.wouldGain(looked.state, approach, tell)),
    }),
  );
  readonly junction = new LatestRun(({ looked, junction }: { looked: Looked; junction: Junction }) =>
    this.#ask(looked.build, (api) => api.junction(looked.state, junction)),
  );
  readonly ground = new LatestRun(({ looked, stepM }: { looked: Looked; stepM: number }) =>
    this.#ask(looked.build, (api, tell) => api.ground(looked.state, stepM, tell)),
  );
  readonly placeLamps = new LatestRun(
    async ({ looked, id, place }: { looked: Looked; id: string; place: WorkPlane }) => ({
      id,
      lamps: await this.#ask(looked.build, (api) => api.placeLamps(looked.state, place)),
    }),
  );
  readonly litGround = new LatestRun(({ looked }: { looked: Looked }) =>
    this.#ask(looked.build, (api, tell) => api.litGround(looked.state, tell)),
  );
  readonly litScene = new LatestRun(
    async ({
      build,
      members,
      ambient,
    }: {
      build: Build;
      members: readonly SceneMember[];
      ambient: Ambient;
    }) => {
      const shares = await this.#ask(build, (api, tell) => api.litScene(members, ambient, tell));
      return members.map(({ vehicle }, i) => ({ vehicle, shares: shares[i] ?? [] }));
    },
  );
  readonly redundant = new LatestRun(({ build }: { build: Build }) =>
    this.#ask(build, (api, tell) => api.redundant(tell)),
  );
  readonly eyes = new LatestRun(({ looked, opticalRangeM }: { looked: Looked; opticalRangeM: number }) =>
    this.#ask(looked.build, (api, tell) => api.eyes(looked.state, opticalRangeM, tell)),
  );

  /** Gives up what is being worked out; `again` begins anew. */
  stop(): void {
    this.#worker.end();
    this.stopped = true;
    for (const giveUp of this.#waiting) giveUp(new Error('it was stopped'));
  }

  again(): void {
    this.stopped = false;
    this.round++;
  }

  /** Ends the worker, whatever it does. */
  end(): void {
    this.#worker.end();
  }

  /** Asks the worker about this design: it gets the whole once, and then what changed. */
  async #ask<R>(build: Build, run: (api: Api, tell: (share: number) => void) => Promise<R>): Promise<R> {
    this.stopped = false;
    let giveUp: (reason: Error) => void = () => undefined;
    const stopped = new Promise<never>((_, reject) => (giveUp = reject));
    this.#waiting.add(giveUp);
    const tell = (heard: () => void) => (share: number) => {
      heard();
      // What was given up may still have told something.
      if (this.#waiting.has(giveUp)) this.progress = share;
    };
    try {
      const answer = this.#worker.ask(build, (api, heard) => run(api, Comlink.proxy(tell(heard))));
      return await Promise.race([answer, stopped]);
    } finally {
      this.#waiting.delete(giveUp);
      if (this.#waiting.size === 0) this.progress = null;
    }
  }
}
