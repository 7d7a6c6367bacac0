import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { compileProgram } from '../controls/program.ts';
import { readScript } from '../controls/script.ts';
import { play } from '../controls/controlTest.ts';
import { addFunction, controlsFailure } from '../design/controlEdits.ts';
import type { Condition } from '../design/condition.ts';
import { FUNCTION_KINDS, newFunction } from '../design/functions.ts';
import { verify } from '../verification/prove.ts';
import { nameCondition, namedConditions, usualFirst } from './namedConditions.ts';
import { anyDoorOpen } from './usualConditions.ts';

const car = demoBuild('ks-13');
const doors = anyDoorOpen(car);
if (doors === null) throw new Error('a car without doors');

test('a function that asks for a named condition is on just when one that asks for its parts is', () => {
  const during = (condition: Condition) => ({ way: 'while', condition, afterMs: 0, staysMs: 0 }) as const;
  const named = nameCondition(car, 'c', 'Somebody gets out', doors);
  expect(namedConditions(named).map(({ name }) => name)).toEqual(['Somebody gets out']);
  const both = [
    newFunction('plain', 'Plain', 'light', during(doors), [], { withoutMaster: true }),
    newFunction('asks', 'Asks', 'light', during({ kind: 'on', functionId: 'c' }), [], {
      withoutMaster: true,
    }),
  ].reduce((b, fn) => addFunction(b, fn), named);
  expect(controlsFailure(both)).toBeNull();
  const programme = compileProgram(both);
  const isOn = (script: string): string[] =>
    [...(play(programme, readScript(programme, script, 'script')).at(-1)?.running.state.on ?? [])].filter(
      (id) => ['plain', 'asks'].includes(id),
    );
  const part = programme.inputs.find(({ id }) => id.startsWith('part.door'));
  expect(isOn('ignition=accessory')).toEqual([]);
  expect(isOn(`${part?.id}=${part?.values[1]}`).toSorted()).toEqual(['asks', 'plain']);
});

test('a named condition changes no verdict of what is proved', () => {
  const told = ({ outcomes }: ReturnType<typeof verify>) =>
    outcomes.map(({ packId, ruleId, verdict }) => `${packId} ${ruleId} ${verdict}`);
  expect(told(verify(nameCondition(car, 'c', 'Somebody gets out', doors)))).toEqual(told(verify(car)));
});

test('a name that is taken gets a number', () => {
  const twice = nameCondition(nameCondition(car, 'c', 'Doors', doors), 'd', 'Doors', doors);
  expect(new Set(namedConditions(twice).map(({ name }) => name)).size).toBe(2);
});

test.each(FUNCTION_KINDS)('the first part of a %s can run', (kind) => {
  const first = addFunction(
    car,
    newFunction(
      'first',
      'First',
      kind,
      { way: 'while', condition: usualFirst(car, kind), afterMs: 0, staysMs: 0 },
      [],
    ),
  );
  expect(controlsFailure(first)).toBeNull();
});
