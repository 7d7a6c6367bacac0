import { CATALOGUE } from '../fixture/catalogue/catalogue.ts';
import type { Fixture } from '../fixture/types.ts';
import type { PhotometryFile } from '../fixture/photometry/file.ts';
import type { Build } from './schema.ts';

/** An id that no fixture has yet, after a stem. */
export function freeFixtureId(build: Build, stem: string): string {
  const taken = new Set([...build.fixtures, ...CATALOGUE].map((f) => f.id));
  if (!taken.has(stem)) return stem;
  let n = 2;
  while (taken.has(`${stem}-${n}`)) n += 1;
  return `${stem}-${n}`;
}

/**
 * Takes fixtures of one's own into the build. One that has the id of an own fixture takes its place when its modules
 * are the same by id, so that lamps of it stay whole; else, and when the catalogue has the id, it is refused.
 *
 * @returns the build, and the ids that were refused
 */
export function importFixtures(
  build: Build,
  fixtures: readonly Fixture[],
): { readonly build: Build; readonly refused: readonly string[] } {
  const shipped = new Set(CATALOGUE.map((f) => f.id));
  const moduleIds = (f: Fixture): string => f.modules.map((m) => m.id).join(' ');
  const used = new Set(build.placements.map((p) => p.fixtureId));
  const own = new Map(build.fixtures.map((f) => [f.id, f]));
  const refused = fixtures
    .filter((f) => {
      const before = own.get(f.id);
      return (
        shipped.has(f.id) || (before !== undefined && used.has(f.id) && !sameShape(before, f, moduleIds))
      );
    })
    .map((f) => f.id);
  if (refused.length > 0) return { build, refused };
  for (const f of fixtures) own.set(f.id, f);
  return { build: { ...build, fixtures: [...own.values()] }, refused };
}

/** Whether lamps of one are lamps of the other: the same modules, and every colour still made. */
const sameShape = (a: Fixture, b: Fixture, moduleIds: (f: Fixture) => string): boolean =>
  moduleIds(a) === moduleIds(b) &&
  a.colourSlots <= b.colourSlots &&
  a.slotted === b.slotted &&
  Object.keys(a.outputs).every((colour) => colour in b.outputs);

/** Lamps of a fixture, which keep it from being taken away. */
export const lampsOf = (build: Build, fixtureId: string): number =>
  build.placements.filter((p) => p.fixtureId === fixtureId).length;

/** Takes an own fixture and the files attached to it away; one that is used stays. */
export const removeFixture = (build: Build, fixtureId: string): Build =>
  lampsOf(build, fixtureId) > 0
    ? build
    : {
        ...build,
        fixtures: build.fixtures.filter((f) => f.id !== fixtureId),
        photometry: build.photometry.filter((file) => file.fixtureId !== fixtureId),
      };

/** Attaches a photometric file; it takes the place of one for the same module. */
export const attachFile = (build: Build, file: PhotometryFile): Build => ({
  ...build,
  photometry: [
    ...build.photometry.filter((f) => f.fixtureId !== file.fixtureId || f.moduleId !== file.moduleId),
    file,
  ],
});

export const detachFile = (build: Build, fileId: string): Build => ({
  ...build,
  photometry: build.photometry.filter((f) => f.id !== fileId),
});
