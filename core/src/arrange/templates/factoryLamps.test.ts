import { expect, test } from 'vitest';
import { emptyBuild, put } from '../../../test/reference/places.ts';
import { compileProgram } from '../../controls/program.ts';
import { readScript } from '../../controls/script.ts';
import { initialSimulation } from '../../controls/simulator.ts';
import { play } from '../../controls/controlTest.ts';
import { changeEffect } from '../../design/controlEdits.ts';
import { lightCue } from '../../design/functions.ts';
import { changeSurvey } from '../vehicleEdits.ts';
import type { Build } from '../../design/schema.ts';
import { drivenIn } from '../../state/driven.ts';
import { stateIn } from '../../state/running.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import { FACTORY_LAMP_TEMPLATES } from './factoryLamps.ts';

const [ready] = FACTORY_LAMP_TEMPLATES;
if (ready === undefined) throw new Error('it is there');

/** A large SUV whose stage 2 flashes the turn signals and the main beams. */
function tied(): Build {
  const lamps = vehicleOf(emptyBuild().vehicle).factoryLamps.filter(
    ({ does }) => does === 'turn' || does === 'high beam' || does === 'head',
  );
  const open = changeSurvey(emptyBuild(), { mayTie: Object.fromEntries(lamps.map(({ id }) => [id, true])) });
  const placed = lamps.reduce<Build>(
    (b, lamp) =>
      put(b, `on-${lamp.id}`, {
        fixture: lamp.does === 'turn' ? 'factory-turn' : 'factory-head',
        zone: `tie-${lamp.id}`,
      }),
    open,
  );
  return changeEffect(placed, 'stage-2', { cues: [lightCue({ kind: 'ungrouped' }, 1, 'double')] });
}

/** The pattern of each lamp, by its side of the vehicle, after some events. */
function shown(build: Build, script: string): Record<string, string> {
  const programme = compileProgram(build);
  const played = play(programme, readScript(programme, script, 'script'));
  const state = stateIn(programme, played.at(-1)?.running ?? initialSimulation(programme));
  return Object.fromEntries(drivenIn(build, state).map((d) => [d.placementId, d.patternId]));
}

test('a lamp of the maker flashes in warning, and does its own work first', () => {
  const build = ready.applyTemplate(tied());
  const turns = build.placements.filter((p) => p.fixtureId === 'factory-turn').map((p) => p.id);
  const heads = build.placements.filter((p) => p.fixtureId === 'factory-head').map((p) => p.id);
  expect(turns.length).toBeGreaterThanOrEqual(2);
  const flashing = shown(build, 'slide=2');
  for (const id of [...turns, ...heads]) expect(flashing[id]).toBe('double');
  const left = shown(build, 'slide=2, turn=left');
  expect(new Set(turns.map((id) => left[id]))).toEqual(new Set(['blink', 'double']));
  const main = shown(build, 'slide=2, headlamps=main');
  expect(new Set(heads.map((id) => main[id]))).toEqual(new Set(['steady']));
  // Off the road the maker's circuits go on without our master switch.
  expect(Object.values(shown(build, 'turn=hazard'))).toEqual(turns.map(() => 'blink'));
});

test('without a lamp that is tied in it says so; it is laid once', () => {
  expect(ready.misfit(emptyBuild())).toBe('no factory lamp is connected');
  expect(ready.misfit(tied())).toBeNull();
  expect(ready.misfit(ready.applyTemplate(tied()))).toBe('it already exists');
});
