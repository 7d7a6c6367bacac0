import type { SceneVehicle } from './scene.ts';
import type { Build } from './schema.ts';

const withVehicles = (build: Build, scene: SceneVehicle[]): Build => ({ ...build, scene });

/** From one vehicle of a scene to the next, back and aside, m: none hides the one before it from behind. */
const BACK_M = 10;
const ASIDE_M = 3.5;

/** Brings another build's vehicle to the scene, behind the last one and to the left of it. */
export const addToScene = (
  build: Build,
  { id, buildId, name }: Pick<SceneVehicle, 'id' | 'buildId' | 'name'>,
): Build =>
  withVehicles(build, [
    ...build.scene,
    {
      id,
      buildId,
      name,
      aheadM: -BACK_M * (build.scene.length + 1),
      leftM: ASIDE_M * (build.scene.length + 1),
      turnedDeg: 0,
      on: ['stage-2'],
      inStep: [],
    },
  ]);

export const changeInScene = (
  build: Build,
  id: string,
  patch: Partial<Omit<SceneVehicle, 'id' | 'buildId'>>,
): Build =>
  withVehicles(
    build,
    build.scene.map((v) => (v.id === id ? { ...v, ...patch } : v)),
  );

export const removeFromScene = (build: Build, id: string): Build =>
  withVehicles(
    build,
    build.scene.filter((v) => v.id !== id),
  );
