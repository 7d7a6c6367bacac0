import {
  all,
  brief,
  cue,
  finishes,
  group,
  nights,
  pair,
  paint,
  paintModules,
  paintSides,
  place,
  ungroup,
  type Edit,
} from './sketch.ts';

const SIDES = ['corner-f', 'grille', 'wing', 'mirror', 'sill', 'quarter', 'tail', 'corner-r'];
const FRONT = ['corner-f', 'grille', 'wing', 'mirror', 'sill', 'quarter'];

const said = brief(
  {
    agency: 'Kestrel Sound county patrol',
    duty: 'patrol',
    jurisdictions: ['Kestrel Sound', 'Dunmarrow, over the causeway'],
    people: 'Officers at both front doors and at the open hatch; traffic passes on the left.',
    mustHave: 'Amber arrow behind the rear glass; scene light on both sides.',
    habits: 'Stages on the slide switch as on the older cars.',
    growth: 'Four outputs to stay free for a camera mast next year.',
  },
  { kind: 'lowest-lamp', severity: 'warns', heightM: 0.3 },
  { kind: 'no-holes', severity: 'blocks', zoneIds: ['roof-side-left', 'roof-side-right'] },
  { kind: 'never-colours', severity: 'blocks', colours: ['green', 'purple'], faces: ['front', 'rear'] },
  { kind: 'spend-at-most', severity: 'warns', minor: 520_000 },
);

/** What both sisters carry: the same heads in the same places. */
const heads: Edit = all(
  said,
  place({ id: 'bar', fixture: 'roof-bar-1200', zone: 'roof', fixing: 'bracket' }),
  pair({ id: 'grille', fixture: 'perimeter-head-2', zone: 'grille', u: 0.3 }),
  pair({ id: 'corner-f', fixture: 'perimeter-head-2', zone: 'corner-front-left' }),
  pair({ id: 'wing', fixture: 'perimeter-head-2', zone: 'wing-left', u: -0.2 }),
  pair({ id: 'mirror', fixture: 'mirror-head', zone: 'mirror-left' }),
  pair({ id: 'sill', fixture: 'perimeter-head-1', zone: 'sill-left', u: -0.3 }),
  pair({ id: 'quarter', fixture: 'perimeter-head-2', zone: 'quarter-glass-left' }),
  pair({ id: 'tail', fixture: 'perimeter-head-2', zone: 'hatch-panel-left' }),
  pair({ id: 'corner-r', fixture: 'perimeter-head-2', zone: 'corner-rear-left' }),
  place({ id: 'arrow', fixture: 'rear-arrow-bar', zone: 'rear-glass' }),
  pair({ id: 'scene', fixture: 'scene-flood', zone: 'roof-side-left' }),
  pair({ id: 'marker-f', fixture: 'door-edge-marker', zone: 'door-edge-front-left' }),
  pair({ id: 'marker-r', fixture: 'door-edge-marker', zone: 'door-edge-rear-left' }),
);

const BAR_LEFT = ['m1', 'm2', 'm3', 'm7', 'm8', 'm9', 'c1', 'c4'];
const BAR_RIGHT = ['m4', 'm5', 'm6', 'm10', 'm11', 'm12', 'c2', 'c3'];
const BAR_FRONT_WHITE = ['m3', 'm4'];

/** Groups and stages that both sisters share. */
const timing = (rear: readonly string[]): Edit =>
  all(
    group('front', 'Front and sides', FRONT),
    group('bar', 'Roof bar', ['bar']),
    group('rear', 'Rear', rear),
    group('arrow', 'Rear arrow', ['arrow']),
    group('scene', 'Scene light', ['scene']),
    group('doors', 'Door markers', ['marker-f', 'marker-r']),
    cue(1, 'rear', 'single'),
    cue(1, 'bar', 'single'),
    cue(1, 'doors', 'steady'),
    cue(2, 'front', 'double'),
    cue(2, 'bar', 'double'),
    cue(2, 'rear', 'double'),
    cue(2, 'doors', 'steady'),
    cue(3, 'front', 'quad'),
    cue(3, 'bar', 'quad'),
    cue(3, 'rear', 'double'),
    cue(3, 'doors', 'steady'),
    nights(0.6, 0.7, 0.8),
  );

/** KS-12: side-split colours, rear first; with a few honest mistakes left in. */
export const ks12: Edit = all(
  heads,
  paint(['scene'], 'white'),
  paint(['marker-f', 'marker-r'], 'red'),
  paintSides(SIDES, ['red', 'white'], ['blue', 'white']),
  paintModules('bar', BAR_LEFT, ['red', 'white'], 'A'),
  paintModules('bar', BAR_RIGHT, ['blue', 'white'], 'B'),
  paint(['arrow'], 'amber'),
  timing(['tail', 'corner-r']),
  cue(1, 'arrow', 'sweep'),
  cue(2, 'arrow', 'slow-alternate'),
  cue(3, 'arrow', 'sweep'),
  cue(3, 'bar', 'single', 2),
  ungroup(['quarter-x']),
  cue(2, null, 'double'),
  cue(3, null, 'quad'),
);

/** KS-13: all colours on both sides, and the mistakes put right. */
export const ks13: Edit = all(
  heads,
  pair({ id: 'lip', fixture: 'hatch-lip-head', zone: 'hatch-lip', u: 0.4 }),
  pair({ id: 'bumper', fixture: 'perimeter-head-2', zone: 'rear-bumper', u: 0.4 }),
  paint(['scene'], 'white'),
  paint(['marker-f', 'marker-r'], 'red'),
  paint([...SIDES, 'lip', 'bumper'], 'red', 'blue'),
  paintModules('bar', BAR_LEFT, ['red', 'blue'], 'A'),
  paintModules('bar', BAR_RIGHT, ['red', 'blue'], 'B'),
  paintModules('bar', BAR_FRONT_WHITE, ['red', 'blue', 'white'], 'A'),
  paint(['arrow'], 'amber'),
  timing(['tail', 'corner-r', 'lip', 'bumper']),
  cue(1, 'arrow', 'sweep'),
  cue(2, 'arrow', 'sweep'),
  cue(3, 'arrow', 'sweep'),
  cue(3, 'bar', 'single', 3),
  // Matt black film, against what the bar throws on it.
  finishes({ surface: 'bonnet', percent: 6 }),
);
