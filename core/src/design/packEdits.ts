import type { RulePack } from './rulePack.ts';
import type { Build } from './schema.ts';

/** Chooses a pack for a build; one of its id is replaced where it stands. */
export const choosePack = (build: Build, pack: RulePack): Build => ({
  ...build,
  rulePacks: build.rulePacks.some(({ id }) => id === pack.id)
    ? build.rulePacks.map((p) => (p.id === pack.id ? pack : p))
    : [...build.rulePacks, pack],
});

export const removePack = (build: Build, id: string): Build => ({
  ...build,
  rulePacks: build.rulePacks.filter((p) => p.id !== id),
});
