import { is, during, ofSet, steady, hasWhite, some, there, first, lay, type ReadyFunction } from './kit.ts';
import { darkCue, newFunction } from '../../design/functions.ts';
import {
  BESIDE_M,
  besideMakers,
  choosable,
  setOf,
  setOfThese,
  shinesAhead,
  shinesBack,
  standsLeft,
  standsRight,
  type Choosable,
} from '../sideSets.ts';

/** What flashes beside a turn signal keeps it from being read. */
const beside = (m: Choosable): boolean =>
  m.fromMakersM('turn') <= BESIDE_M && (shinesBack(m) || shinesAhead(m)) && m.warns && !m.factory;

/** What the vehicle signals, and what lets its signals read. */
export const READY_SIGNALS: readonly ReadyFunction[] = [
  {
    id: 'reverse-white',
    name: 'Reverse white',
    what: 'In reverse, white burns steady on the warning heads beside the reversing lamps too; the others go on.',
    misfit: (b) =>
      first(
        there(b, 'reverse'),
        some(b, (m) => hasWhite(m) && shinesBack(m), 'white light to the rear'),
      ),
    lay: (b) => {
      const back = choosable(b).filter((m) => hasWhite(m) && shinesBack(m));
      const { build } = setOfThese(b, 'white-back', 'White to the rear', besideMakers(back, 'reverse'));
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
    what: 'The brake turns red steady on the heads beside the stop lamps, and nothing flashes over it there.',
    misfit: (b) =>
      first(
        there(b, 'brake'),
        some(b, (m) => m.colours.includes('red') && shinesBack(m), 'red light to the rear'),
      ),
    lay: (b) => {
      const back = choosable(b).filter((m) => m.colours.includes('red') && shinesBack(m));
      const { build } = setOfThese(b, 'red-back', 'Red to the rear', besideMakers(back, 'stop'));
      return lay(
        build,
        newFunction('brake', 'Brake', 'signal', during(is('brake', 'down')), [steady('red-back', 'red')]),
      );
    },
  },
  {
    id: 'turn-dark',
    name: 'Turn reads',
    what: 'While a turn signal shows, the warning heads beside it go dark so that it reads; hazard lights show to both sides and leave them on.',
    misfit: (b) =>
      first(
        there(b, 'turn-left'),
        some(b, (m) => beside(m) && standsLeft(m), 'warning head beside a turn signal on the left'),
        some(b, (m) => beside(m) && standsRight(m), 'warning head beside a turn signal on the right'),
      ),
    lay: (b) => {
      const left = setOf(b, 'beside-left', 'Beside the left turn signal', (m) => beside(m) && standsLeft(m));
      const right = setOf(
        left.build,
        'beside-right',
        'Beside the right turn signal',
        (m) => beside(m) && standsRight(m),
      );
      const turn = (id: string, name: string, value: string, setId: string) =>
        newFunction(id, name, 'cut', during(is('turn', value)), [darkCue(ofSet(setId))]);
      return [
        turn('turn-left', 'Left turn reads', 'left', 'beside-left'),
        turn('turn-right', 'Right turn reads', 'right', 'beside-right'),
      ].reduce(lay, right.build);
    },
  },
];
