import { membersOf } from '../resolve/setMembers.ts';
import { describe, expect, test } from 'vitest';
import { DEMO_BUILDS, type DemoBuild } from '../../test/reference/demo.ts';
import { documentsOf } from '../../test/reference/older.ts';
import { emptyBuild } from '../../test/reference/places.ts';
import { compileProgram } from '../controls/program.ts';
import { readScript } from '../controls/script.ts';
import { play } from '../controls/controlTest.ts';
import { controlsFailure } from '../design/controlEdits.ts';
import type { Build } from '../design/schema.ts';
import { readBuild } from '../rules/document.ts';
import { drivenIn } from '../state/driven.ts';
import { stateIn } from '../state/running.ts';
import { CONTROL_TEMPLATES, templateMisfit } from './controlTemplates.ts';
import { setColour } from './lamps.ts';
import { FUNCTION_TEMPLATES } from './templates/functionTemplates.ts';

/** A demo build as it was before it had a programme: lamps, groups and stages by a slide. */
const documents = documentsOf('schema-4');
const plain = (name: DemoBuild): Build => readBuild(documents[name]);

/** Operates a build from rest; the state it then stands in. */
function after(build: Build, script: string) {
  const programme = compileProgram(build);
  const played = play(programme, readScript(programme, script, 'script'));
  expect(played.filter((p) => p.refused).map((p) => p.step)).toEqual([]);
  const last = played.at(-1);
  if (last === undefined) throw new Error('the script is empty');
  return stateIn(programme, last.running);
}
const lit = (build: Build, script: string) =>
  drivenIn(build, after(build, script)).filter((d) => d.spans.length > 0);
const template = (id: string) => {
  const found = CONTROL_TEMPLATES.find((t) => t.id === id);
  if (found === undefined) throw new Error(`there is no template ${id}`);
  return found;
};

describe.each(CONTROL_TEMPLATES)('template $id', (found) => {
  const { applyTemplate: lay } = found;
  test.each(DEMO_BUILDS)(
    'on %s, once and over what it laid: it runs and reads back, or says why not',
    (name) => {
      const layIfFits = (b: Build) => (templateMisfit(found, b) === null ? lay(b) : b);
      const twice = layIfFits(layIfFits(plain(name)));
      expect(readBuild(JSON.parse(JSON.stringify(twice)))).toEqual(twice);
    },
  );
  test('can be laid on an empty build', () => expect(controlsFailure(lay(emptyBuild()))).toBeNull());
});

test.each(FUNCTION_TEMPLATES)('$id says why it cannot be laid, or runs', ({ misfit, applyTemplate: lay }) => {
  for (const name of DEMO_BUILDS) {
    const build = plain(name);
    if (misfit(build) !== null) continue;
    const laid = lay(build);
    expect(controlsFailure(laid), name).toBeNull();
    expect(misfit(laid), name).toBe('it already exists');
  }
});

test('command green drops red and white from the same boards, leaves the others, and gives them back', () => {
  const car = template('slide-eight').applyTemplate(plain('ks-12'));
  const bar = car.placements.find((p) => p.modules.length > 8);
  const boards = (bar?.modules ?? [])
    .slice(0, 4)
    .map(({ id }) => ({ placementId: bar?.id ?? '', moduleId: id }));
  const green = FUNCTION_TEMPLATES.find(({ id }) => id === 'command-green');
  if (green === undefined) throw new Error('there is a ready function for it');
  const build = green.applyTemplate(setColour(setColour(car, boards, 2, 'white'), boards, 3, 'green'));
  expect(controlsFailure(build)).toBeNull();
  const shown = (script: string, mine: boolean): string[] =>
    lit(build, script)
      .filter(
        (d) => boards.some((b) => b.placementId === d.placementId && b.moduleId === d.moduleId) === mine,
      )
      .map((d) => `${d.placementId}/${d.moduleId} ${d.colour} ${d.patternId}`);
  const before = 'ignition=on, slide=3, key-white=press';
  const during = `${before}, key-command-green=press`;
  expect(shown(before, true).some((text) => text.includes(' green '))).toBe(false);
  expect(shown(before, true).length).toBeGreaterThanOrEqual(boards.length);
  expect(shown(during, true)).toEqual(boards.map((b) => `${b.placementId}/${b.moduleId} green steady`));
  expect(shown(during, false)).toEqual(shown(before, false));
  const after = `${during}, key-command-green=press`;
  expect(shown(after, true)).toEqual(shown(before, true));
});

describe('slide and eight keys on the patrol car', () => {
  const build = template('slide-eight').applyTemplate(plain('ks-12'));

  test('nothing comes on before the ignition', () => expect(after(build, 'slide=2').on).toEqual([]));
  test('the slide brings the stages', () => {
    expect(after(build, 'ignition=on, slide=2').on).toEqual(['stage-2']);
    expect(after(build, 'ignition=on, slide=2, slide=off').on).toEqual(['off']);
  });
  test('white by its key, over the stage and without it; fog cancel takes it', () => {
    const heads = membersOf(build, { kind: 'set', setId: 'white-ahead' });
    expect(heads.size).toBeGreaterThan(0);
    const white = (script: string) =>
      lit(build, script).filter(
        (d) => heads.has(`${d.placementId}/${d.moduleId}`) && d.colour === 'white' && d.steady,
      ).length;
    expect(white('ignition=on, key-white=press')).toBe(heads.size);
    expect(white('ignition=on, slide=3, key-white=press')).toBe(heads.size);
    expect(white('ignition=on, slide=3, key-white=press, key-white=press')).toBe(0);
    expect(white('ignition=on, slide=3, key-white=press, key-fog-cancel=press')).toBe(0);
  });
  test('the supplement under the hatch stays five seconds', () => {
    const on = (script: string) => after(build, script).on.includes('hatch-supplement');
    expect(on('ignition=on, slide=2, part.hatch=hatch')).toBe(true);
    expect(on('ignition=on, slide=2, part.hatch=hatch, part.hatch=shut, wait=4999')).toBe(true);
    expect(on('ignition=on, slide=2, part.hatch=hatch, part.hatch=shut, wait=5000')).toBe(false);
    expect(on('ignition=on, slide=1, part.hatch=hatch')).toBe(false);
  });
  test('eight keys, spare places among them', () => {
    const keys = build.controls.panels[0]?.controls.filter((c) => c.kind === 'button' || c.kind === 'spare');
    expect(keys).toHaveLength(8);
  });
});

test('six keys: one stage at a time', () => {
  const build = template('six-keys').applyTemplate(plain('ks-13'));
  const stages = (script: string) => after(build, script).on.filter((on) => on.startsWith('stage'));
  expect(stages('ignition=on, key-stage-1=press')).toEqual(['stage-1']);
  expect(stages('ignition=on, key-stage-1=press, key-stage-3=press')).toEqual(['stage-3']);
  expect(stages('ignition=on, key-stage-3=press, key-stage-3=press')).toEqual([]);
});

test('a rear panel’s twin moves the same slide', () => {
  const build = template('rear-panel').applyTemplate(plain('incident-command'));
  expect(after(build, 'rear-slide=2').on).toEqual(['stage-2']);
});

test('the pedestal’s last position adds the siren to the last stage', () => {
  const build = template('siren-pedestal').applyTemplate(plain('ks-12'));
  expect(after(build, 'ignition=on, slide=siren').on).toEqual(['stage-3', 'slide-siren']);
});
