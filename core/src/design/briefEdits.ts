import type { Brief, RequirementData } from './brief.ts';
import type { Build } from './schema.ts';

/** Writes down what the agency said. */
export const changeBrief = (build: Build, patch: Partial<Omit<Brief, 'constraints'>>): Build => ({
  ...build,
  brief: { ...build.brief, ...patch },
});

const withWishes = (build: Build, constraints: RequirementData[]): Build => ({
  ...build,
  brief: { ...build.brief, constraints },
});

export const addRequirement = (build: Build, wish: RequirementData): Build =>
  withWishes(build, [...build.brief.constraints, wish]);

/** Puts a wish in the place of the one that has its id. */
export const changeRequirement = (build: Build, wish: RequirementData): Build =>
  withWishes(
    build,
    build.brief.constraints.map((w) => (w.id === wish.id ? wish : w)),
  );

export const removeRequirement = (build: Build, id: string): Build =>
  withWishes(
    build,
    build.brief.constraints.filter((w) => w.id !== id),
  );
