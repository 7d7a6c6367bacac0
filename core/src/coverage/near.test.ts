import { stageId } from '../../test/reference/places.ts';
import { describe, expect, test } from 'vitest';
import { directionOf } from '../geometry/direction.ts';
import type { Build } from '../design/schema.ts';
import { entryM } from '../geometry/ray.ts';
import { add, scale } from '../geometry/vec.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { fieldsOf } from './lampFields.ts';
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

  test('half a lens, half the light', () => {
    const car = demoBuild('ks-13');
    const eye = scale(directionOf(37, 3), 40);
    const halved: Build = {
      ...car,
      placements: car.placements.map((p) => ({ ...p, lensTransmission: 0.5 * p.lensTransmission })),
    };
    const whole = channelsNear(car, day(2), eye);
    expect(whole.some(({ cd }) => cd > 0)).toBe(true);
    for (const [i, { cd }] of channelsNear(halved, day(2), eye).entries())
      expect(cd).toBeCloseTo(0.5 * (whole[i]?.cd ?? 0), 6);
  });

  test('illuminance by hand: 1000 cd at 10 m in clear air is 10 lx less 1.5 ‰', () => {
    expect(illuminanceLx(1000, 10, 20_000)).toBeCloseTo(10 * 0.05 ** (10 / 20_000), 12);
    expect(illuminanceLx(1000, 100, 100)).toBeCloseTo(0.1 * 0.05, 12);
  });

  test('what stands behind the eye hides nothing from it', () => {
    const car = demoBuild('shore-medic-7');
    const { solids } = vehicleOf(car.vehicle);
    const shut = solids.filter(({ transmission }) => transmission === 0);
    let seen = 0;
    for (const one of car.placements.slice(0, 24)) {
      const alone: Build = { ...car, placements: [{ ...one, partnerId: null }] };
      const lamp = fieldsOf(alone).standing(one, [])[0];
      if (lamp === undefined) continue;
      const { centre } = lamp.placed;
      for (let bearing = 0; bearing < 360; bearing += 10) {
        const way = directionOf(bearing, -8);
        const ahead = shut.map((solid) => entryM(solid, centre, way)).filter((m) => Number.isFinite(m));
        const wallM = Math.min(...ahead.filter((m) => m > 0.2), Infinity);
        // On the body’s own side nothing arrives, wherever the eye is.
        if (!Number.isFinite(wallM) || ahead.some((m) => m <= 0.2) || lamp.beam(way) === 0) continue;
        const eye = add(centre, scale(way, 0.9 * wallM));
        for (const { cd, drive } of channelsNear(alone, day(3), eye)) {
          if (drive.moduleId !== lamp.placed.module.id) continue;
          seen++;
          expect(cd, `${one.id} ${bearing}°`).toBeGreaterThan(0);
        }
      }
    }
    expect(seen).toBeGreaterThan(3);
  });
});
