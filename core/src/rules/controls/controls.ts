import type { DocumentCheck } from '../documentCheck.ts';
import { wrongSweepDirections } from './direction.ts';
import { shortFixedSets } from './fixedSets.ts';
import { changedControls } from './changedControls.ts';
import { airbagFaults, builtIn, outOfReach, panelsTooLarge, roomsTakenTwice } from './rooms.ts';
import { conflictingControls } from './leads.ts';
import { failedTests } from './failedTests.ts';
import { unequalTwins } from './twins.ts';

/** Checks of the controls that need no pack, and no proof. */
export const CONTROLS_CHECKS: readonly DocumentCheck[] = [
  { kind: 'trial', severity: 'warns', clause: 'Saved tests pass', findIssues: failedTests },
  { kind: 'direction', severity: 'blocks', clause: 'Moves as it declares', findIssues: wrongSweepDirections },
  { kind: 'airbag', severity: 'blocks', clause: 'Clear of airbags', findIssues: airbagFaults },
  { kind: 'panel-size', severity: 'warns', clause: 'Panels fit their room', findIssues: panelsTooLarge },
  { kind: 'room-taken', severity: 'warns', clause: 'One panel to a room', findIssues: roomsTakenTwice },
  { kind: 'panel-reach', severity: 'warns', clause: 'Reached belted', findIssues: outOfReach },
  { kind: 'panel-built-in', severity: 'advises', clause: 'Panels can be replaced', findIssues: builtIn },
  { kind: 'leads', severity: 'warns', clause: 'One control leads', findIssues: conflictingControls },
  { kind: 'twins', severity: 'warns', clause: 'Two panels that are one', findIssues: unequalTwins },
  {
    kind: 'fixed-set',
    severity: 'advises',
    clause: 'Cut-outs reach every lamp of their kind',
    findIssues: shortFixedSets,
  },
  { kind: 'habit', severity: 'advises', clause: 'As operators are used to', findIssues: changedControls },
];
