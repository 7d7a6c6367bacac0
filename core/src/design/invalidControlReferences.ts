import { duplicateIds, type DanglingReference } from '../words/danglingReference.ts';
import { depthOf, leavesOf, MOST_DEPTH, type Condition, type InputEvent } from './condition.ts';
import { onsOf } from './controls.ts';
import { cueFailure } from './cues.ts';
import type { LampSet } from './lampSets.ts';
import { isLampInput } from './lampMoves.ts';
import { MOST_CUES_IN_ALL, type ControlFunction, type FunctionEffect, type Target } from './functions.ts';
import { inputsOf, partInput, REGION, type Input } from './inputs.ts';
import { placesOf } from './panel.ts';
import type { BuildParts } from './parts.ts';
import { isAllowed, findCycle } from './programFaults.ts';

type Path = readonly PropertyKey[];

/** Every id in the controls that names nothing, and every programme that cannot run. */
export function* invalidControlReferences(build: BuildParts): Generator<DanglingReference> {
  const { controls } = build;
  const all = controls.functions.flatMap((fn) => fn.shows.flatMap(({ cues }) => cues)).length;
  if (all > MOST_CUES_IN_ALL) {
    yield {
      path: ['controls', 'functions'],
      reason: `have ${all} cues; at most ${MOST_CUES_IN_ALL} can be checked`,
    };
    return;
  }
  const inputs = new Map(inputsOf(build).map((input) => [input.id, input]));
  const known = new Known(build, inputs);
  yield* duplicateIds(controls.functions, ['controls', 'functions']);
  yield* duplicateIds(controls.sets, ['controls', 'sets']);
  yield* duplicateIds(controls.loads, ['controls', 'loads']);
  yield* duplicateIds(controls.panels, ['controls', 'panels']);
  yield* duplicateIds(controls.trials, ['controls', 'trials']);
  yield* looseInputs(build);
  for (const [i, set] of controls.sets.entries()) yield* looseSet(set, known, ['controls', 'sets', i]);
  yield* loosePanels(build, known);
  for (const [i, fn] of controls.functions.entries())
    yield* looseFunction(build, fn, known, ['controls', 'functions', i]);
  if (controls.enabledBy !== null)
    yield* looseCondition(controls.enabledBy, known, ['controls', 'enabledBy'], 'inputs');
  for (const [i, { when, then }] of controls.never.entries()) {
    yield* looseCondition(when, known, ['controls', 'never', i, 'when'], 'inputs');
    yield* looseCondition(then, known, ['controls', 'never', i, 'then'], 'inputs');
  }
  for (const [i, f] of controls.follows.entries()) {
    yield* looseValues(f.input, f.values, known, ['controls', 'follows', i]);
    yield* looseValues(f.follower, [f.takes], known, ['controls', 'follows', i]);
  }
  yield* looseTrials(build, known);
  yield* looseRooms(build, known);
  for (const [i, p] of build.placements.entries())
    for (const [k, id] of p.stopsFor.entries())
      if (!known.functions.has(id))
        yield { path: ['placements', i, 'stopsFor', k], reason: `no function '${id}'` };
  const ring = findCycle(controls.functions);
  if (ring !== null)
    yield {
      path: ['controls', 'functions', ring.at],
      reason: `functions wait for each other: ${ring.names.join(' → ')}`,
    };
  const rest = new Map([...inputs.values()].map((input) => [input.id, input.values[0] ?? '']));
  const broken = controls.never.findIndex((rule) => !isAllowed(rule, rest));
  if (broken >= 0)
    yield {
      path: ['controls', 'never', broken],
      reason: 'excludes the default values: the program could not start',
    };
}

/** What ids in the controls may name. */
class Known {
  readonly functions: ReadonlySet<string>;
  readonly ons: ReadonlySet<string>;
  readonly groups: ReadonlySet<string>;
  readonly sets: ReadonlySet<string>;
  readonly loads: ReadonlyMap<string, readonly string[]>;
  readonly buttons: ReadonlySet<string>;
  readonly controls: ReadonlySet<string>;
  readonly modules: ReadonlySet<string>;
  /** What a twin stands for. */
  readonly twinOf: ReadonlyMap<string, string>;
  readonly inputs: ReadonlyMap<string, Input>;

  constructor({ controls, timing, placements }: BuildParts, inputs: ReadonlyMap<string, Input>) {
    this.inputs = inputs;
    this.functions = new Set(controls.functions.map((f) => f.id));
    this.ons = new Set(controls.functions.flatMap(onsOf));
    this.groups = new Set(timing.groups.map((g) => g.id));
    this.sets = new Set(controls.sets.map((s) => s.id));
    this.loads = new Map(controls.loads.map((l) => [l.id, l.values]));
    const all = controls.panels.flatMap((p) => p.controls);
    this.controls = new Set(all.map((c) => c.id));
    this.twinOf = new Map(all.flatMap((c) => (c.twinOf === null ? [] : [[c.id, c.twinOf]])));
    this.buttons = new Set(all.filter((c) => c.kind === 'button').map((c) => c.id));
    this.modules = new Set(placements.flatMap((p) => p.modules.map((m) => `${p.id}/${m.id}`)));
  }
}

function* looseSet(
  { rule, modules, without }: LampSet,
  known: Known,
  path: Path,
): Generator<DanglingReference> {
  for (const [list, members] of Object.entries({ modules, without }))
    for (const [k, m] of members.entries())
      if (!known.modules.has(`${m.placementId}/${m.moduleId}`))
        yield {
          path: [...path, list, k],
          reason: `no module '${m.moduleId}' of a lamp '${m.placementId}'`,
        };
  // Zones, parts and groups come and go: what asks about one that is gone never applies.
  for (const [k, c] of (rule?.clauses ?? []).entries()) {
    const at = [...path, 'rule', 'clauses', k];
    if (c.about === 'shines' && !c.closed && c.stops.length === 0)
      yield { path: at, reason: 'names no pose: closed, or a stop that is open' };
  }
}

function* looseInputs(build: BuildParts): Generator<DanglingReference> {
  const taken = new Set<string>();
  const own = new Set(build.controls.inputs.map((i) => i.id));
  for (const { id, source } of inputsOf(build)) {
    if (taken.has(id))
      yield {
        path: ['controls', source === 'own' || own.has(id) ? 'inputs' : 'panels'],
        reason: `'${id}' is used twice: it is the name of an input already`,
      };
    taken.add(id);
  }
}

function* loosePanels({ controls }: BuildParts, known: Known): Generator<DanglingReference> {
  yield* duplicateIds(
    controls.panels.flatMap((p) => p.controls),
    ['controls', 'panels', 'controls'],
  );
  for (const [i, panel] of controls.panels.entries()) {
    const places = new Map<string, string>();
    for (const [k, control] of panel.controls.entries()) {
      const path = ['controls', 'panels', i, 'controls', k];
      const there = placesOf(control).flatMap((place) => places.get(place) ?? [])[0];
      if (there !== undefined) yield { path, reason: `is in the same cell as '${there}'` };
      for (const place of placesOf(control)) places.set(place, control.id);
      if (control.kind === 'button' && control.lamp !== null && !known.functions.has(control.lamp.functionId))
        yield { path: [...path, 'lamp'], reason: `no function '${control.lamp.functionId}'` };
      if ('values' in control && new Set(control.values).size !== control.values.length)
        yield { path: [...path, 'values'], reason: 'names a position twice' };
      if (control.twinOf === null) continue;
      const other = controls.panels.flatMap((p) => p.controls).find((c) => c.id === control.twinOf);
      const alike =
        other?.kind === control.kind &&
        other.twinOf === null &&
        JSON.stringify('values' in other ? other.values : null) ===
          JSON.stringify('values' in control ? control.values : null);
      if (!alike || other.id === control.id)
        yield {
          path: [...path, 'twinOf'],
          reason: `the twin '${control.id}' needs '${control.twinOf}' to be a ${control.kind} with the same positions`,
        };
    }
  }
}

/** Room for panels, where inputs come from, and the panel that operators are used to. */
function* looseRooms({ controls }: BuildParts, known: Known): Generator<DanglingReference> {
  yield* duplicateIds(controls.cabPlaces, ['controls', 'cabPlaces']);
  const rooms = new Set(controls.cabPlaces.map(({ id }) => id));
  for (const [i, { cabPlaceId }] of controls.panels.entries())
    if (cabPlaceId !== null && !rooms.has(cabPlaceId))
      yield { path: ['controls', 'panels', i, 'cabPlaceId'], reason: `no place '${cabPlaceId}' in the cab` };
  const told = new Set<string>();
  for (const [i, { input }] of controls.triggers.entries()) {
    const path = ['controls', 'triggers', i, 'input'];
    yield* looseValues(input, [], known, path);
    if (told.has(input)) yield { path, reason: `'${input}' is listed twice` };
    told.add(input);
  }
  yield* duplicateIds(controls.oldPanel, ['controls', 'oldPanel']);
  const places = new Map<string, string>();
  for (const [i, old] of controls.oldPanel.entries()) {
    const path = ['controls', 'oldPanel', i];
    const place = `${old.row}/${old.column}`;
    const there = places.get(place);
    if (there !== undefined) yield { path, reason: `is in the same cell as '${there}'` };
    places.set(place, old.id);
    for (const [k, id] of old.functionIds.entries())
      if (!known.functions.has(id))
        yield { path: [...path, 'functionIds', k], reason: `no function '${id}'` };
  }
}

function* looseFunction(
  build: BuildParts,
  fn: ControlFunction,
  known: Known,
  path: Path,
): Generator<DanglingReference> {
  const { when } = fn;
  if (when.way !== 'cycle' && fn.shows.length !== 1)
    yield { path: [...path, 'shows'], reason: 'only a cycle has more than one' };
  if (fn.enabledBy !== null && when.way === 'always')
    yield { path: [...path, 'enabledBy'], reason: 'a function that is always on cannot be enabled' };
  if (fn.choiceId !== null && (when.way === 'always' || when.way === 'while'))
    yield { path: [...path, 'choiceId'], reason: 'only what is remembered can be one of a choice' };
  if (when.way === 'while') yield* looseCondition(when.condition, known, [...path, 'when', 'condition']);
  if (fn.enabledBy !== null) yield* looseCondition(fn.enabledBy, known, [...path, 'enabledBy']);
  if (when.way === 'latched' || when.way === 'cycle') {
    const lists =
      when.way === 'latched' ? (['sets', 'clears', 'toggles'] as const) : (['sets', 'clears'] as const);
    for (const list of lists) {
      const events = list === 'toggles' ? (when.way === 'latched' ? when.toggles : []) : when[list];
      for (const [k, event] of events.entries()) yield* looseEvent(event, known, [...path, 'when', list, k]);
    }
    if (when.way === 'cycle')
      for (const [k, event] of when.steps.entries())
        yield* looseEvent(event, known, [...path, 'when', 'steps', k]);
  }
  for (const [s, shown] of fn.shows.entries()) yield* looseShown(build, shown, known, [...path, 'shows', s]);
}

function* looseShown(
  build: BuildParts,
  shown: FunctionEffect,
  known: Known,
  path: Path,
): Generator<DanglingReference> {
  for (const [c, cue] of shown.cues.entries()) {
    const at = [...path, 'cues', c];
    const loose = targetFault(cue.target, known);
    if (loose !== null) yield { path: [...at, 'target'], reason: loose };
    if (cue.show === 'dark') continue;
    for (const key of ['patternId', 'nightPatternId'] as const) {
      const patternId = cue[key];
      const reason = patternId === null ? null : cueFailure(build, cue.target, patternId);
      if (reason !== null) yield { path: [...at, key], reason };
    }
    for (const [k, own] of (cue.phases ?? []).entries())
      if (!known.modules.has(`${own.placementId}/${own.moduleId}`))
        yield {
          path: [...at, 'phases', k],
          reason: `no module '${own.moduleId}' of a lamp '${own.placementId}'`,
        };
  }
  for (const [d, dim] of shown.dims.entries())
    for (const [t, target] of dim.targets.entries()) {
      const loose = targetFault(target, known);
      if (loose !== null) yield { path: [...path, 'dims', d, 'targets', t], reason: loose };
    }
  for (const [l, { loadId, value }] of shown.loads.entries()) {
    const values = known.loads.get(loadId);
    if (values === undefined) yield { path: [...path, 'loads', l, 'loadId'], reason: `no load '${loadId}'` };
    else if (!values.includes(value))
      yield {
        path: [...path, 'loads', l, 'value'],
        reason: `'${loadId}' has no '${value}', only ${values.join(', ')}`,
      };
  }
}

function targetFault(target: Target, known: Known): string | null {
  switch (target.kind) {
    case 'group':
      return known.groups.has(target.groupId) ? null : `no sync group '${target.groupId}'`;
    case 'set':
      return known.sets.has(target.setId) ? null : `no set '${target.setId}'`;
    case 'ungrouped':
      return null;
  }
}

/** @param about - 'inputs' for a condition that must not ask about functions */
function* looseCondition(
  condition: Condition,
  known: Known,
  path: Path,
  about: 'inputs' | 'all' = 'all',
): Generator<DanglingReference> {
  if (depthOf(condition) > MOST_DEPTH) {
    yield { path: [...path], reason: `goes more than ${MOST_DEPTH} deep` };
    return;
  }
  for (const leaf of leavesOf(condition)) {
    if (leaf.kind === 'is') yield* looseValues(leaf.input, leaf.values, known, path);
    else if (about === 'inputs') yield { path: [...path], reason: 'may read inputs only' };
    else if (!known.functions.has(leaf.functionId))
      yield { path: [...path], reason: `no function '${leaf.functionId}'` };
  }
}

function* looseValues(
  inputId: string,
  values: readonly string[],
  known: Known,
  path: Path,
): Generator<DanglingReference> {
  const input = known.inputs.get(inputId);
  // Parts come and go with the vehicle, lamps with the layout, regions with the brief: what is asked of one that is gone never holds.
  if (inputId.startsWith(partInput('')) || isLampInput(inputId) || inputId === REGION) return;
  if (input === undefined) yield { path: [...path], reason: `no input '${inputId}'` };
  else
    for (const value of values)
      if (!input.values.includes(value))
        yield {
          path: [...path],
          reason: `'${inputId}' is never '${value}', only ${input.values.join(', ')}`,
        };
}

function* looseEvent(event: InputEvent, known: Known, path: Path): Generator<DanglingReference> {
  switch (event.kind) {
    case 'arrives':
      // A twin moves the control that it stands for.
      yield* looseValues(known.twinOf.get(event.input) ?? event.input, [event.value], known, path);
      return;
    case 'press':
      if (!known.buttons.has(event.control))
        yield { path: [...path], reason: `no button '${event.control}'` };
      return;
    case 'chord':
      for (const id of event.controls)
        if (!known.buttons.has(id)) yield { path: [...path], reason: `no button '${id}'` };
      if (event.controls[0] === event.controls[1])
        yield { path: [...path], reason: 'a chord needs two different buttons' };
  }
}

function* looseTrials({ controls }: BuildParts, known: Known): Generator<DanglingReference> {
  for (const [i, trial] of controls.trials.entries()) {
    for (const [k, step] of trial.steps.entries())
      if (step.kind === 'event') yield* looseEvent(step.event, known, ['controls', 'trials', i, 'steps', k]);
    for (const [k, on] of trial.on.entries())
      if (!known.ons.has(on))
        yield { path: ['controls', 'trials', i, 'on', k], reason: `no function '${on}'` };
  }
}
