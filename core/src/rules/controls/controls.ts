import type { DocumentCheck } from '../documentCheck.ts';
import { wrongWays } from './direction.ts';
import { shortFixedSets } from './fixedSets.ts';
import { movedHabits } from './habits.ts';
import { airbagFaults, builtIn, outOfReach, panelsTooLarge, roomsTakenTwice } from './rooms.ts';
import { noneLeads } from './leads.ts';
import { brokenTrials } from './trials.ts';
import { unequalTwins } from './twins.ts';

/** Checks of the controls that need no pack, and no proof. */
export const CONTROLS_CHECKS: readonly DocumentCheck[] = [
  { kind: 'trial', severity: 'warns', clause: 'Saved tests pass', faults: brokenTrials },
  { kind: 'direction', severity: 'blocks', clause: 'Moves as it declares', faults: wrongWays },
  { kind: 'airbag', severity: 'blocks', clause: 'Clear of airbags', faults: airbagFaults },
  { kind: 'panel-size', severity: 'warns', clause: 'Panels fit their room', faults: panelsTooLarge },
  { kind: 'room-taken', severity: 'warns', clause: 'One panel to a room', faults: roomsTakenTwice },
  { kind: 'panel-reach', severity: 'warns', clause: 'Reached belted', faults: outOfReach },
  { kind: 'panel-built-in', severity: 'advises', clause: 'Panels can be replaced', faults: builtIn },
  { kind: 'leads', severity: 'warns', clause: 'One control leads', faults: noneLeads },
  { kind: 'twins', severity: 'warns', clause: 'Two panels that are one', faults: unequalTwins },
  {
    kind: 'fixed-set',
    severity: 'advises',
    clause: 'Cut-outs reach every lamp of their kind',
    faults: shortFixedSets,
  },
  { kind: 'habit', severity: 'advises', clause: 'As operators are used to', faults: movedHabits },
];
