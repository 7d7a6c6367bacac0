import { describe, expect, test } from 'vitest';
import { DEMO_BUILDS, demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild } from '../../test/reference/places.ts';
import { compileProgram } from '../controls/program.ts';
import { readScript } from '../controls/script.ts';
import { play } from '../controls/controlTest.ts';
import { addFunction, controlsFailure } from '../design/controlEdits.ts';
import { depthOf, leavesOf, MOST_DEPTH, MOST_OF, type Condition } from '../design/condition.ts';
import { newFunction } from '../design/functions.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { anyOf, usualConditions } from './usualConditions.ts';

describe.each(DEMO_BUILDS)('%s', (name) => {
  const build = demoBuild(name);
  test.each(usualConditions(build).map((usual) => [usual.name, usual] as const))('%s', (_, { condition }) => {
    const asking = addFunction(
      build,
      newFunction('ask', 'Ask', 'light', { way: 'while', condition, afterMs: 0, staysMs: 0 }, [], {
        withoutMaster: true,
      }),
    );
    expect(controlsFailure(asking)).toBeNull();
    expect(depthOf(condition)).toBeLessThanOrEqual(MOST_DEPTH);
  });
  test('a door at any of its stops is enough, and nothing else is', () => {
    const usual = usualConditions(build).find(({ id }) => id === 'any-door');
    const doors = vehicleOf(build.vehicle).parts.filter(({ kind }) => kind === 'door');
    expect(usual === undefined).toBe(doors.length === 0);
    if (usual === undefined) return;
    const { condition } = usual;
    const asking = addFunction(
      build,
      newFunction('ask', 'Ask', 'light', { way: 'while', condition, afterMs: 0, staysMs: 0 }, [], {
        withoutMaster: true,
      }),
    );
    const programme = compileProgram(asking);
    const isOn = (script: string): boolean =>
      play(programme, readScript(programme, script, 'script'))
        .at(-1)
        ?.running.state.on.has('ask') === true;
    expect(isOn('locks=unlocked')).toBe(false);
    for (const { id, stops } of doors)
      for (const stop of stops) expect(isOn(`part.${id}=${stop.id}`), stop.id).toBe(true);
  });
});

test('more than a list holds goes in lists, and none is left out', () => {
  const many = Array.from({ length: 30 }, (_, i): Condition => ({ kind: 'on', functionId: `f${i}` }));
  const any = anyOf(many);
  if (any?.kind !== 'any') throw new Error('it asks for any');
  expect(any.of.length).toBeLessThanOrEqual(MOST_OF);
  expect([...leavesOf(any)]).toEqual(many);
  expect(anyOf([])).toBeNull();
  expect(anyOf(many.slice(0, 1))).toEqual(many[0]);
});

test('what a build has nothing for is not offered', () => {
  const bare = emptyBuild();
  const ids = usualConditions({
    ...bare,
    controls: { ...bare.controls, functions: [] },
  }).map(({ id }) => id);
  expect(ids).not.toContain('any-stage');
});
