import type { SceneMember } from '@flarik/core/coverage/scene';
import type { SceneVehicle } from '@flarik/core/design/scene';
import type { Build } from '@flarik/core/design/schema';
import { loadBuild } from '$lib/client';

/** The other vehicles of a scene with their builds, each fetched once when it is first asked for. */
export class SceneMembers {
  /** Builds that were fetched; null for one that is gone. */
  loaded = $state.raw<ReadonlyMap<string, Build | null>>(new Map());
  readonly #asked = new Set<string>();

  /** Fetches what is not known yet. */
  want(scene: readonly SceneVehicle[]): void {
    for (const { buildId } of scene)
      if (!this.#asked.has(buildId)) {
        this.#asked.add(buildId);
        void this.#fetch(buildId);
      }
  }

  /** Those whose builds are there. */
  of(scene: readonly SceneVehicle[]): SceneMember[] {
    return scene.flatMap((vehicle) => {
      const build = this.loaded.get(vehicle.buildId);
      return build === undefined || build === null ? [] : [{ vehicle, build }];
    });
  }

  async #fetch(id: string): Promise<void> {
    const build = await loadBuild(id, fetch).then(
      (saved): Build => saved.build,
      () => null,
    );
    this.loaded = new Map([...this.loaded, [id, build]]);
  }
}
