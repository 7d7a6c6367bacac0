import type { Condition } from '../../design/condition.ts';
import { lightCue, newFunction } from '../../design/functions.ts';
import type { FactoryFunction } from '../../words/factoryFunction.ts';
import type { SetClause, Side } from '../../design/lampSets.ts';
import { anyMeets, onSide, tiedTo, withRuledSet } from '../lampSets.ts';
import { all, any, during, first, is, applyTemplate, ofSet, there, type FunctionTemplate } from './kit.ts';

/** A circuit of the maker's own: which of its lamps it lights, when, and how. */
interface Circuit {
  readonly id: string;
  readonly name: string;
  readonly does: readonly FactoryFunction[];
  readonly side?: Side;
  readonly when: Condition;
  readonly patternId: 'steady' | 'blink';
}

const CIRCUITS: readonly Circuit[] = [
  {
    id: 'maker-turn-left',
    name: 'Turn signal, left',
    does: ['turn', 'mirror turn'],
    side: 'left',
    when: is('turn', 'left', 'hazard'),
    patternId: 'blink',
  },
  {
    id: 'maker-turn-right',
    name: 'Turn signal, right',
    does: ['turn', 'mirror turn'],
    side: 'right',
    when: is('turn', 'right', 'hazard'),
    patternId: 'blink',
  },
  { id: 'maker-stop', name: 'Stop lamps', does: ['stop'], when: is('brake', 'down'), patternId: 'steady' },
  {
    id: 'maker-reverse',
    name: 'Reversing lamps',
    does: ['reverse'],
    when: all(is('ignition', 'on'), is('gear', 'reverse')),
    patternId: 'steady',
  },
  {
    id: 'maker-high-beam',
    name: 'Main beam',
    does: ['high beam'],
    when: is('headlamps', 'main'),
    patternId: 'steady',
  },
  {
    id: 'maker-head',
    name: 'Head lamps',
    does: ['head', 'low beam'],
    when: is('headlamps', 'dipped', 'main'),
    patternId: 'steady',
  },
  { id: 'maker-fog', name: 'Fog lamps', does: ['fog'], when: is('fog', 'on'), patternId: 'steady' },
  {
    id: 'maker-tail',
    name: 'Tail and marker lamps',
    does: ['tail', 'marker', 'parking', 'plate'],
    when: is('headlamps', 'side', 'dipped', 'main'),
    patternId: 'steady',
  },
  {
    id: 'maker-day',
    name: 'Day-running lamps',
    does: ['day'],
    when: all(is('engine', 'running'), is('headlamps', 'off')),
    patternId: 'steady',
  },
  {
    id: 'maker-cargo',
    name: 'Cargo lamp',
    does: ['cargo'],
    when: all(is('locks', 'unlocked'), any(is('gear', 'park'), is('gear', 'neutral'))),
    patternId: 'steady',
  },
];

const lampsOf = ({ does, side }: Circuit): SetClause[] => [
  tiedTo(...does),
  ...(side === undefined ? [] : [onSide(side)]),
];

/** The vehicle's own circuits, of the lamps that are tied in: what they do besides being flashed. */
export const FACTORY_LAMP_TEMPLATES: readonly FunctionTemplate[] = [
  {
    id: 'makers-lamps',
    name: 'Factory lamps',
    what: 'Connected factory lamps keep their original function: turn, stop, reverse, head, fog, tail and day-running. These signals have the highest priority; flashers stop for them.',
    misfit: (b) =>
      first(
        CIRCUITS.map(({ id }) => there(b, id)).find((why) => why !== null) ?? null,
        CIRCUITS.some((circuit) => anyMeets(b, lampsOf(circuit))) ? null : 'no factory lamp is connected',
      ),
    applyTemplate: (b) =>
      CIRCUITS.toReversed().reduce((build, circuit) => {
        if (!anyMeets(build, lampsOf(circuit))) return build;
        const { build: withSet } = withRuledSet(build, circuit.id, circuit.name, lampsOf(circuit));
        return applyTemplate(
          withSet,
          newFunction(
            circuit.id,
            circuit.name,
            'signal',
            during(circuit.when),
            [lightCue(ofSet(circuit.id), 1, circuit.patternId)],
            { withoutMaster: true, mayStay: true },
          ),
        );
      }, b),
  },
];
