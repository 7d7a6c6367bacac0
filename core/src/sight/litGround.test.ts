import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { stateWith } from '../state/state.ts';
import { levelAt } from '../timing/timeline.ts';
import { planeLx } from './ground.ts';
import { litGround } from './litGround.ts';
import { runToCompletion } from '../words/inSteps.ts';
import { lightsIn } from './source.ts';
import { outlineOf } from './stations.ts';

test('at a moment the ground has what all channels give it then', () => {
  const build = demoBuild('tunnel-pumper-3');
  const lights = lightsIn(build, stateWith({ on: ['stage-2'], ambient: 'night' }));
  const shares = runToCompletion(
    litGround(lights, outlineOf(lookupOf(build).vehicle), { stepM: 2, beyondM: 6 }),
  );
  expect(shares.length).toBeGreaterThan(2);
  expect(shares.length).toBeLessThan(lights.length);
  let brightest = 0;
  for (const timeMs of [0, 137, 402, 911]) {
    const { grid } = shares[0] ?? { grid: null };
    if (grid === null) throw new Error('something lights the ground');
    for (let i = 0; i < grid.lx.length; i += 3) {
      const x = grid.fromX + (i % grid.columns) * grid.stepM;
      const y = grid.fromY + Math.floor(i / grid.columns) * grid.stepM;
      const plain = lights.reduce(
        (sum, { centre, shareToward, drives }) =>
          sum +
          planeLx(
            drives.map((drive) => ({
              centre,
              cdToward: (d, farM) => drive.peakCd * levelAt(drive, timeMs) * shareToward(d, farM),
            })),
            [x, y, 0],
          ),
        0,
      );
      const found = shares.reduce((sum, share) => sum + (share.grid.lx[i] ?? 0) * levelAt(share, timeMs), 0);
      brightest = Math.max(brightest, plain);
      // Lamps that give next to nothing at a point are passed over there.
      expect(Math.abs(found - plain)).toBeLessThan(0.02 + 1e-4 * plain);
    }
  }
  expect(brightest).toBeGreaterThan(5);
});
