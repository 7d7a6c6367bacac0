import type { InputEvent } from '../design/condition.ts';
import type { ControlFunction } from '../design/functions.ts';
import { originalOf } from '../design/inputs.ts';
import { holds, isAllowed } from '../design/programFaults.ts';
import {
  eventName,
  isTimed,
  mostRemembered,
  type ControlState,
  type Phase,
  type ControlProgram,
  type ProgramEvent,
} from './program.ts';

/** What an event leads to. */
export interface Stepped {
  readonly state: ControlState;
  /** Functions whose memory the event set or stepped, whether it was clear or not: their timeouts begin anew. */
  readonly renewed: ReadonlySet<string>;
}

/** All inputs at rest, all memories clear. */
export function initialControlState(programme: ControlProgram): ControlState {
  const { controls } = programme;
  const values = new Map(programme.inputs.map(({ id, values: [rest = ''] }) => [id, rest]));
  const remembers = controls.functions.filter((fn) => mostRemembered(fn) > 0);
  const memory = new Map(remembers.map((fn) => [fn.id, 0]));
  const phases = new Map<string, Phase>(
    controls.functions.filter((fn) => isTimed(fn.when)).map((fn) => [fn.id, 'off']),
  );
  return settled(programme, values, memory, phases);
}

/**
 * One event, exactly as the programme takes it.
 * @returns null when the event does not happen: the input stands there already, or the values together are forbidden
 */
export function step(programme: ControlProgram, state: ControlState, event: ProgramEvent): Stepped | null {
  const moved = moveInputs(programme, state.values, event);
  if (moved === null) return null;
  const { values, happened } = moved;
  const ended = event.kind === 'ends' ? event.functionId : null;
  const { memory, renewed } = remember(programme, state, values, happened, ended);
  const phases = ended === null ? state.phases : endPhase(state.phases, ended);
  return { state: settled(programme, values, memory, phases), renewed };
}

/** The values after an event, and what functions listen to that happened; null when it does not happen. */
function moveInputs(
  programme: ControlProgram,
  before: ReadonlyMap<string, string>,
  event: ProgramEvent,
): { readonly values: ReadonlyMap<string, string>; readonly happened: ReadonlySet<string> } | null {
  const { controls } = programme;
  const happened = new Set<string>();
  if (event.kind === 'ends') return { values: before, happened };
  happened.add(eventName(programme, event));
  if (event.kind !== 'arrives') return { values: before, happened };
  const input = originalOf(controls, event.input);
  if (before.get(input) === event.value || !programme.knows(input, event.value)) return null;
  const values = new Map(before).set(input, event.value);
  const moved = new Set([input]);
  const arrives = (id: string, value: string) => happened.add(`arrives ${id} ${value}`);
  if (event.value === 'down' && !programme.isDeliberate(input)) happened.add(`press ${input} short`);
  for (const { input: leader, values: at, follower, takes } of controls.follows) {
    if (!moved.has(leader) || !at.includes(values.get(leader) ?? '')) continue;
    if (moved.has(follower) || values.get(follower) === takes) continue;
    values.set(follower, takes);
    moved.add(follower);
    arrives(follower, takes);
    if (takes === 'down' && !programme.isDeliberate(follower)) happened.add(`press ${follower} short`);
  }
  return controls.never.every((rule) => isAllowed(rule, values)) ? { values, happened } : null;
}

/** Whether a function may be on, by what enables it and what enables the programme. */
function isEnabled(
  { controls }: ControlProgram,
  fn: ControlFunction,
  values: ReadonlyMap<string, string>,
  isOn: (id: string) => boolean,
): boolean {
  const master = fn.withoutMaster || controls.enabledBy === null || holds(controls.enabledBy, values, isOn);
  return master && (fn.enabledBy === null || holds(fn.enabledBy, values, isOn));
}

function remember(
  programme: ControlProgram,
  state: ControlState,
  values: ReadonlyMap<string, string>,
  happened: ReadonlySet<string>,
  ended: string | null,
): { readonly memory: ReadonlyMap<string, number>; readonly renewed: ReadonlySet<string> } {
  const memory = new Map(state.memory);
  const renewed = new Set<string>();
  const hears = (events: readonly InputEvent[]) =>
    events.some((event) => happened.has(eventName(programme, event)));
  for (const fn of programme.ranked) {
    const { when, id } = fn;
    if (when.way !== 'latched' && when.way !== 'cycle') continue;
    const before = memory.get(id) ?? 0;
    if (ended !== null) {
      if (ended === id) memory.set(id, 0);
    } else if (!isEnabled(programme, fn, values, (other) => state.on.has(other))) {
      if (fn.forgets) memory.set(id, 0);
    } else if (hears(when.clears)) memory.set(id, 0);
    else if (hears(when.sets)) {
      memory.set(id, 1);
      renewed.add(id);
    } else if (when.way === 'latched' && hears(when.toggles)) {
      memory.set(id, 1 - before);
      if (before === 0) renewed.add(id);
    } else if (when.way === 'cycle' && hears(when.steps)) {
      const next = before < fn.shows.length ? before + 1 : when.wraps === 'first' ? 1 : 0;
      memory.set(id, next);
      if (next > 0) renewed.add(id);
    }
  }
  keepChoices(programme, state.memory, memory);
  return { memory, renewed };
}

/** Of a choice one is remembered: the one that came last; of several at once the strongest. */
function keepChoices(
  { ranked }: ControlProgram,
  before: ReadonlyMap<string, number>,
  memory: Map<string, number>,
): void {
  const settledChoices = new Set<string>();
  for (const { id, choiceId } of ranked) {
    const came = (before.get(id) ?? 0) === 0 && (memory.get(id) ?? 0) > 0;
    if (choiceId === null || !came || settledChoices.has(choiceId)) continue;
    settledChoices.add(choiceId);
    for (const other of ranked) if (other.choiceId === choiceId && other.id !== id) memory.set(other.id, 0);
  }
}

function endPhase(phases: ReadonlyMap<string, Phase>, id: string): ReadonlyMap<string, Phase> {
  const phase = phases.get(id);
  if (phase !== 'waiting' && phase !== 'staying') return phases;
  return new Map(phases).set(id, phase === 'waiting' ? 'on' : 'off');
}

/** What is on, given values, memories and phases, each as it stands or before it is judged; functions that forget and are not enabled have forgotten. */
export function settled(
  programme: ControlProgram,
  values: ReadonlyMap<string, string>,
  memory: ReadonlyMap<string, number>,
  before: ReadonlyMap<string, Phase>,
): ControlState {
  const on = new Set<string>();
  const phases = new Map(before);
  const forgotten: string[] = [];
  const isOn = (id: string) => on.has(id);
  for (const fn of programme.inOrder) {
    const { id, when } = fn;
    const enabled = isEnabled(programme, fn, values, isOn);
    const remembered = (memory.get(id) ?? 0) > 0;
    if (!enabled && fn.forgets && remembered) forgotten.push(id);
    switch (when.way) {
      case 'always':
        if (enabled) on.add(id);
        break;
      case 'latched':
      case 'cycle':
        if (enabled && remembered) on.add(id);
        break;
      case 'while': {
        const condition = enabled && holds(when.condition, values, isOn);
        if (!isTimed(when)) {
          if (condition) on.add(id);
          break;
        }
        const phase = enabled ? nextPhase(phases.get(id) ?? 'off', condition, when) : 'off';
        phases.set(id, phase);
        if (phase === 'on' || phase === 'staying') on.add(id);
      }
    }
  }
  return { values, memory: without(memory, forgotten), phases, on };
}

function without(
  memory: ReadonlyMap<string, number>,
  forgotten: readonly string[],
): ReadonlyMap<string, number> {
  if (forgotten.length === 0) return memory;
  const left = new Map(memory);
  for (const id of forgotten) left.set(id, 0);
  return left;
}

function nextPhase(
  phase: Phase,
  condition: boolean,
  { afterMs, staysMs }: { readonly afterMs: number; readonly staysMs: number },
): Phase {
  switch (phase) {
    case 'off':
      return condition ? (afterMs > 0 ? 'waiting' : 'on') : 'off';
    case 'waiting':
      return condition ? 'waiting' : 'off';
    case 'on':
      return condition ? 'on' : staysMs > 0 ? 'staying' : 'off';
    case 'staying':
      return condition ? 'on' : 'staying';
  }
}

/** Whether a timer of a function runs. */
export function isTiming({ memory, phases }: ControlState, fn: ControlFunction): boolean {
  const { when, id } = fn;
  switch (when.way) {
    case 'always':
      return false;
    case 'while': {
      const phase = phases.get(id);
      return phase === 'waiting' || phase === 'staying';
    }
    case 'latched':
    case 'cycle':
      return when.timeoutMs > 0 && (memory.get(id) ?? 0) > 0;
  }
}
