import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { stageId } from '../../test/reference/places.ts';
import { allPoses } from '../../test/reference/poses.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { fieldsOf } from './lampFields.ts';
import type { StopsOf } from './lampPoses.ts';
import { poseDark } from './poseDark.ts';
import { FACE_BEARINGS } from './sectors.ts';
import type { Build } from '../design/schema.ts';
import { highestCd, type Drive } from '../resolve/channels.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { drivenIn } from '../state/driven.ts';
import { stopsWithShut } from '../vehicle/vehicle.ts';
import { FACES, type Face } from '../words/face.ts';

/** Whether a pose leaves a face dark: lamp by lamp and bearing by bearing. */
function isDark(
  build: Build,
  drives: readonly Drive[],
  face: Face,
  aboveCd: number,
  open: string[],
): boolean {
  return drives.every((drive) => {
    const p = build.placements.find(({ id }) => id === drive.placementId);
    const field = (p === undefined ? [] : fieldsOf(build).of(p, open, 0)).find(
      ({ moduleId }) => moduleId === drive.moduleId,
    );
    return FACE_BEARINGS[face].every((b) => highestCd(drive) * (field?.share[b] ?? 0) <= aboveCd);
  });
}

describe('the search for a pose that leaves a face dark', () => {
  test.each([
    ['ks-12', 3, 0, 1],
    ['coast-watch', 2, 0, 0],
    // The last of them look to the rear from beside the barn doors.
    ['shore-medic-7', 3, 48, 2],
  ] as const)(
    'agrees with trying every pose, with some of the lamps of %s alone',
    (name, stage, from, atOnce) => {
      const build = demoBuild(name);
      const all = drivenIn(build, { on: [stageId(stage)], ambient: 'day' }).slice(from);
      const poses = allPoses(build);
      let most = 0;
      fc.assert(
        fc.property(
          fc.array(fc.nat(all.length - 1), { minLength: 1, maxLength: 4 }),
          fc.constantFrom(...FACES),
          fc.constantFrom(1, 10, 100, 1000),
          (picked, face, aboveCd) => {
            const drives = all.filter((_, i) => picked.includes(i));
            const found = poseDark(build, drives, face, aboveCd, 0);
            const darkIn = (open: readonly string[]) => isDark(build, drives, face, aboveCd, [...open]);
            if (found.found !== 'pose') {
              expect(found.found).toBe('none');
              expect(poses.some(darkIn)).toBe(false);
              return;
            }
            expect(darkIn(found.open)).toBe(true);
            most = Math.max(most, found.open.length);
            for (const stop of found.open) expect(darkIn(found.open.filter((s) => s !== stop))).toBe(false);
          },
        ),
        { numRuns: 60, seed: 8 },
      );
      expect(most).toBeGreaterThanOrEqual(atOnce);
    },
  );

  test('parts stand only where they may, and a search without allowance says so', () => {
    const build = demoBuild('ks-12');
    const hatch = lookupOf(build).vehicle.parts.find(({ id }) => id === 'hatch');
    const all = drivenIn(build, { on: [stageId(3)], ambient: 'day' });
    const hidden = all.find((drive) => {
      const dark = poseDark(build, [drive], 'rear', 10, 0);
      return (
        dark.found === 'pose' && dark.open.length === 1 && hatch?.stops.some(({ id }) => id === dark.open[0])
      );
    });
    if (hidden === undefined) throw new Error('the raised hatch hides a lamp to the rear');
    const shut: StopsOf = (part) => (part === hatch ? [null] : stopsWithShut(part));
    expect(poseDark(build, [hidden], 'rear', 10, 0, { stopsOf: shut })).toEqual({ found: 'none' });
    expect(poseDark(build, [hidden], 'rear', 10, 0, { allowance: 0 })).toEqual({ found: 'unknown' });
  });
});
