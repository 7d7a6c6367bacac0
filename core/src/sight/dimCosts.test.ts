import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { plainSeenM } from '../../test/reference/plainSight.ts';
import { FUNCTION_TEMPLATES } from '../arrange/templates/functionTemplates.ts';
import { controlsFailure } from '../design/controlEdits.ts';
import type { Build } from '../design/schema.ts';
import { compileProgram } from '../controls/program.ts';
import { readScript } from '../controls/script.ts';
import { play } from '../controls/controlTest.ts';
import { highestCd } from '../resolve/channels.ts';
import { drivenIn } from '../state/driven.ts';
import { stateIn } from '../state/running.ts';
import { stateWith } from '../state/state.ts';
import { dimCosts } from './dimCosts.ts';
import { usualApproaches } from './usualApproaches.ts';

const bare = demoBuild('ks-13');
const calm = ((): Build => {
  const ready = FUNCTION_TEMPLATES.find(({ id }) => id === 'calm-rear');
  if (ready === undefined) throw new Error('it is ready');
  expect(ready.misfit(bare)).toBeNull();
  const laid = ready.applyTemplate(bare);
  expect(controlsFailure(laid)).toBeNull();
  expect(ready.misfit(laid)).not.toBeNull();
  return laid;
})();
const fog = usualApproaches('other').find(({ id }) => id === 'behind-fog-day');
const ahead = usualApproaches('other').find(({ id }) => id === 'ahead-fog-day');
if (fog === undefined || ahead === undefined) throw new Error('both are usual');

test('a calm rear sends 0.4 of the light back in the state that it is on in, and costs as many metres as a plain walk says', () => {
  const on = stateWith({ on: ['stage-2'] });
  const dim = stateWith({ on: ['stage-2', 'calm-rear'] });
  const most = (state: typeof on) =>
    drivenIn(calm, state)
      .filter(({ placementId }) => placementId === 'lip' || placementId === 'bumper')
      .map(highestCd);
  expect(most(on)).toHaveLength(2);
  expect(most(dim)).toEqual(most(on).map((cd) => 0.4 * cd));
  const [cost, ...others] = dimCosts(calm, on, fog);
  expect(others).toEqual([]);
  expect(cost?.name).toBe('Calm rear');
  expect(cost?.withoutM).toBeCloseTo(plainSeenM(calm, on, fog, 'normal'), 9);
  expect(cost?.withM).toBeCloseTo(plainSeenM(calm, dim, fog, 'normal'), 9);
  expect(cost?.lostS).toBeCloseTo(((cost?.withoutM ?? NaN) - (cost?.withM ?? NaN)) / (110 / 3.6), 9);
  expect(cost?.lostS).toBeGreaterThan(0.1);
  // The same whether it is on already or not; from ahead it costs nothing.
  expect(dimCosts(calm, dim, fog)).toEqual([cost]);
  expect(dimCosts(calm, on, ahead)).toEqual([]);
});

test('it comes by its key in park, and goes with driving off', () => {
  const programme = compileProgram(calm);
  const on = (script: string): readonly string[] => {
    const last = play(programme, readScript(programme, script, 'script')).at(-1);
    return last === undefined ? [] : stateIn(programme, last.running).on;
  };
  const key = calm.controls.panels[0]?.controls.find(({ label }) => label === 'Calm rear')?.id ?? '';
  expect(on(`ignition=on, ${key}=press`)).toContain('calm-rear');
  expect(on(`ignition=on, ${key}=press, gear=drive`)).not.toContain('calm-rear');
  expect(on(`ignition=on, ${key}=press, gear=drive, gear=park`)).not.toContain('calm-rear');
});
