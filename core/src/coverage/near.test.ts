import { stageId } from '../../test/reference/places.ts';
import { describe, expect, test } from 'vitest';
import { directionOf } from '../geometry/direction.ts';
import { scale } from '../geometry/vec.ts';
import { stateWith } from '../state/state.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { channelsNear, illuminanceLx } from './near.ts';
import { litChannels } from './ring.ts';

const day = (stage: number) => stateWith({ on: [stageId(stage)] });

describe('close by', () => {
  test('far away it is the ring; near, each lamp has its own direction', () => {
    const build = demoBuild('ks-13');
    const bearing = 37;
    const ring = new Map(
      litChannels(build, day(2), {
        // Not level: along the roof a hair's breadth decides what is hidden.
        elevationDeg: 3,
        colour: null,
        level: 'any',
        upperAboveM: 1.5,
      }).map(({ drive, share }) => [drive.channelId, drive.peakCd * (share[bearing] ?? 0)]),
    );
    const far = channelsNear(build, day(2), scale(directionOf(bearing, 3), 200_000));
    for (const { drive, cd } of far) expect(Math.abs(cd - (ring.get(drive.channelId) ?? 0))).toBeLessThan(1);
  });

  test('illuminance by hand: 1000 cd at 10 m in clear air is 10 lx less 1.5 ‰', () => {
    expect(illuminanceLx(1000, 10, 20_000)).toBeCloseTo(10 * 0.05 ** (10 / 20_000), 12);
    expect(illuminanceLx(1000, 100, 100)).toBeCloseTo(0.1 * 0.05, 12);
  });
});
