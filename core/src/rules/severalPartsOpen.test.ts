import { describe, expect, test } from 'vitest';
import { poseAbove } from '../coverage/poseAbove.ts';
import { FACE_BEARINGS } from '../coverage/sectors.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { stateWith } from '../state/state.ts';
import { severalPartsOpen } from './severalPartsOpen.ts';
import type { LightLimit } from './shown.ts';
import { LEVEL_DEG, Situation } from './situation.ts';
import { about } from './subject.ts';

const pumper = demoBuild('tunnel-pumper-3');
const at = new Situation(pumper, stateWith({ on: ['stage-3'] }), 1.5);
const limit = (patch: Partial<LightLimit>): LightLimit => ({
  subjects: [about('topic', 'white rear')],
  colour: 'white',
  face: 'rear',
  aboveCd: 100,
  of: 'lamp',
  lamps: 'all',
  counts: () => true,
  ...patch,
});
const white = at.drives('all').filter((d) => d.colour === 'white');
const lamps = [...new Set(white.map((d) => d.placementId))];

describe('limits looked at with several parts open together', () => {
  test('lamp by lamp: the poses of each that passes it, and of no other', () => {
    const mine = lamps.flatMap((id) => {
      const found = poseAbove(
        pumper,
        white.filter((d) => d.placementId === id),
        FACE_BEARINGS.rear,
        100,
        LEVEL_DEG,
      );
      return found.found === 'pose' ? [found.open] : [];
    });
    expect(lamps.length).toBeGreaterThan(1);
    expect(severalPartsOpen(at, limit({}))).toEqual({ poses: mine, inconclusive: [] });
    expect(severalPartsOpen(at, limit({ aboveCd: 1e9 }))).toEqual({ poses: [], inconclusive: [] });
  });

  test('as a sum they pass what each of them keeps', () => {
    const brightest = (of: LightLimit['of'], aboveCd: number): number =>
      severalPartsOpen(at, limit({ of, aboveCd, face: 'left' })).poses.length;
    let aboveCd = 1;
    while (aboveCd < 1e7 && brightest('lamp', aboveCd) > 0) aboveCd *= 1.5;
    expect(aboveCd).toBeGreaterThan(1);
    expect(brightest('lamp', aboveCd)).toBe(0);
    expect(brightest('sum', aboveCd / 1.5)).toBe(1);
  });

  test('only what counts is looked at', () => {
    const [first] = lamps;
    const one = severalPartsOpen(at, limit({ aboveCd: 0.01, counts: (d) => d.placementId === first }));
    expect(one.poses.length).toBeLessThanOrEqual(1);
    expect(severalPartsOpen(at, limit({ aboveCd: 0.01, colour: 'purple' }))).toEqual({
      poses: [],
      inconclusive: [],
    });
  });
});
