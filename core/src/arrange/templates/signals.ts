import {
  is,
  during,
  ofSet,
  steady,
  white,
  some,
  there,
  first,
  applyTemplate,
  type FunctionTemplate,
} from './kit.ts';
import { darkCue, newFunction } from '../../design/functions.ts';
import type { SetClause, Side } from '../../design/lampSets.ts';
import { besideFactory, forUse, inColour, onSide, shining, withRuledSet } from '../lampSets.ts';

/** What flashes beside a turn signal keeps it from being read. */
const besideTurn = (side: Side): SetClause[] => [
  forUse('warning'),
  besideFactory('turn'),
  shining('front', 'rear'),
  onSide(side),
];

/** What the vehicle signals, and what lets its signals read. */
export const READY_SIGNALS: readonly FunctionTemplate[] = [
  {
    id: 'reverse-white',
    name: 'Reverse white',
    what: 'In reverse, the warning heads beside the reversing lamps are also steady white. Other lamps continue.',
    misfit: (b) => first(there(b, 'reverse'), some(b, [white, shining('rear')], 'white light to the rear')),
    applyTemplate: (b) => {
      const clauses = [white, shining('rear')];
      const { build } = withRuledSet(b, 'white-back', 'White to the rear', clauses, 'reverse');
      return applyTemplate(
        build,
        newFunction('reverse', 'Reverse', 'signal', during(is('gear', 'reverse')), [
          steady('white-back', 'white', 0.5),
        ]),
      );
    },
  },
  {
    id: 'brake-red',
    name: 'Brake',
    what: 'The brake turns red steady on the heads beside the stop lamps, and nothing flashes over it there.',
    misfit: (b) =>
      first(there(b, 'brake'), some(b, [inColour('red'), shining('rear')], 'red light to the rear')),
    applyTemplate: (b) => {
      const clauses = [inColour('red'), shining('rear')];
      const { build } = withRuledSet(b, 'red-back', 'Red to the rear', clauses, 'stop');
      return applyTemplate(
        build,
        newFunction('brake', 'Brake', 'signal', during(is('brake', 'down')), [steady('red-back', 'red')]),
      );
    },
  },
  {
    id: 'turn-dark',
    name: 'Turn reads',
    what: 'While a turn signal is on, the warning heads beside it are off so that the signal is visible. Hazard lights do not switch them off.',
    misfit: (b) =>
      first(
        there(b, 'turn-left'),
        some(b, besideTurn('left'), 'warning head beside a turn signal on the left'),
        some(b, besideTurn('right'), 'warning head beside a turn signal on the right'),
      ),
    applyTemplate: (b) => {
      const left = withRuledSet(b, 'beside-left', 'Beside the left turn signal', besideTurn('left'));
      const right = withRuledSet(
        left.build,
        'beside-right',
        'Beside the right turn signal',
        besideTurn('right'),
      );
      const turn = (id: string, name: string, value: string, setId: string) =>
        newFunction(id, name, 'cut', during(is('turn', value)), [darkCue(ofSet(setId))]);
      return [
        turn('turn-left', 'Left turn reads', 'left', 'beside-left'),
        turn('turn-right', 'Right turn reads', 'right', 'beside-right'),
      ].reduce(applyTemplate, right.build);
    },
  },
];
