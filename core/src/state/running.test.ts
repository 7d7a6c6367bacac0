import { expect, test } from 'vitest';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { compileProgram } from '../controls/program.ts';
import { readScript } from '../controls/script.ts';
import { initialSimulation } from '../controls/simulator.ts';
import { play } from '../controls/controlTest.ts';
import { stateIn } from './running.ts';

const build = put(emptyBuild(), 'spot', {
  zone: 'grille',
  aims: [{ id: 'right', name: 'to the right', panDeg: 60, tiltDeg: 0 }],
});
const programme = compileProgram(build);
/** The state after these steps from rest. */
function after(script: string) {
  const played = play(programme, readScript(programme, script, 'script'));
  expect(played.filter(({ refused }) => refused)).toEqual([]);
  return stateIn(programme, played.at(-1)?.running ?? initialSimulation(programme));
}

test('at rest: everything shut, lamps at home, by day', () => {
  const { open, ambient } = stateIn(programme, initialSimulation(programme));
  expect([open, ambient]).toEqual([[], 'day']);
});

test('what stands open and how lamps stand is read from their inputs, and shut again', () => {
  expect(after('part.hatch=hatch').open).toEqual(['hatch']);
  expect(after('aim.spot=right').open).toEqual(['aim.spot=right']);
  expect(after('part.hatch=hatch, aim.spot=right').open.toSorted()).toEqual(['aim.spot=right', 'hatch']);
  expect(after('part.hatch=hatch, part.hatch=shut, aim.spot=right, aim.spot=home').open).toEqual([]);
});

test('night is night; other inputs are neither light around nor open', () => {
  expect(after('ambient=night').ambient).toBe('night');
  expect(after('ambient=night, ambient=day').ambient).toBe('day');
  expect(after('ignition=on, gear=reverse')).toMatchObject({ open: [], ambient: 'day' });
});

test('what is on is what the programme has on', () => {
  expect(after('ignition=on, slide=2').on).toContain('stage-2');
  expect(after('ignition=on, slide=2, slide=3').on).toContain('stage-3');
  expect(after('ignition=on, slide=2, slide=3').on).not.toContain('stage-2');
});
