import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import type { Build } from '../design/schema.ts';
import { posesOf } from '../state/state.ts';
import { defaultSpec } from '../vehicle/spec.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { fieldsOf } from './lampFields.ts';
import { PoseClasses } from './poseClasses.ts';

const every = (build: Build) => new Set(build.placements.map(({ id }) => id));

/** All that some lamps send, and how high they stand, in figures. */
const plain = (
  build: Build,
  lamps: ReadonlySet<string>,
  open: readonly string[],
  degs: readonly number[],
): string =>
  JSON.stringify(
    degs.map((deg) =>
      build.placements
        .filter(({ id }) => lamps.has(id))
        .map((p) =>
          fieldsOf(build)
            .of(p, open, deg)
            .map(({ heightM, share }) => [heightM, ...share]),
        ),
    ),
  );

test.each(['shore-medic-7', 'ks-12', 'lift-bridge-crew'] as const)(
  '%s: poses are of one class exactly where every figure is the same',
  (name) => {
    const build = demoBuild(name);
    for (const lamps of [every(build), new Set([...every(build)].slice(0, 3)), new Set<string>()]) {
      const classes = new PoseClasses(build, lamps, [0, 5]);
      const poses = posesOf(build);
      const figures = poses.map((open) => plain(build, lamps, open, [0, 5]));
      for (const [i, open] of poses.entries())
        for (const [k, other] of poses.entries())
          expect(classes.of(open) === classes.of(other), `${open.join()} and ${other.join()}`).toBe(
            figures[i] === figures[k],
          );
    }
  },
);

test.each(['shore-medic-7', 'ks-12'] as const)(
  '%s: a class means the same, for lamps told apart by both, where more lamps or others are told apart',
  (name) => {
    const build = demoBuild(name);
    const all = every(build);
    for (const placement of build.placements) {
      const lamp = new Set([placement.id]);
      const [few, many] = [new PoseClasses(build, lamp, [0]), new PoseClasses(build, all, [0])];
      const poses = posesOf(build).map((open) => ({
        few: few.of(open),
        many: many.of(open),
        sends: plain(build, lamp, open, [0]),
      }));
      for (const a of poses)
        for (const b of poses) if (a.few === b.many) expect(a.sends, placement.id).toBe(b.sends);
    }
  },
);

test('a lamp that is raised is of another class though it sends the same: rules tell upper from lower', () => {
  const build = put({ ...emptyBuild(), vehicle: defaultSpec('pickup', ['mast-board']) }, 'top', {
    zone: 'mast-rear',
    vM: 0.2,
  });
  const up =
    vehicleOf(build.vehicle)
      .parts.find(({ kind }) => kind === 'mast')
      ?.stops.map(({ id }) => id) ?? [];
  expect(up).toHaveLength(1);
  const [low, raised] = [[], up].map((open) =>
    build.placements.flatMap((p) => fieldsOf(build).of(p, open, 0)).map(({ share }) => share),
  );
  const classes = new PoseClasses(build, every(build), [0]);
  expect(raised).toEqual(low);
  expect(classes.of(up)).not.toBe(classes.of([]));
});
