import { channelsNear } from '@flarik/core/coverage/near';
import { describe, expect, test } from 'vitest';
import { glowsAt, mirrored, underRoad } from './glow';
import { AIR, eyeBeside } from './stage';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { demoBuild } from '@flarik/core/test/reference/demo';

const car = demoBuild('ks-13');
const { vehicle } = lookupOf(car);
const eyeAt = (bearingDeg: number) => eyeBeside({ bearingDeg, distanceM: 20, heightM: 1.5 }, vehicle).at;

describe('lights as an eye sees them', () => {
  const state = { on: ['stage-2'], open: [], ambient: 'night' } as const;
  const near = channelsNear(car, state, eyeAt(0));
  const sizes = (air: (typeof AIR)[keyof typeof AIR]) =>
    new Map(glowsAt(near, null, air).map((g) => [g.at.join(), g.decades]));

  test('ten times the illuminance over the threshold is one step more, and day and fog leave less', () => {
    const [night, day, fog] = [sizes(AIR.night), sizes(AIR.day), sizes(AIR.fog)];
    expect(night.size).toBeGreaterThan(5);
    expect(day.size).toBeLessThanOrEqual(night.size);
    for (const [at, decades] of day) expect(night.get(at) ?? 0).toBeGreaterThan(decades);
    for (const [at, decades] of fog) expect(night.get(at) ?? 0).toBeGreaterThan(decades);
    const [one] = near.filter(({ cd }) => cd > 100);
    if (one === undefined) throw new Error('a lamp is seen');
    const [a, b] = [one, { ...one, cd: one.cd * 10 }].map(
      (c) => glowsAt([c], null, AIR.night)[0]?.decades ?? 0,
    );
    expect((b ?? 0) - (a ?? 0)).toBeCloseTo(1, 9);
  });

  test('what is dark at a moment, or turned away, is not drawn', () => {
    const back = channelsNear(car, state, eyeAt(180));
    const grille = (list: typeof near) => list.filter(({ drive }) => drive.placementId === 'grille-1');
    expect(glowsAt(grille(back), null, AIR.night)).toEqual([]);
    const lit = glowsAt(near, 0, AIR.night).length;
    expect(lit).toBeLessThan(glowsAt(near, null, AIR.night).length);
  });

  test('a wet road mirrors each below itself, and always weaker', () => {
    const eye = eyeAt(0);
    const below = mirrored(channelsNear(car, state, underRoad(eye)), eye);
    const straight = new Map(near.map((c) => [c.drive.channelId, c]));
    const seen = below.filter(({ cd }) => cd > 1);
    expect(seen.length).toBeGreaterThan(3);
    for (const { drive, centre, cd, distanceM } of seen) {
      const real = straight.get(drive.channelId);
      expect(centre[2]).toBeCloseTo(-(real?.centre[2] ?? NaN), 9);
      expect(distanceM).toBeGreaterThan(real?.distanceM ?? NaN);
      expect(cd).toBeLessThan(drive.peakCd / 2);
    }
  });
});
