import type { InputEvent } from '../design/condition.ts';
import type { ControlFunction } from '../design/functions.ts';
import type { ControlState, ControlProgram, ProgramEvent } from './program.ts';
import { initialControlState, isTiming, step } from './step.ts';

/** A programme that runs in real time: where it stands, and when its timers end. */
export interface Simulation {
  readonly state: ControlState;
  readonly nowMs: number;
  /** Functions with a running timer, and when it ends, ms. */
  readonly dueMs: ReadonlyMap<string, number>;
}

export const initialSimulation = (programme: ControlProgram): Simulation =>
  withTimers(
    programme,
    { state: initialControlState(programme), nowMs: 0, dueMs: new Map() },
    null,
    new Set(),
  );

/**
 * Something happens now. Timers that are due have ended before.
 * @returns null when it does not happen: the input stands there already, or the values together are forbidden
 */
export function applyEvent(
  programme: ControlProgram,
  running: Simulation,
  event: InputEvent,
): Simulation | null {
  return take(programme, advanceTime(programme, running, 0), event);
}

/** Time passes; timers that are due come to their end, the earliest first, of equal ones the strongest. */
export function advanceTime(programme: ControlProgram, running: Simulation, ms: number): Simulation {
  const untilMs = running.nowMs + ms;
  let now = running;
  for (;;) {
    const next = nextDue(programme, now);
    if (next === null || next.atMs > untilMs) return { ...now, nowMs: untilMs };
    const at = { ...now, nowMs: next.atMs };
    now = take(programme, at, { kind: 'ends', functionId: next.functionId }) ?? at;
  }
}

/** The timer that ends next; null when none runs. */
export function nextDue(
  { ranked }: ControlProgram,
  { dueMs }: Simulation,
): { readonly functionId: string; readonly atMs: number } | null {
  const atMs = Math.min(...dueMs.values());
  const fn = ranked.find(({ id }) => dueMs.get(id) === atMs);
  return fn === undefined ? null : { functionId: fn.id, atMs };
}

function take(programme: ControlProgram, running: Simulation, event: ProgramEvent): Simulation | null {
  const stepped = step(programme, running.state, event);
  if (stepped === null) return null;
  const ended = event.kind === 'ends' ? event.functionId : null;
  return withTimers(programme, { ...running, state: stepped.state }, running, stepped.renewed, ended);
}

/** The timers of a state that was just entered: new ones start now, those that run on keep their end. */
function withTimers(
  programme: ControlProgram,
  entered: Simulation,
  before: Simulation | null,
  renewed: ReadonlySet<string>,
  ended: string | null = null,
): Simulation {
  const dueMs = new Map<string, number>();
  for (const fn of programme.ranked) {
    if (!isTiming(entered.state, fn)) continue;
    const was = before?.dueMs.get(fn.id);
    const same =
      before !== null &&
      before.state.phases.get(fn.id) === entered.state.phases.get(fn.id) &&
      ended !== fn.id;
    const runsOn = was !== undefined && same && !renewed.has(fn.id);
    dueMs.set(fn.id, runsOn ? was : entered.nowMs + lengthMs(fn, entered.state));
  }
  return { ...entered, dueMs };
}

function lengthMs({ when, id }: ControlFunction, { phases }: ControlState): number {
  switch (when.way) {
    case 'always':
      return 0;
    case 'while':
      return phases.get(id) === 'waiting' ? when.afterMs : when.staysMs;
    case 'latched':
    case 'cycle':
      return when.timeoutMs;
  }
}
