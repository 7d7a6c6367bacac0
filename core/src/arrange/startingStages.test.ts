import { expect, test } from 'vitest';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { compileProgram } from '../controls/program.ts';
import { readScript } from '../controls/script.ts';
import { play } from '../controls/controlTest.ts';
import { stagesOf } from '../design/controls.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { withControls } from '../design/controlEdits.ts';
import { checkWhole } from '../verification/checkWhole.ts';
import { readBuild } from '../rules/document.ts';
import { drivenIn } from '../state/driven.ts';
import { withStartingStages } from './startingStages.ts';

const truck = changeModules(
  put(withStartingStages(emptyBuild(), 'one-key'), 'a', { zone: 'grille' }),
  [{ placementId: 'a', moduleId: 'm1' }],
  { groupId: 'front' },
);

test('one key lights every lamp; there are no stages, and everything is still checked', () => {
  expect(stagesOf(truck)).toEqual([]);
  expect(readBuild({ ...truck })).toEqual(truck);
  const programme = compileProgram(truck);
  const on = (script: string) => [
    ...(play(programme, readScript(programme, script, 'script')).at(-1)?.running.state.on ?? []),
  ];
  expect(on('ignition=on, key-warning=press')).toEqual(['warning']);
  expect(on('ignition=on, key-warning=press, key-warning=press')).toEqual([]);
  expect(
    drivenIn(truck, { on: ['warning'], ambient: 'day' }).map(({ placementId }) => placementId),
  ).toContain('a');
  const { outcomes, counts } = checkWhole(truck);
  expect(counts.whole).toBe(true);
  expect(outcomes.filter(({ verdict }) => verdict === 'cannot tell')).toEqual([]);
});

test('a build without any function is checked too', () => {
  const bare = withControls(truck, { functions: [], panels: [] });
  expect(
    checkWhole(readBuild({ ...bare })).outcomes.filter(({ verdict }) => verdict === 'cannot tell'),
  ).toEqual([]);
});
