import type { Condition, InputEvent } from '../design/condition.ts';
import { addFunction, putPanel, withControls } from '../design/controlEdits.ts';
import { stagesOf } from '../design/controls.ts';
import {
  darkCue,
  lightCue,
  shown,
  type ControlFunction,
  type Cue,
  type Dim,
  type FunctionKind,
  type Target,
} from '../design/functions.ts';
import { partInput } from '../design/inputs.ts';
import type { Control, Panel } from '../design/panel.ts';
import type { Build } from '../design/schema.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import type { MovingPart } from '../vehicle/types.ts';
import { bindKey, freeId } from './panelEdits.ts';
import {
  choosable,
  setOf,
  shinesAhead,
  shinesBack,
  shinesLeft,
  shinesRight,
  standsLeft,
  standsRight,
  type Choosable,
} from './sideSets.ts';

/** A function that practitioners ask for again and again, ready to be laid on a build and then changed. */
export interface ReadyFunction {
  readonly id: string;
  readonly name: string;
  readonly what: string;
  /** Why it cannot be laid on this build; null when it can. */
  readonly misfit: (build: Build) => string | null;
  readonly lay: (build: Build) => Build;
}

const is = (input: string, ...values: string[]): Condition => ({ kind: 'is', input, values });
const all = (...of: Condition[]): Condition => ({ kind: 'all', of });
const any = (...of: Condition[]): Condition => ({ kind: 'any', of });
const isOn = (functionId: string): Condition => ({ kind: 'on', functionId });
const press = (control: string): InputEvent => ({ kind: 'press', control, press: 'short' });
const during = (condition: Condition, staysMs = 0): ControlFunction['when'] => ({
  way: 'while',
  condition,
  afterMs: 0,
  staysMs,
});
const byKey = (control: string, clears: InputEvent[] = []): ControlFunction['when'] => ({
  way: 'latched',
  sets: [],
  clears,
  toggles: [press(control)],
  timeoutMs: 0,
});
const ofSet = (setId: string): Target => ({ kind: 'set', setId });
const steady = (setId: string, ink: 'white' | 'red' | 'amber' | 'green' | 1, level = 1): Cue =>
  lightCue(ofSet(setId), ink, 'steady', { level });

/** A function by its usual values. */
export const newFunction = (
  id: string,
  name: string,
  kind: FunctionKind,
  when: ControlFunction['when'],
  cues: Cue[],
  more: Partial<ControlFunction> = {},
): ControlFunction => ({
  id,
  name,
  label: name.slice(0, 12),
  kind,
  mode: null,
  shows: [shown(cues)],
  when,
  enabledBy: null,
  forgets: false,
  choiceId: null,
  mayStay: false,
  withoutMaster: false,
  ...more,
});

/** The warning stages beyond the first, during which supplements burn. */
const laterStages = (build: Build): Condition[] =>
  stagesOf(build)
    .filter(({ mode }) => mode !== null && mode >= 2)
    .map(({ id }) => isOn(id));
const warning = (build: Build): Condition[] =>
  stagesOf(build)
    .filter(({ mode }) => mode !== 0)
    .map(({ id }) => isOn(id));

const rearPart = (build: Build): MovingPart | undefined =>
  vehicleOf(build.vehicle).parts.find((p) => p.kind === 'hatch' || p.kind === 'tailgate');

const hasWhite = ({ colours }: Choosable): boolean => colours.includes('white');
const some = (build: Build, chosen: (m: Choosable) => boolean, what: string): string | null =>
  setOf(build, 'try', 'Try', chosen).set.modules.length > 0 ? null : `there is no ${what}`;
const there = (build: Build, id: string): string | null =>
  build.controls.functions.some((fn) => fn.id === id) ? 'it is there already' : null;
const first = (...reasons: (string | null)[]): string | null => reasons.find((r) => r !== null) ?? null;

/** Flashers of tied-in lamps of the maker's stop for a signal. */
function stoppingFor(build: Build, signalId: string): Build {
  const factory = new Set(
    choosable(build)
      .filter((m) => m.factory)
      .map((m) => m.placementId),
  );
  return {
    ...build,
    placements: build.placements.map((p) =>
      factory.has(p.id) && !p.stopsFor.includes(signalId) ? { ...p, stopsFor: [...p.stopsFor, signalId] } : p,
    ),
  };
}

/** Puts a function where it belongs: signals on top, what takes light away next, other light above the stages, the rest below. */
function lay(build: Build, fn: ControlFunction): Build {
  const { functions } = build.controls;
  const stage = functions.findIndex((f) => f.kind === 'stage');
  if (fn.kind === 'signal') return stoppingFor(addFunction(build, fn, 0), fn.id);
  const signals = functions.filter((f) => f.kind === 'signal').length;
  if (fn.kind === 'cut') return addFunction(build, fn, signals);
  const above = fn.kind === 'light' || fn.kind === 'warning';
  return addFunction(build, fn, above && stage >= 0 ? stage : undefined);
}

export const READY_FUNCTIONS: readonly ReadyFunction[] = [
  {
    id: 'white-override',
    name: 'White override',
    what: 'A key turns all forward white steady, with or without warning.',
    misfit: (b) =>
      first(
        there(b, 'white'),
        some(b, (m) => hasWhite(m) && shinesAhead(m), 'white light ahead'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'white-ahead', 'White ahead', (m) => hasWhite(m) && shinesAhead(m));
      const key = bindKey(build, 'white', 'White', 'white');
      return lay(
        key.build,
        newFunction('white', 'White override', 'light', byKey(key.controlId), [
          steady('white-ahead', 'white'),
        ]),
      );
    },
  },
  {
    id: 'fog-cancel',
    name: 'Fog cancel',
    what: 'A key takes white from everything that warns, and leaves its other colours.',
    misfit: (b) => first(there(b, 'fog'), some(b, hasWhite, 'white light')),
    lay: (b) => {
      const { build } = setOf(b, 'with-white', 'All with white', (m) => hasWhite(m) && m.warns);
      const key = bindKey(build, 'fog-cancel', 'No white', 'fog');
      return lay(
        key.build,
        newFunction('fog', 'Fog cancel', 'cut', byKey(key.controlId), [
          darkCue(ofSet('with-white'), ['white']),
        ]),
      );
    },
  },
  {
    id: 'hatch-supplement',
    name: 'Hatch supplement',
    what: 'While the hatch or tailgate is open in stage 2 or 3, lamps under it take over; they stay 5 s longer.',
    misfit: (b) =>
      first(
        there(b, 'hatch-supplement'),
        rearPart(b) === undefined ? 'the vehicle has no hatch or tailgate' : null,
        some(b, shinesBack, 'lamp that shines to the rear'),
        laterStages(b).length === 0 ? 'there is no stage 2 or 3' : null,
      ),
    lay: (b) => {
      const part = rearPart(b);
      if (part === undefined) return b;
      const under = setOf(b, 'under-hatch', 'Under the hatch', (m) => shinesBack(m) && m.partId === part.id);
      const set =
        under.set.modules.length > 0
          ? under
          : setOf(b, 'under-hatch', 'To the rear', (m) => shinesBack(m) && m.warns && !m.factory);
      return lay(
        set.build,
        newFunction(
          'hatch-supplement',
          'Hatch supplement',
          'warning',
          during(
            all(is(partInput(part.id), ...part.stops.map((s) => s.id)), any(...laterStages(set.build))),
            5000,
          ),
          [lightCue(ofSet(set.set.id), 1, 'double')],
        ),
      );
    },
  },
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
    what: 'While a turn signal shows, the warning heads beside it go dark so that it reads.',
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
        newFunction(id, name, 'cut', during(is('turn', value)), [darkCue(ofSet(setId))]);
      return [
        turn('turn-left', 'Left turn reads', 'left', 'beside-left'),
        turn('turn-right', 'Right turn reads', 'right', 'beside-right'),
      ].reduce(lay, right.build);
    },
  },
  {
    id: 'alley',
    name: 'Alley lights',
    what: 'A key for each side burns white to that side; the rest goes on flashing.',
    misfit: (b) =>
      first(
        there(b, 'alley-left'),
        some(b, (m) => hasWhite(m) && (shinesLeft(m) || shinesRight(m)), 'white light to a side'),
      ),
    lay: (b) =>
      (
        [
          ['left', shinesLeft],
          ['right', shinesRight],
        ] as const
      ).reduce((build, [side, shines]) => {
        const id = `alley-${side}`;
        const name = `${side === 'left' ? 'Left' : 'Right'} alley`;
        const { build: withSet, set } = setOf(build, id, name, (m) => hasWhite(m) && shines(m));
        if (set.modules.length === 0) return build;
        const key = bindKey(withSet, id, name, id);
        return lay(key.build, newFunction(id, name, 'light', byKey(key.controlId), [steady(id, 'white')]));
      }, b),
  },
  {
    id: 'scene',
    name: 'Scene light',
    what: 'A key for the flood and scene lights.',
    misfit: (b) =>
      first(
        there(b, 'scene-light'),
        some(b, (m) => !m.warns && !m.factory, 'scene, work or cabin light'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'scene-light', 'Scene lights', (m) => !m.warns && !m.factory);
      const key = bindKey(build, 'scene-light', 'Scene', 'scene-light');
      return lay(
        key.build,
        newFunction('scene-light', 'Scene light', 'light', byKey(key.controlId), [
          lightCue(ofSet('scene-light'), 1, 'steady'),
        ]),
      );
    },
  },
  {
    id: 'command-green',
    name: 'Command green',
    what: 'A key shows green from the heads that have it and drops their red and white; it gives them back.',
    misfit: (b) =>
      first(
        there(b, 'command-green'),
        some(b, (m) => m.colours.includes('green'), 'green light'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'green', 'All with green', (m) => m.colours.includes('green'));
      const key = bindKey(build, 'command-green', 'Command', 'command-green');
      return lay(
        key.build,
        newFunction('command-green', 'Command green', 'warning', byKey(key.controlId), [
          steady('green', 'green'),
        ]),
      );
    },
  },
  {
    id: 'park-slow',
    name: 'Slow in park',
    what: 'In park every later stage shows a slow pattern instead, at any slide position.',
    misfit: (b) =>
      first(
        there(b, 'park-slow'),
        laterStages(b).length === 0 ? 'there is no stage 2 or 3' : null,
        b.timing.groups.length === 0 ? 'there is no sync group' : null,
      ),
    lay: (b) =>
      lay(
        b,
        newFunction(
          'park-slow',
          'Slow in park',
          'warning',
          during(all(is('gear', 'park'), any(...laterStages(b)))),
          b.timing.groups.map((g) => lightCue({ kind: 'group', groupId: g.id }, 1, 'slow-alternate')),
          { mode: 2 },
        ),
      ),
  },
  {
    id: 'night-dim',
    name: 'Night dim',
    what: 'At night, warning light ahead is dimmed to 40 %; scene light stays full.',
    misfit: (b) =>
      first(
        there(b, 'night-dim'),
        some(b, (m) => shinesAhead(m) && m.warns, 'warning light ahead'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'ahead', 'All ahead', (m) => shinesAhead(m) && m.warns);
      const dims: Dim[] = [{ targets: [ofSet('ahead')], factor: 0.4, kinds: ['stage', 'warning'] }];
      return lay(
        build,
        newFunction('night-dim', 'Night dim', 'dim', during(is('ambient', 'night')), [], {
          shows: [shown([], { dims })],
        }),
      );
    },
  },
  {
    id: 'siren',
    name: 'Siren',
    what: 'Tones by key, wail, yelp and off, while a stage is on and nothing at the rear stands open; the horn ring steps on.',
    misfit: (b) => first(there(b, 'siren'), warning(b).length === 0 ? 'there is no stage' : null),
    lay: (b) => {
      const loads = b.controls.loads.some((l) => l.id === 'siren')
        ? b.controls.loads
        : [...b.controls.loads, { id: 'siren', name: 'Siren', values: ['off', 'wail', 'yelp'] }];
      const part = rearPart(b);
      const open = part === undefined ? [] : [is(partInput(part.id), ...part.stops.map((s) => s.id))];
      const key = bindKey(withControls(b, { loads }), 'siren', 'Siren', 'siren');
      const tone = (value: string) => shown([], { loads: [{ loadId: 'siren', value }] });
      return lay(
        key.build,
        newFunction(
          'siren',
          'Siren',
          'load',
          { way: 'cycle', sets: [], steps: [press(key.controlId)], clears: [], wraps: 'off', timeoutMs: 0 },
          [],
          {
            shows: [tone('wail'), tone('yelp')],
            enabledBy: all(any(...warning(b)), ...open.map((c): Condition => ({ kind: 'not', of: c }))),
            forgets: true,
          },
        ),
      );
    },
  },
  {
    id: 'courtesy',
    name: 'Courtesy light',
    what: 'With a door open and the ignition off, light inside burns, and 30 s longer.',
    misfit: (b) =>
      first(
        there(b, 'courtesy'),
        some(b, (m) => !m.warns && !m.factory, 'scene, work or cabin light'),
        vehicleOf(b.vehicle).parts.some((p) => p.kind === 'door') ? null : 'the vehicle has no doors',
      ),
    lay: (b) => {
      const { build } = setOf(b, 'inside', 'Inside', (m) => !m.warns && !m.factory);
      const doors = vehicleOf(build.vehicle).parts.filter((p) => p.kind === 'door');
      return lay(
        build,
        newFunction(
          'courtesy',
          'Courtesy light',
          'light',
          during(
            all(
              any(...doors.slice(0, 12).map((d) => is(partInput(d.id), ...d.stops.map((s) => s.id)))),
              is('ignition', 'off'),
            ),
            30_000,
          ),
          [lightCue(ofSet('inside'), 1, 'steady', { level: 0.3 })],
          { mayStay: true, withoutMaster: true },
        ),
      );
    },
  },
];

/** A panel at the rear with twins of the keys that are used from there. */
export function layRearPanel(build: Build): Build {
  const wanted = build.controls.panels
    .flatMap((p) => p.controls)
    .filter((c) => c.twinOf === null && c.kind !== 'spare' && c.kind !== 'horn ring')
    .slice(0, 8);
  const id = freeId(build, 'rear-panel');
  const empty: Panel = {
    id,
    name: 'Rear panel',
    place: 'rear desk',
    touch: false,
    widthMm: 160,
    heightMm: 60,
    depthMm: 40,
    controls: [],
  };
  // A row for each switch, then the keys, four in a row.
  const switches = wanted.filter((c) => 'values' in c);
  const keys = wanted.filter((c) => !('values' in c));
  const placed = [
    ...switches.map((c, i) => ({ c, column: 1, row: 1 + i })),
    ...keys.map((c, i) => ({ c, column: 1 + (i % 4), row: 1 + switches.length + Math.floor(i / 4) })),
  ];
  const controls = placed.map(({ c, column, row }): Control => ({
    ...c,
    id: freeId(build, `rear-${c.id}`),
    page: 1,
    column,
    row,
    twinOf: c.id,
  }));
  return controls.length === 0 ? build : putPanel(build, { ...empty, controls });
}
