import type { Brief, WishData } from './brief.ts';
import type { Build } from './schema.ts';

/** Writes down what the agency said. */
export const changeBrief = (build: Build, patch: Partial<Omit<Brief, 'constraints'>>): Build => ({
  ...build,
  brief: { ...build.brief, ...patch },
});

const withWishes = (build: Build, constraints: WishData[]): Build => ({
  ...build,
  brief: { ...build.brief, constraints },
});

export const addWish = (build: Build, wish: WishData): Build =>
  withWishes(build, [...build.brief.constraints, wish]);

/** Puts a wish in the place of the one that has its id. */
export const changeWish = (build: Build, wish: WishData): Build =>
  withWishes(
    build,
    build.brief.constraints.map((w) => (w.id === wish.id ? wish : w)),
  );

export const removeWish = (build: Build, id: string): Build =>
  withWishes(
    build,
    build.brief.constraints.filter((w) => w.id !== id),
  );
