import { CONTROL_TEMPLATES } from '@flarik/core/arrange/controlTemplates';
import { bindKey, button, freePlace, newPanel } from '@flarik/core/arrange/panelEdits';
import {
  darkCue,
  groupTarget,
  lightCue,
  newFunction,
  type ControlFunction,
  type Cue,
} from '@flarik/core/design/functions';
import { FUNCTION_TEMPLATES } from '@flarik/core/arrange/templates/functionTemplates';
import { forUse, onSide, shining, withRuledSet } from '@flarik/core/arrange/lampSets';
import { onsIn, compileProgram } from '@flarik/core/controls/program';
import { readScript } from '@flarik/core/controls/script';
import { initialSimulation } from '@flarik/core/controls/simulator';
import { play } from '@flarik/core/controls/controlTest';
import {
  addFunction,
  changeFunction,
  putPanel,
  saveTest,
  rankFunction,
  removeFunction,
  withControls,
} from '@flarik/core/design/controlEdits';
import { addRequirement } from '@flarik/core/design/briefEdits';
import type { Condition } from '@flarik/core/design/condition';
import type { BehaviourRequirement } from '@flarik/core/rules/brief/requirements/behaviour';
import { addPattern } from '@flarik/core/design/patternEdits';
import type { Trigger } from '@flarik/core/design/controls';
import type { CabPlace } from '@flarik/core/design/panel';
import { all, type Edit } from './sketch.ts';

const template =
  (id: string): Edit =>
  (build) => {
    const found = CONTROL_TEMPLATES.find((t) => t.id === id);
    if (found === undefined) throw new Error(`no template ${id}`);
    return found.applyTemplate(build);
  };

/** A ready function; a demo that names one which does not fit is wrong. */
const ready =
  (id: string): Edit =>
  (build) => {
    const found = FUNCTION_TEMPLATES.find((f) => f.id === id);
    const why = found === undefined ? 'there is none' : found.misfit(build);
    if (found === undefined || why !== null) throw new Error(`ready function ${id}: ${String(why)}`);
    return found.applyTemplate(build);
  };

/** Keeps what a script leads to as a trial. */
const trial =
  (id: string, name: string, script: string): Edit =>
  (build) => {
    const programme = compileProgram(build);
    const steps = readScript(programme, script, id);
    const played = play(programme, steps);
    const refused = played.find((p) => p.refused);
    if (refused !== undefined)
      throw new Error(`trial ${id}: ${JSON.stringify(refused.step)} does not happen`);
    const { state } = played.at(-1)?.running ?? initialSimulation(programme);
    return saveTest(build, { id, name, steps, on: onsIn(programme, state) });
  };

type Room = Pick<CabPlace, 'id' | 'name' | 'widthMm' | 'heightMm' | 'depthMm'>;

/** Space in the cab, within reach. */
const rooms =
  (...list: readonly Room[]): Edit =>
  (build) =>
    withControls(build, {
      cabPlaces: list.map((room) => ({ ...room, airbag: false, reached: true, replaceable: true })),
    });

const takes =
  (panelId: string, cabPlaceId: string): Edit =>
  (build) =>
    withControls(build, {
      panels: build.controls.panels.map((p) => (p.id === panelId ? { ...p, cabPlaceId } : p)),
    });

const comesFrom =
  (...triggers: Trigger[]): Edit =>
  (build) =>
    withControls(build, { triggers });

/** Operators keep a control where it is. */
const usedTo =
  (controlId: string, functionIds: string[]): Edit =>
  (build) => {
    const control = build.controls.panels.flatMap((p) => p.controls).find(({ id }) => id === controlId);
    if (control === undefined) throw new Error(`no control ${controlId}`);
    const there = new Set(build.controls.functions.map(({ id }) => id));
    const { kind, label, column, row } = control;
    return withControls(build, {
      oldPanel: [
        {
          id: `old-${controlId}`,
          kind,
          label,
          column,
          row,
          functionIds: functionIds.filter((id) => there.has(id)),
        },
      ],
    });
  };

const stagesByTheSlide = trial('slide', 'The slide brings its stage', 'ignition=on, slide=2');
const reverseOverStage = trial('reverse', 'Reverse over stage 2', 'ignition=on, slide=2, gear=reverse');
const hatchStays = trial(
  'hatch',
  'The hatch supplement stays 5 s',
  'ignition=on, slide=3, part.hatch=hatch, part.hatch=shut, wait=4000',
);
const fogTakesWhite = trial(
  'fog',
  'No white in fog',
  'ignition=on, slide=3, key-white=press, key-fog-cancel=press',
);

const is = (input: string, ...values: string[]): Condition => ({ kind: 'is', input, values });
const wish =
  (id: string, w: Pick<BehaviourRequirement, 'says' | 'when' | 'unless' | 'subject' | 'is'>): Edit =>
  (build) =>
    addRequirement(build, {
      kind: 'behaviour',
      id,
      severity: 'blocks',
      atLeast: 1,
      patternId: null,
      mostLevel: null,
      withinS: null,
      ...w,
    });

/** What the patrol asks of its programme, whatever is operated. */
const patrolWishes: Edit = all(
  wish('no-white-in-fog', {
    says: 'whenever',
    when: { kind: 'on', functionId: 'fog' },
    unless: is('gear', 'reverse'),
    subject: { kind: 'lamps', target: { kind: 'set', setId: 'with-white' }, colours: ['white'], faces: [] },
    is: 'dark',
  }),
  ...(['left', 'right'] as const).map((side) =>
    wish(`turn-reads-${side}`, {
      says: 'whenever',
      when: { kind: 'all', of: [is('ignition', 'on'), is('turn', side)] },
      unless: { kind: 'any', of: [is('brake', 'down'), is('gear', 'reverse')] },
      subject: { kind: 'lamps', target: { kind: 'set', setId: `beside-${side}` }, colours: [], faces: [] },
      is: 'dark',
    }),
  ),
  wish('no-siren-at-the-hatch', {
    says: 'never',
    when: is('part.hatch', 'hatch'),
    unless: null,
    subject: { kind: 'load', loadId: 'siren' },
    is: 'on',
  }),
);

/** The sister without mistakes. */
export const patrol: Edit = all(
  template('slide-eight'),
  patrolWishes,
  stagesByTheSlide,
  hatchStays,
  fogTakesWhite,
);

/**
 * The patrol car with three honest mistakes: white by hand ranks above fog cancel, the right side does not go dark for
 * its turn signal, and the siren sounds with the hatch open.
 */
export const patrolWithMistakes: Edit = all(
  template('slide-eight'),
  (b) =>
    rankFunction(
      b,
      'white',
      b.controls.functions.findIndex((f) => f.id === 'fog'),
    ),
  (b) => removeFunction(b, 'turn-right'),
  (b) =>
    changeFunction(b, 'siren', {
      enabledBy: { kind: 'is', input: 'ignition', values: ['on'] },
    }),
  patrolWishes,
  stagesByTheSlide,
  hatchStays,
);

export const unmarked: Edit = all(
  template('siren-pedestal'),
  ready('pattern-key'),
  trial(
    'pattern',
    'The second pattern, and back to the stage’s own',
    'ignition=on, slide=2, key-pattern-key=press, key-pattern-key=press',
  ),
  trial('siren', 'The last position adds the siren', 'ignition=on, slide=siren'),
);

/** The crew works at the pump panel on the left: calm there while the pump is engaged, and light to work by. */
export const pumper: Edit = all(
  template('slide-eight'),
  // Its few low heads to the rear stand beside stop, turn and reversing lamps: given to all, none would be left to warn.
  (b) => removeFunction(removeFunction(b, 'brake'), 'reverse'),
  (b) =>
    withControls(b, {
      inputs: [{ id: 'pump', name: 'Pump engaged', values: ['no', 'yes'], byHand: false }],
    }),
  (b) => {
    const { build, set } = withRuledSet(b, 'crew-side', 'Crew side', [
      forUse('warning', 'factory'),
      shining('left'),
      onSide('left'),
    ]);
    return addFunction(
      build,
      newFunction(
        'crew-calm',
        'Crew side calm',
        'cut',
        {
          way: 'while',
          condition: { kind: 'is', input: 'pump', values: ['yes'] },
          afterMs: 0,
          staysMs: 0,
        },
        [darkCue({ kind: 'set', setId: set.id }, ['white'])],
      ),
      0,
    );
  },
  (b) => {
    const panel = newPanel('pump-panel', 'Pump panel');
    const at = freePlace(panel) ?? { page: 1, column: 1, row: 1 };
    const scene = b.controls.panels.flatMap((p) => p.controls).find((c) => c.id === 'key-scene-light');
    const key = button('pump-scene', 'Scene', at, 'scene-light');
    return putPanel(b, {
      ...panel,
      place: 'pump panel',
      controls: scene === undefined ? [] : [{ ...key, twinOf: scene.id }],
    });
  },
  rooms(
    { id: 'console', name: 'Centre console', widthMm: 210, heightMm: 100, depthMm: 70 },
    { id: 'pump', name: 'Beside the pump gauges', widthMm: 240, heightMm: 120, depthMm: 60 },
  ),
  takes('panel', 'console'),
  takes('pump-panel', 'pump'),
  comesFrom(
    { input: 'pump', source: 'wire', note: 'The pump switch, closed while it is engaged' },
    { input: 'turn', source: 'data bus', note: 'Turn signals, from the maker’s gateway' },
  ),
  stagesByTheSlide,
  trial('pump', 'Calm to the crew while it pumps', 'ignition=on, slide=2, pump=yes'),
);

/** Loading at the rear, the patient taken in from the right: light there by a key, and no white flashing at the bearers. */
export const medic: Edit = all(
  template('slide-eight'),
  ready('door-lamps'),
  (b) => {
    const light = withRuledSet(b, 'patient-light', 'Patient side, light', [
      forUse('light'),
      shining('right'),
      onSide('right'),
    ]);
    const flashing = withRuledSet(light.build, 'patient-side', 'Patient side', [
      forUse('warning', 'factory'),
      shining('right'),
    ]);
    const key = bindKey(flashing.build, 'patient', 'Patient', 'patient-light');
    const toggled: ControlFunction['when'] = {
      way: 'latched',
      sets: [],
      clears: [],
      toggles: [{ kind: 'press', control: key.controlId, press: 'short' }],
      timeoutMs: 0,
    };
    const on: ControlFunction['when'] = {
      way: 'while',
      condition: { kind: 'on', functionId: 'patient-light' },
      afterMs: 0,
      staysMs: 0,
    };
    const of = (setId: string) => ({ kind: 'set', setId }) as const;
    const lit = newFunction(
      'patient-light',
      'Patient side light',
      'light',
      toggled,
      [lightCue(of('patient-light'), 'white', 'steady')],
      { enabledBy: is('gear', 'park'), forgets: true },
    );
    const calm = newFunction('patient-calm', 'Patient side calm', 'cut', on, [
      darkCue(of('patient-side'), ['white']),
    ]);
    const stage = key.build.controls.functions.findIndex((f) => f.kind === 'stage');
    return addFunction(addFunction(key.build, lit, stage), calm, 0);
  },
  stagesByTheSlide,
  reverseOverStage,
  trial(
    'loading',
    'Both doors pinned, light to the patient side',
    'ignition=on, slide=2, part.barn-door-left=barn-door-left-180, part.barn-door-right=barn-door-right-180, key-patient=press',
  ),
);

export const command: Edit = all(
  template('slide-eight'),
  ready('command-green'),
  ready('cruise'),
  ready('all-dark'),
  template('rear-panel'),
  stagesByTheSlide,
  trial('green', 'Command green over stage 2', 'ignition=on, slide=2, key-command-green=press'),
  trial('cruise', 'Cruise on the way back', 'ignition=on, key-cruise=press'),
  trial('dark', 'All dark over stage 3', 'ignition=on, slide=3, key-all-dark=press'),
  trial('rear', 'Switched off from the rear', 'ignition=on, slide=2, rear-slide=off'),
);

export const canopy: Edit = all(
  template('six-keys'),
  ready('high-low'),
  trial('low', 'Low while traffic stands close', 'ignition=on, key-stage-2=press, key-low=press'),
  trial(
    'tailgate',
    'The arrow with the tailgate down',
    'ignition=on, key-stage-2=press, part.tailgate=tailgate',
  ),
  trial('one', 'One stage at a time', 'ignition=on, key-stage-1=press, key-stage-2=press'),
);

const onStage = (functionId: string): Condition => ({ kind: 'on', functionId });

/** A rotary switch for the arrow: to the left, to the right, both ways; the board has five columns of segments. */
export const convoy: Edit = all(
  template('slide-eight'),
  (b) =>
    addPattern(b, {
      kind: 'row',
      id: 'arrow-out',
      name: 'From the middle out, five columns',
      direction: 'from the middle',
      move: 'middle-out',
      heads: 5,
      stepMs: 140,
      show: 'hold',
      holdMs: 240,
      restMs: 200,
    }),
  (b) =>
    putPanel(b, {
      ...newPanel('arrow-panel', 'Arrow board'),
      place: 'dash',
      controls: [
        {
          kind: 'rotary',
          id: 'arrow',
          label: 'Arrow',
          page: 1,
          column: 1,
          row: 1,
          twinOf: null,
          backlit: true,
          values: ['off', 'left', 'right', 'both'],
        },
      ],
    }),
  (b) => {
    const cues = (pattern: string): Cue[] => [lightCue(groupTarget('board'), 1, pattern)];
    return (
      [
        ['left', 'sweep-back'],
        ['right', 'sweep'],
        ['both', 'arrow-out'],
      ] as const
    ).reduce((now, [way, pattern]) => {
      const stage = now.controls.functions.findIndex((f) => f.kind === 'stage');
      return addFunction(
        now,
        newFunction(
          `arrow-${way}`,
          `Arrow ${way}`,
          'warning',
          { way: 'while', condition: { kind: 'is', input: 'arrow', values: [way] }, afterMs: 0, staysMs: 0 },
          cues(pattern),
          // Parked in stage 1 the board would be too much for the crew behind.
          { enabledBy: { kind: 'any', of: [onStage('stage-2'), onStage('stage-3')] } },
        ),
        stage,
      );
    }, b);
  },
  stagesByTheSlide,
  ready('raised-alarm'),
  trial('arrow', 'Arrow to the right over stage 2', 'ignition=on, slide=2, arrow=right'),
);

export const oneSwitch: Edit = all(
  template('dash-switch'),
  ready('scene'),
  // Work light is wanted with the key out.
  (b) => changeFunction(b, 'scene-light', { mayStay: true }),
  usedTo('dash-switch', ['stage-1', 'stage-2']),
  trial('half', 'Half out is stage 1', 'dash-switch=half'),
);
