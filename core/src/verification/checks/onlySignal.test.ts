import { expect, test } from 'vitest';
import { emptyBuild, put } from '../../../test/reference/places.ts';
import { FACTORY_LAMP_TEMPLATES } from '../../arrange/templates/factoryLamps.ts';
import { changeSurvey } from '../../arrange/vehicleEdits.ts';
import type { Condition } from '../../design/condition.ts';
import { fixedSet, type LampSet } from '../../design/lampSets.ts';
import { addFunction, changeEffect, putSet } from '../../design/controlEdits.ts';
import { lightCue, newFunction } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import { VerificationSubject } from '../subject.ts';
import { onlySignal } from './onlySignal.ts';
import { subjectsKey } from '../../rules/subject.ts';

/** A large SUV with its turn and brake lamps tied in; those that are named flash in stage 2. */
function tied(flashes: (id: string) => boolean = () => true): Build {
  const lamps = vehicleOf(emptyBuild().vehicle).factoryLamps.filter(
    ({ does }) => does === 'turn' || does === 'stop',
  );
  const open = changeSurvey(emptyBuild(), { mayTie: Object.fromEntries(lamps.map(({ id }) => [id, true])) });
  const placed = lamps.reduce<Build>(
    (b, { id, does }) =>
      put(b, id, { fixture: does === 'turn' ? 'factory-turn' : 'factory-tail', zone: `tie-${id}` }),
    open,
  );
  const flashing = putSet(placed, setOf(placed, 'flashing', flashes));
  return changeEffect(flashing, 'stage-2', {
    cues: [lightCue({ kind: 'set', setId: 'flashing' }, 1, 'double')],
  });
}

const setOf = ({ placements }: Build, id: string, holds: (id: string) => boolean): LampSet =>
  fixedSet(
    id,
    id,
    placements
      .filter((p) => holds(p.id))
      .flatMap((p) => p.modules.map((m) => ({ placementId: p.id, moduleId: m.id }))),
  );

const told = (build: Build): [string, string][] =>
  onlySignal
    .find(new VerificationSubject(build))
    .map(({ subjects, severity }) => [subjectsKey(subjects), severity ?? 'blocks']);

const CORNERS = [
  'stop-left|stop',
  'stop-right|stop',
  'turn-front-left|turn',
  'turn-front-right|turn',
  'turn-rear-left|turn',
  'turn-rear-right|turn',
];

test('tied-in lamps that flash are the only ones of their corner; the one in the middle is of no side', () => {
  const found = onlySignal.find(new VerificationSubject(tied()));
  expect(found.map(({ subjects }) => subjectsKey(subjects)).sort()).toEqual(CORNERS);
  expect(found.find(({ subjects }) => subjectsKey(subjects) === 'stop-left|stop')?.sentence).toMatch(
    /is used for warning and is the only brake lamp at the rear left\.$/,
  );
  expect(told(tied(() => false))).toEqual([]);
});

test('less grave where their flashers stop for the signal', () => {
  const [ready] = FACTORY_LAMP_TEMPLATES;
  expect(new Map(told(ready?.applyTemplate(tied()) ?? tied()))).toEqual(
    new Map(CORNERS.map((about) => [about, 'warns'])),
  );
});

test('a lamp beside it that the brake lights, and no warning, takes its place', () => {
  const beside = (uM: number, flashes: boolean): Build => {
    const placed = put(tied(), 'brake', { zone: 'rear-bumper', uM });
    const lit = putSet(
      placed,
      setOf(placed, 'brake', (id) => id === 'brake'),
    );
    const brake: Condition = { kind: 'is', input: 'brake', values: ['down'] };
    const cue = lightCue({ kind: 'set', setId: 'brake' }, 1, 'steady');
    const when = { way: 'while', condition: brake, afterMs: 0, staysMs: 0 } as const;
    const signal = addFunction(lit, newFunction('b', 'Brake', 'signal', when, [cue]), 0);
    return flashes ? addFunction(signal, newFunction('w', 'Warn', 'warning', when, [cue])) : signal;
  };
  const brakes = (build: Build) => told(build).filter(([about]) => about.endsWith('|stop'));
  // As seen from behind: left of the middle is left.
  expect(brakes(beside(-0.5, false))).toEqual([['stop-right|stop', 'blocks']]);
  expect(brakes(beside(0.5, false))).toEqual([['stop-left|stop', 'blocks']]);
  // In the middle it is of no side; one that warns, too, is no help, and a signal of the programme wins over it.
  expect(brakes(beside(0, false))).toHaveLength(2);
  expect(brakes(beside(-0.5, true))).toEqual([
    ['stop-left|stop', 'blocks'],
    ['stop-right|stop', 'blocks'],
    ['brake|stop', 'warns'],
  ]);
});
