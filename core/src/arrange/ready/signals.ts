import { is, during, ofSet, steady, hasWhite, some, there, first, lay, type ReadyFunction } from './kit.ts';
import { darkCue, newFunction } from '../../design/functions.ts';
import { setOf, shinesAhead, shinesBack, standsLeft, standsRight, type Choosable } from '../sideSets.ts';

/** What the vehicle signals, and what lets its signals read. */
export const READY_SIGNALS: readonly ReadyFunction[] = [
  {
    id: 'reverse-white',
    name: 'Reverse white',
    what: 'In reverse, white to the rear burns steady on warning heads too.',
    misfit: (b) =>
      first(
        there(b, 'reverse'),
        some(b, (m) => hasWhite(m) && shinesBack(m), 'white light to the rear'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'white-back', 'White to the rear', (m) => hasWhite(m) && shinesBack(m));
      return lay(
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
    what: 'The brake turns red to the rear steady, and nothing flashes over it there.',
    misfit: (b) =>
      first(
        there(b, 'brake'),
        some(b, (m) => m.colours.includes('red') && shinesBack(m), 'red light to the rear'),
      ),
    lay: (b) => {
      const { build } = setOf(
        b,
        'red-back',
        'Red to the rear',
        (m) => m.colours.includes('red') && shinesBack(m),
      );
      return lay(
        build,
        newFunction('brake', 'Brake', 'signal', during(is('brake', 'down')), [steady('red-back', 'red')]),
      );
    },
  },
  {
    id: 'turn-dark',
    name: 'Turn reads',
    what: 'While a turn signal or the hazard lights show, the warning heads beside them go dark so that they read.',
    misfit: (b) =>
      first(
        there(b, 'turn-left'),
        some(b, (m) => shinesBack(m) && standsLeft(m), 'lamp at the rear left'),
        some(b, (m) => shinesBack(m) && standsRight(m), 'lamp at the rear right'),
      ),
    lay: (b) => {
      const beside = (m: Choosable) => (shinesBack(m) || shinesAhead(m)) && m.warns && !m.factory;
      const left = setOf(b, 'beside-left', 'Beside the left turn signal', (m) => beside(m) && standsLeft(m));
      const right = setOf(
        left.build,
        'beside-right',
        'Beside the right turn signal',
        (m) => beside(m) && standsRight(m),
      );
      const turn = (id: string, name: string, value: string, setId: string) =>
        newFunction(id, name, 'cut', during(is('turn', value, 'hazard')), [darkCue(ofSet(setId))]);
      return [
        turn('turn-left', 'Left turn reads', 'left', 'beside-left'),
        turn('turn-right', 'Right turn reads', 'right', 'beside-right'),
      ].reduce(lay, right.build);
    },
  },
];
